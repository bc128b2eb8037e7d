<script setup lang="ts">
import type { Closing } from '@moray/core/job/record'
import type { Step } from '@moray/core/route/route'
import Button from 'primevue/button'
import { computed } from 'vue'
import { useOwn } from '../../stores/own.ts'
import { readTyped } from '../../ui/both-units.ts'
import { answerWords } from './route-view.ts'

/** Somebody else has closed the step that one was at: what was given here stays, to be taken as a correction or left. */
const props = defineProps<{
  step: Step
  closing: Closing | undefined
  mine: Record<string, boolean | number | string>
}>()
const emit = defineEmits<{ correct: []; leave: [] }>()
const own = useOwn()
const given = computed(() =>
  props.step.asks.flatMap((a) => {
    const value = props.mine[a.fact]
    if (value === undefined) return []
    // a number is still as it was typed
    const typed =
      a.kind === 'number' ? readTyped(String(value), a.unit ?? '', a.quantity, own.first) : undefined
    const text = typed?.state === 'value' ? typed.shown : answerWords(a, value, String(value))
    return [{ label: a.label, text }]
  }),
)
</script>

<template>
  <section class="meanwhile-closed" aria-label="Closed meanwhile">
    <p>
      <strong>{{ closing?.by ?? 'Somebody' }} has closed this step meanwhile.</strong> What you had given is
      still here:
    </p>
    <dl class="small">
      <div v-for="g in given" :key="g.label">
        <dt class="soft">{{ g.label }}</dt>
        <dd>{{ g.text }}</dd>
      </div>
    </dl>
    <div class="acts">
      <Button label="Go on" class="lamp" @click="emit('leave')" />
      <Button v-if="closing" label="Correct it with mine" class="quiet" @click="emit('correct')" />
    </div>
  </section>
</template>

<style scoped>
.meanwhile-closed {
  border: 2px solid var(--ink);
  border-left-width: 8px;
  padding: 0.5rem 0.7rem;
  margin-bottom: 0.7rem;
}
dd {
  margin: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin-top: 0.5rem;
}
</style>
