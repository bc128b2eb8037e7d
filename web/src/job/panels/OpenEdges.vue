<script setup lang="ts">
import type { SettleEdge } from '@moray/contract/requests/sheets'
import { openEdges, type OpenEdge } from '@moray/core/job/unknown-edges'
import { computed } from 'vue'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import type { ShownJob } from '../shown-job.ts'

/** What the sheet leaves open about the parts that this step touches: asked once, here where it can be seen, and kept for the next job. */
const props = defineProps<{ job: ShownJob; step: string; write: WriteState }>()
const emit = defineEmits<{ settle: [edge: SettleEdge, answered: Answered] }>()
const open = computed(() => openEdges(props.job, props.step))
const ANSWERS = { yes: 'Yes', no: 'No', 'cannot-tell': 'Cannot tell' } as const
function settle({ list, row, field, to }: OpenEdge, seen: SettleEdge['seen']) {
  emit('settle', { list, row, field, to, seen }, () => {})
}
</script>

<template>
  <section v-if="open.length" class="open" aria-label="Not known yet">
    <h3>Look, and say</h3>
    <p class="small soft">The sheet does not know this yet. Your answer is kept for the next job.</p>
    <div
      v-for="e in open"
      :key="`${e.list} ${e.row} ${e.field} ${e.to}`"
      role="group"
      :aria-label="e.question"
    >
      <p>{{ e.question }}</p>
      <button
        v-for="(label, seen) in ANSWERS"
        :key="seen"
        type="button"
        :disabled="write.busy"
        @click="settle(e, seen)"
      >
        {{ label }}
      </button>
    </div>
    <p v-if="write.error" class="fault small" role="alert">{{ write.error.message }}</p>
  </section>
</template>

<style scoped>
.open {
  border: 2px solid var(--ink);
  padding: 0.5rem 0.7rem;
  margin-bottom: 0.8rem;
}
h3,
p {
  margin: 0;
}
[role='group'] {
  padding: 0.4rem 0;
}
button {
  min-height: 44px;
  padding: 0 0.9rem;
  margin-right: 0.5rem;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
</style>
