<script setup lang="ts">
import { settingMeasures, unitOf } from '@moray/core/setting/measures'
import { predictStacks, type ShimPlan, type ShimSolveResult } from '@moray/core/setting/shim-solve'
import type { ShimSolveInput } from '@moray/core/setting/shim-problem'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { useUnits } from '../../../ui/units.ts'
import { asWireError } from '../../../wire/client.ts'
import { useCalc } from '../../../workers/use-calc.ts'
import { turnedBetween, turnedText } from '@moray/core/setting/turned'
import { decimalsOf } from '../../setting-view.ts'
import type { ShownJob } from '../../shown-job.ts'
import { couplings } from './couplings.ts'

/**
 * What if this stack were thicker: drag or step it, and gear, flank gap and what will be read move with it. Let go, and it stays an idea until it
 * is looked for in the drawer.
 */
const props = defineProps<{ job: ShownJob; question: ShimSolveInput; busy: boolean }>()
const emit = defineEmits<{ preview: [plan: ShimPlan | null]; take: [plan: ShimPlan] }>()

/** A hundredth, or half a thousandth of an inch, with a key. */
const STEP_MM = 0.01
/** The drawer is asked for a stack within this of what was dragged to, mm. */
const NEAR_MM = 0.03

const units = useUnits()
const adjuster = (id: string) => props.job.sheet.adjusters.find((a) => a.id === id)!
const calc = useCalc()
const stacks = computed(() =>
  props.question.locations
    .filter((l) => !l.fixed)
    .map((l) => ({ ...l, label: props.job.sheet.adjusters.find((a) => a.id === l.id)?.label ?? l.id })),
)
const at = ref<Record<string, number>>({})
const back = () => (at.value = Object.fromEntries(stacks.value.map((s) => [s.id, s.currentMm])))
watch(() => JSON.stringify(stacks.value.map((s) => [s.id, s.currentMm])), back, { immediate: true })
const moved = computed(() => stacks.value.some((s) => Math.abs((at.value[s.id] ?? 0) - s.currentMm) > 1e-9))
const measures = computed(() =>
  settingMeasures(props.job.sheet)
    .filter((m) => props.question.quantities.some((q) => q.id === m.id))
    .map((m) => ({ ...m, show: units.of(unitOf(m)) })),
)
const idea = computed((): ShimPlan => {
  const { predicted, probability } = predictStacks(props.question, at.value)
  return {
    predicted,
    probability,
    stacks: Object.fromEntries(
      stacks.value.map((s) => [s.id, { thicknessMm: at.value[s.id]!, pieceIds: [] }]),
    ),
    pieces: 0,
  }
})
watch(idea, (plan) => emit('preview', moved.value ? plan : null))
const inside = (id: string) => {
  const q = props.question.quantities.find((x) => x.id === id)!
  const v = idea.value.predicted[id]!.value
  return v >= q.window.min && v <= q.window.max
}
function step(id: string, by: number) {
  const s = stacks.value.find((x) => x.id === id)!
  // a carrier goes from notch to notch
  const next = s.stepMm
    ? at.value[id]! + Math.sign(by) * s.stepMm
    : Math.round((at.value[id]! + by) * 1000) / 1000
  at.value = { ...at.value, [id]: Math.min(s.maxMm, Math.max(s.minMm, next)) }
}
/** How far it can be dragged: what is near; a carrier in whole notches of it. */
const REACH_MM = 0.4
const steps = (s: { stepMm?: number }, mm: number) =>
  s.stepMm ? Math.floor(Math.min(REACH_MM, mm) / s.stepMm + 1e-9) * s.stepMm : Math.min(REACH_MM, mm)
const least = (s: (typeof stacks.value)[number]) => s.currentMm - steps(s, s.currentMm - s.minMm)
const most = (s: (typeof stacks.value)[number]) => s.currentMm + steps(s, s.maxMm - s.currentMm)
const shownAt = (s: (typeof stacks.value)[number]) =>
  s.stepMm
    ? turnedText(turnedBetween(adjuster(s.id), s.currentMm, at.value[s.id]!))
    : units.both(at.value[s.id]!, 3)
