<script setup lang="ts">
import type { BacklashRound } from '@moray/core/measuring/backlash-round'
import { useUnits } from '../../../ui/units.ts'
import { clockHour } from '../../reading-words.ts'

/** What the places round a gear come to: the tightest and the widest are judged, their difference is the gear's runout. */
defineProps<{ round: BacklashRound; decimals: number }>()
const units = useUnits()
</script>

<template>
  <dl class="round small">
    <div>
      <dt>tightest, {{ clockHour(round.smallestAtDeg) }}</dt>
      <dd class="mono">{{ units.length(round.smallestMm, decimals) }}</dd>
    </div>
    <div>
      <dt>widest</dt>
      <dd class="mono">{{ units.length(round.largestMm, decimals) }}</dd>
    </div>
    <div>
      <dt>runs out by</dt>
      <dd class="mono">{{ units.length(2 * round.runoutMm, 3) }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.round {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
</style>
