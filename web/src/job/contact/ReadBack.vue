<script setup lang="ts">
import type { PatternRead, PatternReadInput } from '@moray/core/contact/pattern-read'
import { computed, ref, watch } from 'vue'
import { useUnits } from '../../ui/units.ts'
import { asWireError } from '../../wire/client.ts'
import { useCalc } from '../../workers/use-calc.ts'

/** What the marked patches say in millimetres and in shims, beside what the gauges say. */
const props = defineProps<{
  question: PatternReadInput | undefined
  /** Why it can never be read here; empty where it can. */
  whyNot: string
  /** Labels of the stacks that move pinion and gear. */
  pinionStack?: string
  gearStack?: string
}>()

const units = useUnits()
const calc = useCalc()
const read = ref<PatternRead | null>(null)
const failure = ref('')
const asked = computed(() => JSON.stringify(props.question))
watch(
  asked,
  async (mine) => {
    read.value = null
    failure.value = ''
    if (!props.question) return
    try {
      const answer = await calc.run<PatternRead>('pattern-read', props.question)
      if (mine === asked.value && answer !== 'cancelled') read.value = answer
    } catch (e) {
      if (mine === asked.value) failure.value = asWireError(e).message
    }
  },
  { immediate: true },
)
/** What is shown as nothing has no sign. */
const SHOWN_MM = 0.005
const signed = (mm: number) =>
  `${Math.abs(mm) < SHOWN_MM ? '' : mm < 0 ? '−' : '+'}${units.length(Math.abs(mm), 2)}`
const rows = computed(() => {
  const r = read.value
  if (!r) return []
  const gauged = props.question?.gauged
  return [
    { what: 'Pinion', mm: r.pinionMm, U: r.pinionUMm, gauged: gauged?.pinionMm, gaugedU: gauged?.pinionUMm },
    { what: 'Gear', mm: r.gearMm, U: r.gearUMm, gauged: gauged?.gearMm, gaugedU: gauged?.gearUMm },
  ]
})
const shims = computed(() => {
  const r = read.value
  if (!r || r.kind !== 'setting') return []
  return [
    { stack: props.pinionStack, mm: r.pinionShimMm },
    { stack: props.gearStack, mm: r.gearShimMm },
  ].flatMap(({ stack, mm }) => (stack && mm !== undefined ? [{ stack, mm }] : []))
})
const KIND = {
  centred: 'It sits: both moves lie within what marking allows.',
  setting: 'A setting: moves of pinion and gear explain it.',
  axes: 'Not a setting: no move of pinion and gear explains it. Case, pairing, seating, or a patch misread.',
}
</script>

<template>
  <section aria-label="Read back">
    <h3>Read back</h3>
    <p v-if="whyNot" class="caution">{{ whyNot }}</p>
    <p v-else-if="!question" class="soft">
      Mark drive and coast at one place, and the pattern is read back into millimetres.
    </p>
    <p v-else-if="failure" class="fault" role="alert">{{ failure }}</p>
    <p v-else-if="!read" role="status">Reading the pattern back …</p>
    <template v-else>
      <p class="lead">{{ KIND[read.kind] }}</p>
      <p>{{ read.meaning.means }} {{ read.kind === 'setting' ? read.meaning.moves : '' }}</p>
      <table class="ledger">
        <caption class="sr-only">
          How far pinion and gear stand from right, outward positive
        </caption>
        <thead>
          <tr>
            <th scope="col">stands off by</th>
            <th scope="col">pattern</th>
            <th scope="col">gauges</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.what">
            <th scope="row">{{ r.what }}</th>
            <td class="mono">
              {{ signed(r.mm) }}
              <span class="small">{{
                r.U === null ? 'at the edge of what is searched' : `± ${units.length(r.U, 2)}`
              }}</span>
            </td>
            <td class="mono">
              <template v-if="r.gauged !== undefined">
                {{ signed(r.gauged) }} <span class="small">± {{ units.length(r.gaugedU!, 2) }}</span>
              </template>
              <span v-else class="soft">not read</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="read.againstGauges" :class="read.againstGauges.agrees ? '' : 'caution'">
        {{
          read.againstGauges.agrees
            ? 'Pattern and gauges agree within both uncertainties.'
            : 'Pattern and gauges disagree: a reading, a part not seated, a wrong pair. Settle that before the next stacks.'
        }}
      </p>
      <p v-if="read.movement !== undefined" class="small">
        Round the gear it wanders by <span class="mono">{{ read.movement.toFixed(2) }}</span> of half the
        flank: that is runout, not setting.
      </p>
      <ul v-if="shims.length" class="shims">
        <li v-for="s in shims" :key="s.stack">
          <span>{{ s.stack }}</span
          ><span class="mono">{{ signed(s.mm) }} · {{ units.other(Math.abs(s.mm), 2) }}</span>
        </li>
      </ul>
      <p class="small soft">{{ read.meaning.effect }}</p>
    </template>
  </section>
</template>

<style scoped>
h3 {
  margin-top: 1rem;
}
td .small {
  display: block;
}
.lead {
  font-size: var(--t-lead);
}
.shims li {
  display: flex;
  justify-content: space-between;
  border-top: 1px solid var(--line);
  padding: 0.3rem 0;
}
</style>