const found = ref<ShimPlan | null>(null)
const said = ref('')
watch(at, () => {
  found.value = null
  said.value = ''
})
/** The pieces that come nearest: the same question, with every stack held near to where it was dragged. */
async function seek() {
  said.value = ''
  const near = props.question.locations.map((l) =>
    l.fixed
      ? l
      : {
          ...l,
          minMm: Math.max(l.minMm, at.value[l.id]! - NEAR_MM),
          maxMm: Math.min(l.maxMm, at.value[l.id]! + NEAR_MM),
        },
  )
  try {
    const answer = await calc.run<ShimSolveResult>('shim-solve', {
      ...props.question,
      locations: near,
      plans: 1,
    })
    const [plan] = answer === 'cancelled' ? [] : answer.plans
    if (!plan) said.value = `The drawer holds no stacks within ${units.length(NEAR_MM, 2)} of these.`
    else {
      found.value = plan
      emit('preview', plan)
    }
  } catch (e) {
    said.value = asWireError(e).message
  }
}
</script>

<template>
  <section class="what-if" aria-label="What if">
    <div v-for="s in stacks" :key="s.id" class="stack">
      <p class="line">
        <label :for="`if-${s.id}`"><strong>{{ s.label }}</strong></label>
        <span class="mono"
          >{{ shownAt(s) }}
          <span v-if="!s.stepMm" class="small soft"
            >{{ at[s.id]! - s.currentMm >= 0 ? '+' : '' }}{{ units.length(at[s.id]! - s.currentMm, 3) }}</span
          ></span
        >
      </p>
      <div class="slide">
        <button type="button" :aria-label="`${s.label}: thinner`" @click="step(s.id, -STEP_MM)">−</button>
        <input
          :id="`if-${s.id}`"
          type="range"
          :min="least(s)"
          :max="most(s)"
          :step="s.stepMm ?? 0.005"
          :value="at[s.id]"
          :aria-valuetext="shownAt(s)"
          @input="at = { ...at, [s.id]: Number(($event.target as HTMLInputElement).value) }"
          @keydown="
            (e: KeyboardEvent) => {
              const by = { '+': STEP_MM, '-': -STEP_MM }[e.key]
              if (by) (e.preventDefault(), step(s.id, by))
            }
          "
        />
        <button type="button" :aria-label="`${s.label}: thicker`" @click="step(s.id, STEP_MM)">+</button>
      </div>
      <p class="small soft">{{ couplings(question, s.id, job.sheet, units) }}</p>
    </div>
    <table>
      <caption class="sr-only">
        What would be read
      </caption>
      <tbody>
        <tr v-for="m in measures" :key="m.id">
          <th scope="row">{{ m.label }}</th>
          <td class="mono">
            {{ m.show.digits(idea.predicted[m.id]!.value, decimalsOf(m)) }}
            <span class="small">± {{ m.show.digits(idea.predicted[m.id]!.U, 3) }}</span>
            <span v-if="unitOf(m) !== 'mm'" class="small"> {{ m.show.unit }}</span>
          </td>
          <td :class="inside(m.id) ? 'in' : 'out'">{{ inside(m.id) ? 'inside' : 'outside' }}</td>
        </tr>
      </tbody>
    </table>
    <p aria-live="polite">
      Lands in every window with
      <strong class="mono">{{ Math.round(idea.probability * 100) }} %</strong>
    </p>
    <p v-if="said" class="small" role="status">{{ said }}</p>
    <p v-if="found" class="small">
      In the drawer:
      <template v-for="s in stacks" :key="s.id">
        {{ s.label.toLowerCase() }}
        <span class="mono">{{
          s.stepMm
            ? turnedText(turnedBetween(adjuster(s.id), s.currentMm, found.stacks[s.id]!.thicknessMm))
            : units.both(found.stacks[s.id]!.thicknessMm, 3)
        }}</span
        >{{ ' ' }}
      </template>
      ({{ Math.round(found.probability * 100) }} %)
    </p>
    <div class="actions">
      <Button
        v-if="!found"
        label="Look for these in the drawer"
        class="quiet"
        :disabled="busy || !moved"
        @click="seek"
      />
      <Button v-else label="Build these" class="lamp" :disabled="busy" @click="emit('take', found)" />
      <button type="button" class="texty" :disabled="!moved" @click="back">Back to what is built</button>
    </div>
  </section>
</template>

<style scoped>
.what-if {
  display: grid;
  gap: 0.7rem;
  margin-top: 0.5rem;
}
.line {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 0.6rem;
}
.slide {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr) 48px;
  gap: 0.5rem;
  align-items: center;
}
.slide button {
  font: inherit;
  font-size: var(--t-title);
  color: inherit;
  min-height: 48px;
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  cursor: pointer;
}
input[type='range'] {
  width: 100%;
  height: 44px;
  accent-color: var(--lamp);
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
}
th,
td {
  border-top: 1px solid var(--line);
  padding: 0.2rem 0.2rem;
}
td.in {
  color: var(--in);
}
td.out {
  color: var(--out);
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
}
</style>
