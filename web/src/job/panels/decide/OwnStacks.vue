<script setup lang="ts">
import type { ShownBuild, ShownJob } from '../../shown-job.ts'
import { predictStacks, type ShimPlan } from '@moray/core/setting/shim-solve'
import type { ShimSolveInput } from '@moray/core/setting/shim-problem'
import { plannedPieces } from '@moray/core/job/pieces'
import { pieceCuts } from '@moray/core/setting/shim-problem'
import { cutAct } from '../../../ui/cut-words.ts'
import { useUnits } from '../../../ui/units.ts'
import Button from 'primevue/button'
import Select from 'primevue/select'
import { computed, ref, watch } from 'vue'
import { turnedBetween, turnedText } from '@moray/core/setting/turned'
import { isCarrier, type Adjuster } from '@moray/core/drives/sheet'
import { stackOf } from '../../setting-view.ts'

/** Stacks put together by hand: pick pieces, see at once what they would read. */
const props = defineProps<{ job: ShownJob; build: ShownBuild; question: ShimSolveInput; busy: boolean }>()
const emit = defineEmits<{ preview: [plan: ShimPlan | null]; take: [plan: ShimPlan] }>()

const units = useUnits()
const free = computed(() =>
  props.job.sheet.adjusters.filter((a) => props.question.locations.some((l) => l.id === a.id && !l.fixed)),
)
const chosen = ref<Record<string, string[]>>({})
/** Steps of each carrier from where it stands. */
const steps = ref<Record<string, number>>({})
/** One piece of a stack may be made thinner: which, and to what. */
const thin = ref<Record<string, { pieceId: string; toMm: number } | undefined>>({})
watch(
  () => props.build.number,
  () => {
    steps.value = {}
    thin.value = {}
    chosen.value = Object.fromEntries(
      free.value.map((a) => [a.id, stackOf(props.build, a.id)?.pieces.map((p) => p.id) ?? []]),
    )
  },
  { immediate: true },
)
const pieceOf = (id: string) => props.job.pieces.find((p) => p.id === id)
const used = (id: string) =>
  Object.values(chosen.value)
    .flat()
    .filter((p) => p === id).length
const options = computed(() =>
  props.job.pieces
    .filter((p) => p.count > used(p.id))
    .sort((a, b) => a.thicknessMm - b.thicknessMm)
    .map((p) => ({
      id: p.id,
      label: `${units.both(p.thicknessMm, 3)} · ${p.origin === 'case' ? p.label.split(' mm ')[1] : `${p.count - used(p.id)} left`}`,
    })),
)
const cuts = (id: string) => {
  const piece = pieceOf(id)
  return piece?.cut ? [piece.thicknessMm, ...pieceCuts(piece)] : []
}
/** The first of its kind in the stack is the one that is cut. */
const mmOf = (stack: string, i: number) =>
  plannedPieces({ pieceIds: chosen.value[stack] ?? [], thin: thin.value[stack] })[i]?.toMm ??
  pieceOf(chosen.value[stack]![i]!)?.thicknessMm ??
  0
