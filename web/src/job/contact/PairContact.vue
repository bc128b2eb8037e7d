<script setup lang="ts">
import { FLANKS, type Flank, type PushedFlank } from '@moray/core/gears/flank'
import FlankDrawing from '../../drawing/FlankDrawing.vue'
import type { PairPatches } from '../../workers/contact-api.ts'

/** Both flanks of one gear with its patch as it would be; what it is now as a dashed line. */
const props = defineProps<{ label: string; pushed: PushedFlank; now?: PairPatches; then?: PairPatches }>()

/** While nobody knows which flank is pushed, they are called by their shape (flank.ts says which is which). */
const titleOf = (flank: Flank) => {
  if (props.pushed === undefined) return flank === 'drive' ? 'Concave flank' : 'Convex flank'
  return flank === 'drive' ? 'Drive flank' : 'Coast flank'
}
</script>

<template>
  <section :aria-label="`Contact, ${label}`">
    <h4>{{ label }}</h4>
    <div class="flanks">
      <div v-for="f in FLANKS" :key="f">
        <FlankDrawing
          compact
          :title="titleOf(f)"
          :outline="then?.[f]?.outline"
          :centre="then?.[f] ? [then[f].centroidLength, then[f].centroidProfile] : undefined"
          :before="now?.[f]?.outline"
        />
        <p v-if="then && !then[f]" class="small">touches nowhere on this flank</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
h4 {
  font-size: var(--t-small);
  margin: 0;
}
.flanks {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem;
}
</style>
