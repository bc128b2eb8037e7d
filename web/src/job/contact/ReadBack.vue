<script setup lang="ts">
import type { PatternReadInput } from '@moray/core/contact/pattern-question'
import type { PatternRead } from '@moray/core/contact/pattern-read'
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
  /** Where depth and backlash together have the gear, with its U. */
  gearByGauges?: { mm: number; U: number }
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
/** What the patches say by themselves. */
const seen = computed(() => read.value && (read.value.againstGauges ?? read.value))
const rows = computed(() => {
  const [r, alone, depth] = [read.value, seen.value, props.question?.depth]
  if (!r || !alone) return []
  // gauges that disagree with the patches say nothing together with them
  const together = r.againstGauges?.agrees && r.separable ? r : undefined
  return [
    {
      what: 'Pinion',
      mm: alone.pinionMm,
      U: alone.pinionUMm,
      gauged: depth && { mm: depth.valueMm, U: 2 * depth.uMm },
      both: together && { mm: together.pinionMm!, U: together.pinionUMm! },
    },
    {
      what: 'Gear',
      mm: alone.gearMm,
      U: alone.gearUMm,
      gauged: props.gearByGauges,
      both: together && { mm: together.gearMm!, U: together.gearUMm! },
    },
  ]
})
/** What is known of teeth that tell one sum only. */
const known = computed(() => seen.value?.knownMm)
const shims = computed(() => {
  const r = read.value
  if (r?.kind !== 'setting') return []
  return [
    { stack: props.pinionStack, mm: r.pinionShimMm },
    { stack: props.gearStack, mm: r.gearShimMm },
  ].flatMap(({ stack, mm }) => (stack && mm !== undefined ? [{ stack, mm }] : []))
})
const KIND = {
  centred: 'It sits: the patches lie where they should, as far as a hand marks them.',
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
      <p>
        {{ read.meaning.means }}
        {{ read.kind === 'setting' && read.againstGauges?.agrees !== false ? read.meaning.moves : '' }}
      </p>
      <p v-if="known">
        These teeth tell the two moves only together:
        <span class="mono">{{ known.pinion.toFixed(2) }}</span> × pinion +
        <span class="mono">{{ known.gear.toFixed(2) }}</span> × gear =
        <strong class="mono">{{ signed(known.value) }}</strong>
        <span class="small mono"> ± {{ units.length(2 * known.u, 2) }}</span>, outward positive.
      </p>
      <table v-if="!known || rows.some((r) => r.gauged)" class="ledger">
        <caption class="sr-only">
          How far pinion and gear stand from right, outward positive
        </caption>
        <thead>
          <tr>
            <th scope="col">stands off by</th>
            <th v-if="!known" scope="col">pattern</th>
            <th scope="col">gauges</th>
            <th v-if="rows[0]?.both" scope="col">both</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.what">
            <th scope="row">{{ r.what }}</th>
            <td v-if="!known" class="mono">
              {{ signed(r.mm!) }} <span class="small">± {{ units.length(r.U!, 2) }}</span>
            </td>
            <td class="mono">
              <template v-if="r.gauged">
                {{ signed(r.gauged.mm) }} <span class="small">± {{ units.length(r.gauged.U, 2) }}</span>
              </template>
              <span v-else class="soft">not read</span>
            </td>
            <td v-if="r.both" class="mono">
              {{ signed(r.both.mm) }} <span class="small">± {{ units.length(r.both.U, 2) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="read.atBound && !known" class="small caution">
        This lies at the edge of what is searched: it may be further out.
      </p>
      <p v-if="read.againstGauges" :class="read.againstGauges.agrees ? '' : 'caution'">
        {{
          read.againstGauges.agrees
            ? 'Pattern and gauges agree within both uncertainties.'
            : 'Pattern and gauges disagree: a reading, a part not seated, a wrong pair. Settle that before the next stacks.'
        }}
      </p>
      <p v-if="read.lengthwise" class="small">
        {{
          read.lengthwise === 1
            ? 'The trials before show that this pair runs along the tooth as computed.'
            : 'The trials before show that this pair runs along the tooth the other way; that is taken into account.'
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
