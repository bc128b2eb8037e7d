<script setup lang="ts">
import type { Step } from '@moray/core/route/route'
import Button from 'primevue/button'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { honest, honestOf } from '@moray/core/route/honest'
import AskField from './AskField.vue'
import HonestAnswer from './HonestAnswer.vue'
import type { ShownFigure } from './route-view.ts'

/** What one step asks, and the one button that closes it, which stays in view however much is asked. Says what it is told, sends nothing. */
const props = defineProps<{
  step: Step
  /** Shut: why; nothing can be closed then. */
  shut?: string[]
  /** Wrong so far, by fact. */
  wrong: Record<string, string>
  /** What the server has against these answers, by fact; `''` for the step as a whole. */
  problems: Record<string, string>
  figures: ShownFigure[]
  /** What is pointed out beside an answer, by fact; it stops nobody. */
  hints?: Record<string, string>
  /** Figures that are known and can be taken over, by fact. */
  offers: Record<string, { label: string; value: string }>
  busy: boolean
  /** A way round, with a reason. */
  canDepart: boolean
  action: string
}>()
const emit = defineEmits<{ done: []; depart: []; leave: [] }>()
type Raw = Record<string, boolean | number | string | undefined>
const answers = defineModel<Raw>('answers', { required: true })

const frame = useTemplateRef<HTMLElement>('frame')
const set = (fact: string, value: Raw[string]) => (answers.value = { ...answers.value, [fact]: value })
const firmlyWrong = computed(() => props.step.asks.some((a) => a.firm && props.wrong[a.fact]))
const said = (fact: string) => props.wrong[fact] ?? props.problems[fact]
const wrongCount = computed(() => props.step.asks.filter((a) => said(a.fact)).length)

/** The first thing that is asked and not answered yet, of whatever kind; the button when everything is. */
function first(): HTMLElement | null {
  const asks = [...(frame.value?.querySelectorAll<HTMLElement>('.ask') ?? [])]
  const open = asks.find((a) => a.dataset['open'] === 'true')
  return (
    open?.querySelector<HTMLElement>('input, textarea') ??
    frame.value?.querySelector<HTMLElement>('.p-button.lamp') ??
    null
  )
}
/** Scrolls to what is wrong and puts the focus there. */
async function toWrong() {
  await nextTick()
  const ask = frame.value?.querySelector<HTMLElement>('.ask[data-wrong=true]')
  const target =
    ask?.querySelector<HTMLElement>('input, textarea') ??
    frame.value?.querySelector<HTMLElement>('.p-button.lamp')
  ask?.scrollIntoView({ block: 'center' })
  target?.focus({ preventScroll: ask !== undefined && ask !== null })
}
const wanted = computed(() => props.step.asks.filter((a) => !a.optional))
/** The whole step was left out: every question says so, and what must rest on it stays shut. */
function noneDone() {
  answers.value = {
    ...answers.value,
    ...Object.fromEntries(wanted.value.map((a) => [a.fact, honest('not-done')])),
  }
}
/** Somebody else has done the whole of it: by whom is said once. */
const elsewhere = ref<string>()
function allElsewhere() {
  const how = elsewhere.value?.trim() ?? ''
  if (how.length < 3) return
  answers.value = {
    ...answers.value,
    ...Object.fromEntries(
      wanted.value.map((a) => [a.fact, a.firm ? honest('not-done') : honest('elsewhere', how)]),
    ),
  }
  elsewhere.value = undefined
}
defineExpose({ first, toWrong })

function submit() {
  if (!props.busy && !props.shut?.length) emit('done')
}
</script>

