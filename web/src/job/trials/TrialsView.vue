<script setup lang="ts">
import type { EChartsOption } from 'echarts'
import { computed } from 'vue'
import ChartFrame from '../../charts/ChartFrame.vue'
import { axis, useInk } from '../../charts/ink.ts'
import { settingMeasures, unitOf } from '@moray/core/setting/measures'
import VerdictMark from '../../ui/VerdictMark.vue'
import { useUnits } from '../../ui/units.ts'
import { useExperience } from '../../wire/queries.ts'
import { buildName, decimalsOf } from '../setting-view.ts'
import type { ShownJob } from '../shown-job.ts'
import { answersOf, inWindow, trialRows } from './trials-view.ts'

/** The builds of a job side by side: how every measure came into its window, and how the case has answered. */
const props = defineProps<{ job: ShownJob }>()

const units = useUnits()
const ink = useInk()
const taught = useExperience(
  () => props.job.sheetId,
  () => props.job.id,
)
const rows = computed(() => trialRows(props.job.sheet, props.job.builds))
const answers = computed(() =>
  answersOf(props.job.sheet, props.job.builds, taught.taught?.experience ?? undefined),
)
const label = (list: { id: string; label: string }[], id: string) =>
  list.find((x) => x.id === id)?.label ?? id
const showOf = (id: string) => units.of(unitOf(settingMeasures(props.job.sheet).find((m) => m.id === id)!))
const SYMBOLS = ['circle', 'rect', 'triangle', 'diamond', 'pin', 'arrow']
const option = computed((): EChartsOption => {
  const names = props.job.builds.map(buildName)
  return {
    animation: false,
    grid: { left: 64, right: 20, top: 34, bottom: 30 },
    legend: { top: 0, textStyle: { color: ink.value.ink, fontFamily: ink.value.font } },
    xAxis: {
      type: 'category',
      data: names,
      axisLabel: { color: ink.value.ink, fontFamily: ink.value.font },
    },
    yAxis: axis(ink.value, '', {
      min: (v: { min: number }) => Math.floor(Math.min(-1.5, v.min)),
      max: (v: { max: number }) => Math.ceil(Math.max(1.5, v.max)),
      axisLabel: {
        color: ink.value.soft,
        fontFamily: ink.value.font,
        formatter: (v: number) => (v === 1 ? 'upper' : v === -1 ? 'lower' : v === 0 ? 'middle' : ''),
      },
    }),
    series: rows.value.map((r, i) => ({
      type: 'line',
      name: r.measure.label,
      symbol: SYMBOLS[i % SYMBOLS.length]!,
      symbolSize: 12,
      lineStyle: { width: 2, type: i % 2 ? 'dashed' : 'solid', color: ink.value.ink },
      itemStyle: {
        color: i % 2 ? ink.value.lamp : ink.value.ink,
        borderColor: ink.value.ink,
        borderWidth: 1,
      },
      data: r.cells.map((c) => (c.mean === undefined ? null : inWindow(c, c.mean))),
      ...(i === 0
        ? {
            markArea: {
              silent: true,
              itemStyle: { color: ink.value.in, opacity: 0.14 },
              data: [[{ yAxis: -1 }, { yAxis: 1 }]],
            },
          }
        : {}),
    })),
  }
})
const said = computed(
  () =>
    `Builds against their windows: ${rows.value
      .map(
        (r) =>
          `${r.measure.label} ${r.cells
            .map((c) => (c.mean === undefined ? 'not read' : inWindow(c, c.mean).toFixed(1)))
            .join(', ')}`,
      )
      .join('; ')}`,
)
</script>

<template>
  <section aria-label="Trials">
    <ChartFrame :option="option" :height="240" :label="said" />
    <div class="scroll" tabindex="0" role="group" aria-label="Trials, read and promised">
      <table class="ledger">
        <caption class="sr-only">
          What was read in every build, and what was promised
        </caption>
        <thead>
          <tr>
            <th scope="col"></th>
            <th v-for="b in job.builds" :key="b.number" scope="col">{{ buildName(b) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.measure.id">
            <th scope="row">{{ r.measure.label }}</th>
            <td v-for="c in r.cells" :key="c.build" class="mono">
              <template v-if="c.mean !== undefined">
                <VerdictMark bare :verdict="c.verdict" />
                {{ units.of(unitOf(r.measure)).digits(c.mean, decimalsOf(r.measure)) }}
                <span class="small">± {{ units.of(unitOf(r.measure)).digits(c.U!, 3) }}</span>
              </template>
              <span v-else class="soft">—</span>
              <span v-if="c.promised !== undefined" class="small soft promised" :class="{ off: c.disagrees }"
                >promised {{ units.of(unitOf(r.measure)).digits(c.promised, decimalsOf(r.measure)) }}</span
              >
            </td>
          </tr>
          <tr>
            <th scope="row">Promised to land</th>
            <td v-for="b in job.builds" :key="b.number" class="mono">
              {{ b.plan?.probability == null ? '—' : `${Math.round(b.plan.probability * 100)} %` }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="answers.length" class="scroll" tabindex="0" role="group" aria-label="How it answers">
      <table class="ledger">
        <caption class="small soft">
          How it answers, per 0.10 mm of stack
        </caption>
        <thead>
          <tr>
            <th scope="col"></th>
            <th scope="col">by the sheet</th>
            <th scope="col">as this case has shown</th>
            <th scope="col">as its units have</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="a in answers" :key="`${a.measure} ${a.stack}`">
            <th scope="row">
              {{ label(settingMeasures(job.sheet), a.measure) }}
              <span class="small soft">{{ label(job.sheet.adjusters, a.stack) }}</span>
            </th>
            <td class="mono">{{ showOf(a.measure).say(a.sheet / 10, 3) }}</td>
            <td class="mono">
              <template v-if="a.learned"
                >{{ showOf(a.measure).say(a.learned.mean / 10, 3) }}
                <span class="small">± {{ showOf(a.measure).say(a.learned.U / 10, 3) }}</span></template
              >
              <span v-else class="soft">one build says nothing yet</span>
            </td>
            <td class="mono">
              <template v-if="a.units"
                >{{ showOf(a.measure).say(a.units.mean / 10, 3) }}
                <span class="small">{{ a.units.trials }} trials</span></template
              >
              <span v-else class="soft">—</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  margin-top: 0.6rem;
}
caption {
  text-align: left;
}
th .small {
  display: block;
}
.promised {
  display: block;
}
.off {
  color: var(--out);
}
</style>
