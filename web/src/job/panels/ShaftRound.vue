<script setup lang="ts">
import { RUNOUT_PLACES, shaftsOf, type RunoutMeasure } from '@moray/core/setting/shaft-stations'
import { computed } from 'vue'
import RunoutPlot from '../../charts/RunoutPlot.vue'
import VerdictMark from '../../ui/VerdictMark.vue'
import { useUnits } from '../../ui/units.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'

/** A shaft by its stations: what each reads round the clock, where it is high, and what the stations together say of its shape. */
const props = defineProps<{ job: ShownJob; build: ShownBuild; station: RunoutMeasure }>()
defineEmits<{ go: [id: string] }>()

const units = useUnits()
const shaft = computed(() =>
  shaftsOf(props.job.sheet, props.build.state).find((s) => s.axis === props.station.axis)!,
)
const here = computed(() => shaft.value.stations.find((s) => s.measure.id === props.station.id)!)
const input = computed(() => ({ readingsMm: RUNOUT_PLACES.map((p) => here.value.read[p] ?? 0) }))
const eighth = (deg: number) => `${(Math.round(deg / 45) % 8) + 1} of 8 (${Math.round(deg)}°)`
const SHAPES = {
  straight: 'Straight and true, as far as this gauge tells.',
  offset: 'Runs out alike all along: the shaft is straight and sits beside its axis.',
  skew: 'Straight, but askew to its axis.',
  kink: 'Bent',
}
</script>

<template>
  <section class="shaft" aria-label="Round the shaft">
    <div v-if="here.result" class="round">
      <RunoutPlot :input="input" :result="here.result" />
    </div>
    <p v-else class="soft">
      {{ Object.keys(here.read).length }} of {{ RUNOUT_PLACES.length }} places read; with all of them it is
      drawn and judged.
    </p>
    <div class="wide">
      <table class="ledger">
        <thead>
          <tr>
            <th scope="col">Station</th>
            <th scope="col">Total, {{ units.lengthUnit.value }}</th>
            <th scope="col">Limit</th>
            <th scope="col">High at</th>
            <th scope="col">Verdict</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in shaft.stations" :key="s.measure.id">
            <td>
              <button type="button" class="texty" @click="$emit('go', s.measure.id)">
                {{ s.measure.zone }}
              </button>
            </td>
            <td class="mono">
              <template v-if="s.result"
                >{{ units.digits(s.result.tirMm, 3) }}
                <span class="small">± {{ units.digits(s.result.U, 3) }}</span>
                <span v-if="s.withoutBlips" class="small block"
                  >without what stands out like a nick {{ units.digits(s.withoutBlips.tirMm, 3) }}</span
                ></template
              >
              <template v-else>—</template>
            </td>
            <td class="mono">{{ units.digits(s.measure.window.max!, 2) }}</td>
            <td>{{ s.result ? eighth(s.result.highAtDeg) : '—' }}</td>
            <td>
              <VerdictMark :verdict="s.result?.verdict" />
              <VerdictMark v-if="s.withoutBlips" :verdict="s.withoutBlips.verdict" />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="shaft.shape" class="shape">
      <strong>{{ SHAPES[shaft.shape.shape] }}</strong
      ><template v-if="shaft.shape.kinkAtMm !== undefined">
        at {{ units.both(shaft.shape.kinkAtMm, 0) }} along it</template
      ><template v-if="shaft.shape.shape !== 'straight'"
        >. Mark the high side at {{ eighth(shaft.shape.markAtDeg) }}.</template
      >
    </p>
    <p v-else-if="shaft.stations.filter((s) => s.result && !s.measure.gear).length > 1" class="small soft">
      Say how far along the shaft each station is, and its shape follows.
    </p>
  </section>
</template>

<style scoped>
.shaft {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}
.wide {
  overflow-x: auto;
}
.block {
  display: block;
}
.round {
  max-width: 30rem;
}
</style>