function cutTo(stack: string, pieceId: string, toMm: number) {
  thin.value = {
    ...thin.value,
    [stack]: toMm === pieceOf(pieceId)?.thicknessMm ? undefined : { pieceId, toMm },
  }
}
function takeOut(stack: string, i: number) {
  const id = chosen.value[stack]![i]!
  if (thin.value[stack]?.pieceId === id) thin.value = { ...thin.value, [stack]: undefined }
  chosen.value[stack] = chosen.value[stack]!.filter((_, k) => k !== i)
}
const total = (id: string) => {
  const at = props.question.locations.find((l) => l.id === id)!
  if (at.stepMm) return at.currentMm + (steps.value[id] ?? 0) * at.stepMm
  return (chosen.value[id] ?? []).reduce((mm, _, i) => mm + mmOf(id, i), 0)
}
/** One more step, as far as the thread goes. */
function turn(a: Adjuster, by: number) {
  const mm = total(a.id) + by * props.question.locations.find((l) => l.id === a.id)!.stepMm!
  if (mm < a.minMm - 1e-9 || mm > a.maxMm + 1e-9) return
  steps.value = { ...steps.value, [a.id]: (steps.value[a.id] ?? 0) + by }
}
const plan = computed((): ShimPlan => {
  const thickness = Object.fromEntries(free.value.map((a) => [a.id, total(a.id)]))
  return {
    ...predictStacks(props.question, thickness),
    stacks: Object.fromEntries(
      free.value.map((a) => [
        a.id,
        {
          thicknessMm: thickness[a.id]!,
          pieceIds: chosen.value[a.id] ?? [],
          ...(thin.value[a.id] ? { thin: thin.value[a.id]! } : {}),
        },
      ]),
    ),
    pieces: Object.values(chosen.value).flat().length,
  }
})
watch(plan, (p) => emit('preview', p), { immediate: true })
function add(stack: string, id: string) {
  chosen.value[stack] = [...(chosen.value[stack] ?? []), id]
}
</script>

<template>
  <div class="own">
    <section v-for="a in free.filter(isCarrier)" :key="a.id" :aria-label="a.label">
      <p class="line">
        <strong>{{ a.label }}</strong
        ><span>{{ turnedText(turnedBetween(a, build.state.stacks[a.id]!, total(a.id))) }}</span>
      </p>
      <div class="turn">
        <Button label="One step out" class="quiet" @click="turn(a, -1)" />
        <Button label="One step in" class="quiet" @click="turn(a, 1)" />
      </div>
    </section>
    <section v-for="a in free.filter((x) => !isCarrier(x))" :key="a.id" :aria-label="a.label">
      <p class="line">
        <strong>{{ a.label }}</strong><span class="mono">{{ units.both(total(a.id), 3) }}</span>
      </p>
      <p class="small soft">{{ a.minMm }} to {{ a.maxMm }} mm, at most {{ a.maxPieces }} pieces</p>
      <ul>
        <li v-for="(id, i) in chosen[a.id]" :key="i">
          <span class="mono">{{ units.both(mmOf(a.id, i), 3) }}</span>
          <select
            v-if="cuts(id).length"
            class="plain-field small"
            :aria-label="`Thickness of ${pieceOf(id)?.label} in ${a.label}`"
            :value="mmOf(a.id, i)"
            @change="cutTo(a.id, id, Number(($event.target as HTMLSelectElement).value))"
          >
            <option v-for="mm in cuts(id)" :key="mm" :value="mm">
              {{
                mm === pieceOf(id)?.thicknessMm
                  ? 'as it is'
                  : `${cutAct(pieceOf(id)!.cut!)} ${units.length(mm, 3)}`
              }}
            </option>
          </select>
          <button
            type="button"
            class="texty small"
            :aria-label="`Take ${pieceOf(id)?.label} out of ${a.label}`"
            @click="takeOut(a.id, i)"
          >
            take out
          </button>
        </li>
      </ul>
      <Select
        :model-value="null"
        :options="options"
        option-label="label"
        option-value="id"
        filter
        fluid
        placeholder="Add a piece"
        :aria-label="`Add a piece to ${a.label}`"
        @update:model-value="(id: string) => add(a.id, id)"
      />
    </section>
    <p>Lands in every window with <strong class="mono">{{ Math.round(plan.probability * 100) }} %</strong></p>
    <Button label="Build these" class="quiet" fluid :disabled="busy" @click="emit('take', plan)" />
  </div>
</template>

<style scoped>
.own {
  display: grid;
  gap: 0.8rem;
  margin-top: 0.5rem;
}
.turn {
  display: flex;
  gap: 0.6rem;
}
.line {
  display: flex;
  justify-content: space-between;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 44px;
  border-top: 1px solid var(--line);
}
</style>
