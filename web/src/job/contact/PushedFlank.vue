<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { GearFlank } from '@moray/core/gears/flank'
import type { GearMesh } from '@moray/core/drives/sheet'
import Button from 'primevue/button'
import { useJobWrite } from '../../writing/use-job-write.ts'
import type { ShownJob } from '../shown-job.ts'

/** Asks by a picture which side of a gear tooth the pinion pushes. The answer is kept on the sheet of this job, and waits for its next edition. */
const props = defineProps<{ job: ShownJob; pair: GearMesh }>()
const write = useJobWrite()
const SIDES: { side: GearFlank; label: string }[] = [
  { side: 'concave', label: 'The hollow side' },
  { side: 'convex', label: 'The round side' },
]
/** Pairs on one pinion are pushed alike: the first of them carries the answer. */
const first = () => props.job.sheet.meshes.find((m) => m.pinion === props.pair.pinion)!
const say = (side: GearFlank) =>
  write.send(
    endpoints.addFigure,
    { id: props.job.id },
    { path: `meshes.${first().id}.pushed`, text: side, source: 'measured' },
  )
</script>

<template>
  <section aria-label="Which flank is pushed" class="pushed">
    <h2>Which side is pushed?</h2>
    <p>
      Turn the driveshaft the way the engine does, in forward. Look at a tooth of the gear: which side does
      the pinion push?
    </p>
    <svg
      viewBox="0 0 320 150"
      role="img"
      aria-label="A curved gear tooth from above, its hollow side and its round side"
    >
      <path class="tooth" d="M40 96 Q160 20 280 96 L280 122 Q160 58 40 122 Z" />
      <text x="160" y="30" text-anchor="middle">round side</text>
      <text x="160" y="132" text-anchor="middle">hollow side</text>
      <text x="34" y="113" text-anchor="end">toe</text>
      <text x="286" y="113">heel</text>
    </svg>
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
    <div class="sides">
      <Button
        v-for="s in SIDES"
        :key="s.side"
        :label="s.label"
        class="quiet"
        :disabled="write.busy.value"
        @click="say(s.side)"
      />
    </div>
    <p class="small soft">
      Your answer is kept on this job's sheet and goes into its next edition. Nothing is read back before you
      answer.
    </p>
  </section>
</template>

<style scoped>
.pushed {
  border-bottom: 2px solid var(--ink);
  margin-bottom: 0.8rem;
  padding-bottom: 0.4rem;
}
svg {
  width: 100%;
  max-width: 16rem;
}
.tooth {
  fill: var(--gear);
  stroke: var(--ink);
}
text {
  fill: var(--ink);
  font-size: 14px;
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem;
}
</style>
