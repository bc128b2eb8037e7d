<script setup lang="ts">
import type { Ask } from '@moray/core/route/route'
import { computed, useId } from 'vue'
import { bareUnit, readTyped } from '../../ui/both-units.ts'
import { useOwn } from '../../stores/own.ts'

/** One question of a step. A wrong answer is said at once, in the words that will stop the step. */
const props = defineProps<{ ask: Ask; wrong?: string | undefined }>()
const answer = defineModel<boolean | number | string | undefined>({ required: true })
const id = useId()
const own = useOwn()
const typed = computed(() =>
  props.ask.kind === 'number'
    ? readTyped(String(answer.value ?? ''), props.ask.unit, props.ask.quantity, own.first)
    : { state: 'empty' as const },
)
const text = computed({
  get: () => String(answer.value ?? ''),
  set: (v: string) => (answer.value = v === '' ? undefined : v),
})
/** The unit of a bare number. */
const unitHint = computed(() => {
  if (props.ask.kind !== 'number') return ''
  const { unit, quantity } = props.ask
  return quantity ? bareUnit(quantity, own.first) : unit
})
/** What is ticked of a list, in the list's order. */
const chosen = computed(() => String(answer.value ?? '').split(' '))
function toggle(value: string, on: boolean) {
  if (props.ask.kind !== 'list') return
  answer.value = props.ask.options
    .map((o) => o.value)
    .filter((v) => (v === value ? on : chosen.value.includes(v)))
    .join(' ')
}
</script>

<template>
  <label v-if="ask.kind === 'tick'" class="tick" :class="{ on: answer === true, bad: wrong }">
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
  <fieldset v-else-if="ask.kind === 'choice'" class="one-of choice" :class="{ bad: wrong }">
    <legend>{{ ask.label }}</legend>
    <label v-for="o in ask.options" :key="o.value" :class="{ on: answer === o.value }">
      <input v-model="answer" type="radio" :name="id" :value="o.value" class="sr-only" /> {{ o.label }}
    </label>
  </fieldset>
  <fieldset v-else-if="ask.kind === 'list'" class="list" :class="{ bad: wrong }">
    <legend>{{ ask.label }}</legend>
    <label v-for="o in ask.options" :key="o.value" class="tick" :class="{ on: chosen.includes(o.value) }">
      <input
        type="checkbox"
        class="sr-only"
        :checked="chosen.includes(o.value)"
        @change="toggle(o.value, ($event.target as HTMLInputElement).checked)"
      />
      <svg width="30" height="30" viewBox="0 0 30 30" aria-hidden="true">
        <rect x="2" y="2" width="26" height="26" />
        <path v-if="chosen.includes(o.value)" d="M7 15 L13 22 L24 7" />
      </svg>
      <span>{{ o.label }}</span>
    </label>
  </fieldset>
  <div v-else class="line" :class="{ bad: wrong }">
    <label :for="id"
      >{{ ask.label }}<span v-if="ask.optional" class="soft small"> may be left out</span></label
    >
    <textarea v-if="ask.kind === 'text'" :id="id" v-model="text" rows="2" maxlength="600"></textarea>
    <template v-else-if="ask.kind === 'number'">
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
        :aria-invalid="typed.state === 'not' || !!wrong"
      />
      <span :id="`${id}-said`" class="small mono">
        <span v-if="typed.state === 'value'">{{ typed.shown }}</span>
        <span v-else-if="typed.state === 'not'" class="why">{{ typed.why }}</span>
        <span v-else class="soft">{{ unitHint }}</span>
      </span>
    </template>
  </div>
  <p v-if="wrong" class="why stop" role="alert">{{ wrong }}</p>
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
.list legend,
.line label {
  font-weight: 700;
}
.list {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.6rem;
  border: 0;
  margin: 0;
  padding: 0;
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
