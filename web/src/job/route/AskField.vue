<script setup lang="ts">
import type { Ask } from '@moray/core/route/route'
import { computed, useId } from 'vue'
import { readTyped } from '../../ui/both-units.ts'

/** One question of a step. A wrong answer is said at once, in the words that will stop the step. */
const props = defineProps<{ ask: Ask; wrong?: string | undefined; error?: string | undefined }>()
const answer = defineModel<boolean | number | string | undefined>({ required: true })
const id = useId()
const typed = computed(() =>
  props.ask.kind === 'number'
    ? readTyped(String(answer.value ?? ''), props.ask.unit, props.ask.quantity)
    : { state: 'empty' as const },
)
const text = computed({
  get: () => String(answer.value ?? ''),
  set: (v: string) => (answer.value = v === '' ? undefined : v),
})
const said = computed(() => props.error ?? props.wrong)
</script>

<template>
  <label v-if="ask.kind === 'tick'" class="tick" :class="{ on: answer === true, bad: said }">
    <input
      type="checkbox"
      class="sr-only"
      :checked="answer === true"
      @change="answer = ($event.target as HTMLInputElement).checked ? true : undefined"
    />
    <svg width="30" height="30" viewBox="0 0 30 30" aria-hidden="true">
      <rect x="2" y="2" width="26" height="26" />
      <path v-if="answer === true" d="M7 15 L13 22 L24 7" />
    </svg>
    <span>{{ ask.label }}<span v-if="ask.optional" class="soft"> (if so)</span></span>
  </label>
  <fieldset v-else-if="ask.kind === 'choice'" class="one-of choice" :class="{ bad: said }">
    <legend>{{ ask.label }}</legend>
    <label v-for="o in ask.options" :key="o.value" :class="{ on: answer === o.value }">
      <input v-model="answer" type="radio" :name="id" :value="o.value" class="sr-only" /> {{ o.label }}
    </label>
  </fieldset>
  <div v-else class="line" :class="{ bad: said }">
    <label :for="id"
      >{{ ask.label }}<span v-if="ask.optional" class="soft small"> may be left out</span></label
    >
    <textarea v-if="ask.kind === 'text'" :id="id" v-model="text" rows="2" maxlength="600"></textarea>
    <template v-else>
      <input
        :id="id"
        v-model="text"
        type="text"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        maxlength="40"
        :inputmode="ask.quantity ? 'text' : 'decimal'"
        :aria-describedby="`${id}-said`"
        :aria-invalid="typed.state === 'not' || !!said"
      />
      <span :id="`${id}-said`" class="small mono">
        <span v-if="typed.state === 'value'">{{ typed.shown }}</span>
        <span v-else-if="typed.state === 'not'" class="why">{{ typed.why }}</span>
        <span v-else class="soft">{{ ask.unit }}</span>
      </span>
    </template>
  </div>
  <p v-if="said" class="why stop" role="alert">{{ said }}</p>
</template>

<style scoped>
.tick {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  min-height: 48px;
  cursor: pointer;
  padding: 0.2rem 0;
}
.tick:focus-within svg {
  outline: 3px solid var(--focus);
}
.tick svg {
  flex: none;
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.tick.on svg rect {
  fill: var(--lamp);
}
.tick.on svg path {
  fill: none;
  stroke: var(--lamp-ink);
  stroke-width: 4;
}
.choice legend,
.line label {
  font-weight: 700;
}
.choice label {
  font-size: var(--t-body);
  min-height: 48px;
  padding: 0.3rem 0.8rem;
}
.line {
  display: grid;
  gap: 0.15rem;
}
.line input,
.line textarea {
  font: inherit;
  font-size: 1.375rem;
  min-height: 52px;
  padding: 0 0.7rem;
  color: var(--ink);
  background: var(--sheet);
  border: 2px solid var(--line-strong);
  width: 100%;
}
.line textarea {
  font-size: var(--t-body);
  padding: 0.5rem 0.7rem;
  resize: vertical;
}
.line input:focus,
.line textarea:focus {
  border-color: var(--ink);
}
.why {
  color: var(--out);
  white-space: normal;
}
.stop {
  border-left: 4px solid var(--out);
  padding: 0.2rem 0 0.2rem 0.7rem;
}
</style>
