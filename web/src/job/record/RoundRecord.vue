<script setup lang="ts">
import { settableAdjusters } from '@moray/core/drives/sheet'
import type { Window } from '@moray/core/checks/window'
import { unitOf, type SetMeasure } from '@moray/core/setting/measures'
import { computed } from 'vue'
import { showTime as at } from '../../ui/times.ts'
import { useUnits } from '../../ui/units.ts'
import VerdictMark from '../../ui/VerdictMark.vue'
import { howText, uncheckedText } from '../reading-words.ts'
import { buildName, shownMeasures } from '../setting-view.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'

/** One state of the gears: stacks, readings against their windows, what was promised. */
const props = defineProps<{ job: ShownJob; build: ShownBuild }>()
const b = computed(() => props.build)
const units = useUnits()
const stacks = computed(() => settableAdjusters(props.job.sheet))
const readingsOf = (build: ShownBuild, m: SetMeasure) => build.readings.filter((r) => r.measure === m.id)
const show = (m: SetMeasure) => units.of(unitOf(m))
/** The heading names the unit of lengths; a torque says its own. */
const figure = (m: SetMeasure, value: number) =>
  unitOf(m) === 'mm' ? show(m).digits(value, 3) : show(m).say(value, 3)
function windowText(m: SetMeasure, { min, max }: Window): string {
  const { digits, unit } = show(m)
  const named = unitOf(m) === 'mm' ? '' : ` ${unit}`
  if (min === undefined) return max === undefined ? 'none on the sheet' : `up to ${digits(max)}${named}`
  return max === undefined ? `from ${digits(min)}${named}` : `${digits(min)} to ${digits(max)}${named}`
}
</script>

<template>
  <section class="round" :aria-label="buildName(b)">
    <h2>{{ buildName(b) }}</h2>
    <p class="small soft">
      {{ b.by }}, {{ at(b.at)
      }}<template v-if="b.plan?.probability != null"
        >; promised to land with {{ Math.round(b.plan.probability * 100) }} %</template
      >
    </p>
    <table class="ledger fine">
      <thead>
        <tr>
          <th scope="col">Stack</th>
          <th scope="col">Thickness</th>
          <th scope="col">Pieces</th>
          <th scope="col">Entered</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="s in b.stacks" :key="s.id" :class="{ gone: s.superseded }">
          <td>{{ stacks.find((a) => a.id === s.location)?.label ?? s.location }}</td>
          <td class="mono">{{ units.both(s.thicknessMm, 3) }}</td>
          <td class="mono">{{ s.pieces.map((p) => units.digits(p.thicknessMm, 3)).join(' + ') }}</td>
          <td>
            {{ s.by }}, {{ at(s.at) }}<span v-if="s.superseded"> · set aside: {{ s.superseded.reason }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <table class="ledger fine">
      <thead>
        <tr>
          <th scope="col">Measure</th>
          <th scope="col">Window, {{ units.lengthUnit.value }}</th>
          <th v-if="b.plan" scope="col">Promised</th>
          <th scope="col">Mean ± U, {{ units.lengthUnit.value }}</th>
          <th scope="col">Verdict</th>
          <th scope="col">Readings, {{ units.lengthUnit.value }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="m in shownMeasures(job.sheet, b)" :key="m.id">
          <td>{{ m.label }}</td>
          <td class="mono">{{ windowText(m, b.assessment.measures[m.id]!.window) }}</td>
          <td v-if="b.plan" class="mono">
            {{ b.plan.predicted[m.id] ? figure(m, b.plan.predicted[m.id]!.value) : '—' }}
          </td>
          <td class="mono">
            <template v-if="b.assessment.measures[m.id]!.judgement"
              >{{ figure(m, b.assessment.measures[m.id]!.judgement!.mean) }} ±
              {{ figure(m, b.assessment.measures[m.id]!.judgement!.U)
              }}<span v-if="m.kind === 'seat' && b.state.stacks[m.by] !== undefined" class="small soft block"
                >short of the stack asked for,
                {{
                  units.digits(b.state.stacks[m.by]! + b.assessment.measures[m.id]!.judgement!.mean, 3)
                }}</span
              ></template
            >
            <template v-else>—</template>
          </td>
          <td>
            <VerdictMark :verdict="b.assessment.measures[m.id]!.judgement?.verdict" />
            <span v-if="uncheckedText(readingsOf(b, m))" class="small soft block">{{
              uncheckedText(readingsOf(b, m))
            }}</span>
          </td>
          <td>
            <span v-for="r in readingsOf(b, m)" :key="r.id" class="reading" :class="{ gone: r.superseded }">
              <span class="mono value">{{ figure(m, r.value) }}</span>
              <span class="small soft">
                {{ howText(r, units) }}{{ r.gaugeName
                }}{{
                  r.gaugeOverdue
                    ? ' (calibration overdue)'
                    : r.gaugeOverdue === null
                      ? ' (calibration not known)'
                      : ''
                }}, {{ r.by }}, {{ at(r.at) }}</span
              >
              <span v-if="r.superseded" class="small"> · set aside: {{ r.superseded.reason }}</span>
            </span>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  margin-top: 1.4rem;
  break-inside: avoid-page;
  overflow-x: auto;
}
.block {
  display: block;
}
.reading {
  display: block;
}
.reading .value {
  margin-right: 0.5rem;
}
.gone .mono,
tr.gone td:not(:last-child) {
  text-decoration: line-through;
}
@media print {
  .reading .small {
    font-size: 7pt;
  }
}
</style>
