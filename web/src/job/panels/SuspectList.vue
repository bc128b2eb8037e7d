<script setup lang="ts">
import { settingMeasures } from '@moray/core/setting/measures'
import { suspectsOf } from '@moray/core/job/suspects-of'
import type { Suspect } from '@moray/core/setting/suspects'
import { computed } from 'vue'
import { useUnits } from '../../ui/units.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'

/** A build that reads as its stacks cannot make it: what is likely behind it, and what settles it. */
const props = defineProps<{ job: ShownJob; build: ShownBuild }>()

const units = useUnits()
const label = (id: string) => props.job.sheet.adjusters.find((a) => a.id === id)?.label ?? id
const measure = (id: string) => settingMeasures(props.job.sheet).find((m) => m.id === id)?.label ?? id
const list = computed(() => suspectsOf(props.job.sheet, props.job.builds, props.build))
const UNITS = { inch: 'inches', mm: 'millimetres', thousandths: 'thousandths of an inch' }
function words(s: Suspect): { what: string; settle: string } {
  switch (s.kind) {
    case 'stack': {
      const off = units.both(Math.abs(s.byMm), 2)
      const piece = s.piece
        ? s.piece.is === 'missing'
          ? ` The piece of ${units.both(s.piece.mm, 3)} may not be in.`
          : ` The piece of ${units.both(s.piece.mm, 3)} of the build before may still be in, stuck to gear or case.`
        : ''
      return {
        what: `${label(s.stack)}: as if ${off} ${s.byMm < 0 ? 'thinner' : 'thicker'} than recorded.${piece}`,
        settle: 'Take them out, measure and count each, and build it up again.',
      }
    }
    case 'unit':
      return {
        what: `${measure(s.measure)}: as promised, if it was read in ${UNITS[s.as]}.`,
        settle: 'Look at the unit under the field; set the readings aside and enter them again.',
      }
    default:
      return {
        what: `Only ${measure(s.measure)} is off; all else reads as promised.`,
        settle: 'Look at the gauge, at what is held, and whether that part is seated; read it once more.',
      }
  }
}
</script>

<template>
  <ul v-if="list.length" class="suspects" aria-label="What may be behind it">
    <li v-for="(s, i) in list.slice(0, 3)" :key="i">
      <strong v-if="i === 0">Likeliest: </strong>{{ words(s).what }}
      <span class="small soft">{{ words(s).settle }}</span>
    </li>
  </ul>
  <p v-else class="small">
    Look first for a reading in another unit, a stack miscounted, a part not seated, a shim stuck to a gear.
  </p>
</template>

<style scoped>
.suspects {
  display: grid;
  gap: 0.4rem;
}
.suspects li span {
  display: block;
}
</style>
