<script setup lang="ts">
import { InputError } from '@moray/core/checks/input-error'
import type { FigureField } from '@moray/core/drives/own/figure-field'
import { readFigure } from '@moray/core/drives/own/read-figure'
import type { Source } from '@moray/core/drives/own/source'
import type { UnitSystem } from '@moray/core/units/format'
import { computed, ref, useId, watch } from 'vue'
import PushDrawing from './PushDrawing.vue'
import { figureExample, figureText, figureUnit, sourceText } from './show-figure.ts'

/** One figure of a sheet: typed as the manual prints it, understood at once in both systems, with where it comes from. */
const props = defineProps<{
  field: FigureField
  value: unknown
  source?: Source | undefined
  first: UnitSystem
  busy?: boolean
  /** What the server said against it. */
  problem?: string | undefined
  /** What it most likely means, to be taken in one click. */
  meant?: { text: string; label: string } | undefined
}>()
const emit = defineEmits<{ set: [text: string]; assume: [text: string]; check: []; at: [] }>()
const id = useId()
const kept = computed(() => {
  const { shape } = props.field
  if (props.value === undefined) return ''
  if (shape.is === 'choice') return String(props.value)
  return props.source?.as ?? figureText(props.field, props.value, props.first).split(' · ')[0]!
})
const text = ref(kept.value)
watch(kept, (now, before) => {
  // what somebody is typing is not taken from under his hands
  if (text.value === before || text.value.trim() === sent.value) text.value = now
  sent.value = null
})
const unit = computed(() => figureUnit(props.field, props.first))
const meaning = computed((): { shown: string } | { why: string } => {
  if (text.value.trim() === '') return { shown: '' }
  if (text.value === kept.value) return { shown: figureText(props.field, props.value, props.first) }
  try {
    return {
      shown: figureText(props.field, readFigure(props.field, text.value, unit.value).value, props.first),
    }
  } catch (e) {
    if (e instanceof InputError) return { why: e.fields[0]?.message ?? e.message }
    throw e
  }
})
/** What was sent last; what is said against a figure is about that, not about what is typed now. */
const sent = ref<string | null>(null)
const wrong = computed(() =>
  'why' in meaning.value
    ? meaning.value.why
    : text.value.trim() === (sent.value ?? kept.value)
      ? props.problem
      : undefined,
)
/** Left half typed it is not sent; the field says what is not understood, and keeps it. */
function send() {
  const now = text.value.trim()
  if (now === kept.value || 'why' in meaning.value) return
  sent.value = now
  emit('set', now)
}
function pick(value: string) {
  text.value = value
  sent.value = value
  emit('set', value)
}
/** What was typed gives way to what is assumed, or meant, once the sheet has it. */
function assume() {
  sent.value = text.value.trim()
  emit('assume', String(props.field.assume!.value))
}
function take(meant: string) {
  text.value = meant
  sent.value = meant
  emit('set', meant)
}
function next(e: KeyboardEvent) {
  send()
  const inputs = [...document.querySelectorAll<HTMLElement>('[data-figure]')]
  inputs[inputs.indexOf(e.target as HTMLElement) + 1]?.focus()
}
</script>

<template>
  <div
    class="figure"
    :class="{ there: value !== undefined, assumed: source?.kind === 'assumed' }"
    @focusin="emit('at')"
  >
    <template v-if="field.shape.is === 'choice'">
      <fieldset class="one-of">
        <legend>{{ field.label }}</legend>
        <label v-for="o in field.shape.options" :key="String(o.value)" :class="{ on: value === o.value }">
          <input
            type="radio"
            class="sr-only"
            data-figure
            :name="id"
            :checked="value === o.value"
            :disabled="busy"
            @change="pick(String(o.value))"
          />
          <PushDrawing v-if="typeof o.value === 'number'" :into="o.value < 0" />
          {{ o.label }}
        </label>
      </fieldset>
    </template>
    <template v-else>
      <label :for="id">{{ field.label }}</label>
      <input
        :id="id"
        v-model="text"
        data-figure
        type="text"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        :maxlength="field.shape.is === 'words' ? field.shape.max : 60"
        :placeholder="figureExample(field, first)"
        :aria-describedby="`${id}-said`"
        :aria-invalid="!!wrong"
        @blur="send"
        @keydown.enter.prevent="next"
      />
    </template>
    <p :id="`${id}-said`" class="said small" aria-live="polite">
      <span v-if="wrong" class="bad" role="alert">{{ wrong }}</span>
      <template
        v-else-if="
          field.shape.is !== 'words' && field.shape.is !== 'choice' && 'shown' in meaning && meaning.shown
        "
        ><span class="mono">{{ meaning.shown }}</span></template
      >
      <span v-if="source && value !== undefined && !wrong" class="soft from">{{ sourceText(source) }}</span>
      <span v-else-if="!wrong && value === undefined && field.otherwise" class="soft">{{
        field.otherwise
      }}</span>
      <span v-else-if="!wrong && value === undefined && field.help" class="soft help">{{ field.help }}</span>
    </p>
    <div
      v-if="
        meant ||
        (field.assume && value === undefined) ||
        source?.unchecked ||
        source?.atBench ||
        (value !== undefined && field.shape.is === 'choice')
      "
      class="acts"
      @mousedown.prevent
    >
      <button v-if="meant" type="button" class="texty small" @click="take(meant.text)">
        {{ meant.label }}
      </button>
      <button v-if="field.assume && value === undefined" type="button" class="texty small" @click="assume">
        Assume {{ figureText(field, field.assume.value, first) }}: {{ field.assume.why }}
      </button>
      <button
        v-if="source?.unchecked || source?.atBench"
        type="button"
        class="texty small"
        @click="emit('check')"
      >
        It stands so in my manual
      </button>
      <button
        v-if="value !== undefined && field.shape.is === 'choice'"
        type="button"
        class="texty small"
        @click="pick('')"
      >
        not known
      </button>
    </div>
  </div>
</template>

<style scoped>
.figure {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(8.5rem, 11rem);
  column-gap: 0.7rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.35rem 0 0.35rem 0.6rem;
  border-left: 4px solid transparent;
}
.figure.there {
  border-left-color: var(--ink);
}
/* hollow: a figure that nobody has read or measured */
.figure.assumed {
  border-left-style: double;
}
.one-of,
.said,
.acts {
  grid-column: 1 / -1;
}
input[type='text'] {
  min-height: 44px;
  width: 100%;
  padding: 0 0.5rem;
  font: inherit;
  font-family: var(--mono);
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
input[aria-invalid='true'] {
  border-color: var(--out);
}
.said {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.8rem;
  margin: 0;
}
.said:empty {
  display: none;
}
.bad {
  color: var(--out);
}
/* explained where the hand is; elsewhere it would only be in the way */
.figure:not(:focus-within) .help {
  display: none;
}
@media (max-width: 480px) {
  .figure {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