<template>
  <form ref="frame" class="step-form" @submit.prevent="submit">
    <div v-if="shut?.length" class="shut" role="status">
      <p class="head"><strong>Shut.</strong></p>
      <p v-for="w in shut" :key="w">{{ w }}</p>
    </div>
    <slot />
    <div class="asks">
      <div
        v-for="a in step.asks"
        :key="a.fact"
        class="ask"
        :class="{ short: a.kind === 'number' }"
        :data-fact="a.fact"
        :data-open="!a.optional && answers[a.fact] === undefined"
        :data-wrong="!!said(a.fact)"
      >
        <p v-if="honestOf(answers[a.fact])" class="asked">{{ a.label }}</p>
        <AskField
          v-else
          :model-value="answers[a.fact]"
          :ask="a"
          :wrong="said(a.fact)"
          @update:model-value="(v) => set(a.fact, v)"
        />
        <p v-if="hints?.[a.fact]" class="small hint" role="status">{{ hints[a.fact] }}</p>
        <button
          v-if="offers[a.fact] && answers[a.fact] === undefined"
          type="button"
          class="texty small"
          @click="set(a.fact, offers[a.fact]!.value)"
        >
          {{ offers[a.fact]!.label }}
        </button>
        <HonestAnswer
          v-if="!a.optional && a.kind !== 'text'"
          :model-value="answers[a.fact]"
          :firm="a.firm === true"
          @update:model-value="(v) => set(a.fact, v)"
        />
      </div>
    </div>
    <dl v-if="figures.length" class="figures" aria-live="polite">
      <div v-for="f in figures" :key="f.label">
        <dt>{{ f.label }}</dt>
        <dd class="mono">{{ f.text }}</dd>
      </div>
    </dl>
    <div class="foot">
      <p v-if="problems['']" class="fault" role="alert">{{ problems[''] }}</p>
      <p v-else-if="wrongCount" class="small wrong-count">
        {{ wrongCount === 1 ? 'One answer stops this step' : `${wrongCount} answers stop this step` }}: it
        says why above.
      </p>
      <div class="actions">
        <Button
          type="submit"
          :label="action"
          class="lamp"
          :disabled="!!shut?.length"
          :aria-disabled="busy || undefined"
        />
        <Button
          v-if="canDepart && !firmlyWrong"
          type="button"
          label="Go on all the same"
          class="quiet"
          @click="$emit('depart')"
        />
        <slot name="beside" />
        <button v-if="wanted.length > 2 && !shut?.length" type="button" class="texty small" @click="noneDone">
          none of this was done here
        </button>
        <button
          v-if="wanted.length > 2 && !shut?.length"
          type="button"
          class="texty small"
          :aria-expanded="elsewhere !== undefined"
          @click="elsewhere = elsewhere === undefined ? '' : undefined"
        >
          done elsewhere
        </button>
        <label v-if="elsewhere !== undefined" class="elsewhere small">
          By whom, and whether that was seen, stands on paper or was said
          <input v-model="elsewhere" type="text" maxlength="200" @keydown.enter.prevent="allElsewhere" />
          <Button
            type="button"
            label="All of it"
            class="quiet"
            :disabled="elsewhere.trim().length < 3"
            @click="allElsewhere"
          />
        </label>
      </div>
      <p v-if="firmlyWrong" class="small">Nobody goes on over this: it could hurt somebody.</p>
    </div>
  </form>
</template>

<style scoped>
/* figures stand side by side where there is room; whatever has words takes the whole width */
.asks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 14rem), 1fr));
  align-items: end;
  gap: 0.7rem 1rem;
  margin: 0.5rem 0;
}
.ask {
  position: relative;
  display: grid;
  gap: 0.25rem;
  min-width: 0;
  grid-column: 1 / -1;
  scroll-margin: 5rem;
}
.ask :deep(legend),
.ask :deep(.line label) {
  padding-right: 2.4rem;
}
.asked {
  font-weight: 700;
}
.ask.short {
  grid-column: auto;
}
.shut {
  border: 2px solid var(--ink);
  padding: 0.6rem 0.8rem;
  margin-bottom: 0.6rem;
  background: var(--sheet);
}
.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.4rem;
  border-left: 4px solid var(--ink);
  padding-left: 0.7rem;
  margin: 0.6rem 0;
}
dt {
  font-size: var(--t-small);
  color: var(--ink-soft);
}
dd {
  margin: 0;
  font-size: var(--t-lead);
  white-space: normal;
}
.foot {
  position: sticky;
  bottom: 0;
  background: var(--paper);
  border-top: 1px solid var(--line);
  padding: 0.5rem 0;
  z-index: 2;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}
.elsewhere {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  flex-basis: 100%;
}
.elsewhere input {
  font: inherit;
  min-height: 44px;
  flex: 1 1 12rem;
  padding: 0 0.6rem;
}
.hint {
  border-left: 4px solid var(--lamp);
  padding-left: 0.6rem;
}
.wrong-count {
  color: var(--out);
  margin-bottom: 0.3rem;
}
.fault {
  margin-bottom: 0.4rem;
}
</style>
