<script setup lang="ts">
import type { Closing } from '@moray/core/job/record'
import type { Step } from '@moray/core/route/route'
import Button from 'primevue/button'
import { showTime } from '../../ui/times.ts'
import { answerWords } from './route-view.ts'

/** A step that is done: what was answered, by whom, and the three ways back: it was otherwise, it never happened, it was undone since. */
defineProps<{
  step: Step
  closing: Closing | undefined
  over: boolean
  /** What it did still stands, and can have been undone. */
  undoable: boolean
}>()
defineEmits<{ next: []; correct: []; back: []; undo: [] }>()
</script>

<template>
  <template v-if="closing">
    <p class="small soft">Done by {{ closing.by }}, {{ showTime(closing.at) }}</p>
    <div v-if="closing.departedFrom.length" class="departed">
      <p>
        <strong>{{ closing.undone ? 'Left undone:' : 'Gone on all the same:' }}</strong> {{ closing.reason
        }}<template v-if="closing.lead">; agreed by {{ closing.lead }}</template>
      </p>
      <p v-for="d in closing.departedFrom" :key="d" class="small">{{ d }}</p>
    </div>
    <dl class="answers">
      <template v-for="a in step.asks" :key="a.fact">
        <div v-if="closing.answers[a.fact] !== undefined">
          <dt>{{ a.label }}</dt>
          <dd>{{ answerWords(a, closing.answers[a.fact]!, closing.texts[a.fact]) }}</dd>
        </div>
      </template>
    </dl>
  </template>
  <p v-else>Done: what it waited for is there.</p>
  <div class="actions">
    <Button v-if="!over" label="To what is due" class="lamp" @click="$emit('next')" />
    <Button
      v-if="closing && step.asks.length"
      label="Correct an answer"
      class="quiet"
      @click="$emit('correct')"
    />
    <Button v-if="closing && !over" label="Do it again" class="quiet" @click="$emit('back')" />
    <Button v-if="undoable && !over" label="It was undone since" class="quiet" @click="$emit('undo')" />
    <slot />
  </div>
</template>

<style scoped>
.departed {
  border-left: 4px solid var(--ink);
  padding-left: 0.7rem;
  margin: 0.5rem 0;
}
.answers {
  margin: 0.5rem 0;
}
.answers div {
  border-bottom: 1px solid var(--line);
  padding: 0.2rem 0;
}
dt {
  font-size: var(--t-small);
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  position: sticky;
  bottom: 0;
  background: var(--paper);
  padding: 0.5rem 0;
}
</style>
