<script setup lang="ts">
import { LENGTH_UNITS, TORQUE_UNITS, type ReadingUnit } from '@moray/contract/requests/reading-units'
import { quantityOf, type PlausibleKind } from '@moray/core/units/plausible'
import { computed, nextTick, onMounted, useId, useTemplateRef, watch } from 'vue'
import { likelyMeant, understand, withUnit } from './understand.ts'
import { useUnits } from './units.ts'

/**
 * The one field for a reading, a length or a torque: says what it understood, in both unit systems, before Enter commits it.
 * A doubtful value needs a second Enter.
 */
const props = defineProps<{
  label: string
  kind: PlausibleKind
  dialPerTurnMm?: number | null | undefined
  /** What the place can hold, in canonical units: a value outside is asked about, with what it most likely means. */
  limits?: { min: number; max: number }
  error?: string | undefined
  busy?: boolean
  /** Take the focus when shown, and again whenever this changes. */
  focusOn?: string | number
  hint?: string
  /** What else makes it doubtful here, in words; asked once it is understood. */
  question?: (value: number) => string | undefined
}>()
const emit = defineEmits<{ enter: [entry: { text: string; confirmed: boolean }]; blank: [] }>()
const text = defineModel<string>({ required: true })
const unit = defineModel<ReadingUnit>('unit', { required: true })

const id = useId()
const input = useTemplateRef<HTMLInputElement>('input')
const units = useUnits()
const meaning = computed(() => {
  const said = understand(text.value, unit.value, props.kind, props.dialPerTurnMm, props.limits)
  const why = said.state === 'value' ? props.question?.(said.value) : undefined
  return said.state === 'value' && why ? { ...said, state: 'doubtful' as const, why } : said
})
/** Where what was typed cannot be meant, and in one other unit it can: that one. */
const meant = computed(() =>
  props.limits && meaning.value.state !== 'value'
    ? likelyMeant(text.value, unit.value, props.kind, props.limits)
    : undefined,
)
function takeMeant() {
  const typed = withUnit(text.value, meant.value!)
  emit('enter', { text: typed, confirmed: false })
}
const doubtShown = defineModel<boolean>('doubt', { default: false })
watch(text, () => (doubtShown.value = false))

const focus = () => nextTick(() => input.value?.focus({ preventScroll: true }))
onMounted(() => {
  if (props.focusOn !== undefined) void focus()
})
watch(() => props.focusOn, focus)

const UNIT_WORDS: Record<ReadingUnit, string> = {
  mm: 'mm',
  h: '1/100 mm',
  t: '1/1000 in',
  in: 'inch',
  Nm: 'Nm',
  inlb: 'in-lb',
  ftlb: 'ft-lb',
}
const MEANT_WORDS = { mm: 'mm', h: 'hundredths of a millimetre', t: 'thou', in: 'inches' }
const torque = computed(() => quantityOf(props.kind) === 'torque')
const show = computed(() => units.of(torque.value ? 'Nm' : 'mm'))
const bareUnits = computed(() => (torque.value ? TORQUE_UNITS : LENGTH_UNITS))
const example = computed(() => (torque.value ? '0.62 · 5.5inlb · 0,62 Nm' : '19t · 37h · .014in · 0,37 mm'))

function enter() {
  if (props.busy) return
  if (meaning.value.state === 'empty') emit('blank')
  else if (meaning.value.state === 'value') emit('enter', { text: text.value, confirmed: false })
  else if (meaning.value.state === 'doubtful') {
    if (doubtShown.value) emit('enter', { text: text.value, confirmed: true })
    else doubtShown.value = true
  }
}
</script>

<template>
  <form class="field" :class="meaning.state" @submit.prevent="enter">
    <label :for="id">{{ label }}</label>
    <div class="row">
      <input
        :id="id"
        ref="input"
        v-model="text"
        class="text live"
        type="text"
        inputmode="text"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        maxlength="60"
        :autofocus="focusOn !== undefined"
        :aria-describedby="`${id}-said`"
        :aria-invalid="meaning.state === 'not' || !!error"
      />
      <button type="submit" class="go" :disabled="busy" :aria-label="`Enter: ${label}`">
        <svg width="26" height="22" viewBox="0 0 26 22" aria-hidden="true">
          <path d="M22 2 v9 H5 M11 5 L5 11 L11 17" />
        </svg>
      </button>
    </div>
    <p :id="`${id}-said`" class="said mono" aria-live="polite">
      <template v-if="meaning.state === 'value' || meaning.state === 'doubtful'">
        <strong>{{ show.say(meaning.value, 3) }}</strong> · {{ show.other(meaning.value, 3) }}
      </template>
      <template v-else-if="meaning.state === 'not'"><span class="bad">{{ meaning.why }}</span></template>
      <span v-else class="soft">{{ hint ?? example }}</span>
    </p>
    <p v-if="meaning.state === 'doubtful'" class="bad">
      {{ meaning.why }} <template v-if="doubtShown"><strong>Enter again if it is meant.</strong></template>
    </p>
    <button v-if="meant" type="button" class="texty" :disabled="busy" @click="takeMeant">
      Did you mean {{ text.trim() }} {{ MEANT_WORDS[meant] }}?
    </button>
    <p v-if="error" class="fault" role="alert">{{ error }}</p>
    <fieldset class="one-of">
      <legend class="small soft">A bare number is in</legend>
      <label v-for="u in bareUnits" :key="u" :class="{ on: unit === u }">
        <input v-model="unit" type="radio" :value="u" class="sr-only" /> {{ UNIT_WORDS[u] }}
      </label>
    </fieldset>
  </form>
</template>

<style scoped>
.field {
  display: flex;
  flex-direction: column;
  gap: 0.35rem;
}
.field > label {
  font-weight: 700;
}
.row {
  display: flex;
}
.text {
  flex: 1;
  min-width: 0;
  height: 64px;
  padding: 0 0.7rem;
  font-family: var(--font);
  color: var(--ink);
  background: var(--sheet);
  border: 2px solid var(--ink);
  border-right: 0;
}
.text:focus {
  outline: 3px solid var(--focus);
  outline-offset: 0;
}
.go {
  width: 64px;
  height: 64px;
  border: 2px solid var(--ink);
  background: var(--lamp);
  color: var(--lamp-ink);
  cursor: pointer;
}
.go:disabled {
  opacity: 0.5;
}
.go svg {
  fill: none;
  stroke: currentColor;
  stroke-width: 3;
}
.said {
  min-height: 1.6em;
  font-size: var(--t-lead);
}
.said .bad,
.said .soft {
  font-family: var(--font);
  white-space: normal;
  font-size: var(--t-small);
}
.bad {
  color: var(--out);
}
</style>
