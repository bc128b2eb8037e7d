<script setup lang="ts">
import { computed } from 'vue'
import { useContact } from '../../workers/use-contact.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import { contactPairs } from '@moray/core/contact/as-set'
import { asked, assumedText } from './pair-view.ts'
import PairContact from './PairContact.vue'

/** The contact of every pair of gears as the gauges have it, and as it would be with other stacks. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  /** Stacks as they would be, mm; those that stay are left out. */
  stacks: Record<string, number>
}>()

const pairs = computed(() =>
  contactPairs(props.job.sheet, props.build.assessment).filter((p) => p.stands !== undefined),
)
const change = computed(() =>
  Object.fromEntries(
    Object.entries(props.stacks).map(([id, mm]) => [id, mm - (props.build.state.stacks[id] ?? mm)]),
  ),
)
const now = useContact(() => asked(props.job.sheet, pairs.value))
const then = useContact(() => asked(props.job.sheet, pairs.value, change.value))
const assumed = computed(() => [...new Set(pairs.value.flatMap((p) => p.teeth.assumed))])
</script>

<template>
  <section v-if="pairs.length" aria-label="Contact" class="strip">
    <div class="pairs">
      <PairContact
        v-for="p in pairs"
        :key="p.pair.id"
        :label="p.pair.label"
        :pushed="p.teeth.pushed"
        :now="now[p.pair.id]"
        :then="then[p.pair.id]"
      />
    </div>
    <p class="small soft">Contact, computed; dashed: as it is now. {{ assumedText(assumed) }}</p>
  </section>
</template>

<style scoped>
.strip {
  border-top: 1px solid var(--line);
  padding: 0.3rem 0;
}
.pairs {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
  gap: 0.2rem 1rem;
}
</style>
