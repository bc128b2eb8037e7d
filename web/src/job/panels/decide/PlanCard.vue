<script setup lang="ts">
import type { ShownJob } from '../../shown-job.ts'
import { fittingOrder } from '@moray/core/setting/fitting-order'
import { settingMeasures, unitOf } from '@moray/core/setting/measures'
import { openingFor } from '@moray/core/route/opening'
import { isCarrier } from '@moray/core/drives/sheet'
import { turnedBetween, turnedText } from '@moray/core/setting/turned'
import type { ShimPlan } from '@moray/core/setting/shim-solve'
import { plannedPieces } from '@moray/core/job/pieces'
import { cutAct } from '../../../ui/cut-words.ts'
import { useUnits } from '../../../ui/units.ts'
import Button from 'primevue/button'
import { computed } from 'vue'
import { decimalsOf } from '../../setting-view.ts'

/** One proposed set of stacks: what goes where, what it will read, and how sure that is. */
const props = defineProps<{
  job: ShownJob
  plan: ShimPlan
  current: Record<string, number>
  rank: number
  open: boolean
  busy: boolean
  fits: boolean
}>()
defineEmits<{ open: []; take: []; leave: [piece: string] }>()

const units = useUnits()
const pieceOf = (id: string) => props.job.pieces.find((p) => p.id === id)
const stacks = computed(() =>
  props.job.sheet.adjusters
    .filter((a) => props.plan.stacks[a.id] && (isCarrier(a) || props.plan.stacks[a.id]!.pieceIds.length > 0))
    .map((a) => {
      const s = props.plan.stacks[a.id]!
      const change = s.thicknessMm - (props.current[a.id] ?? s.thicknessMm)
      return {
        id: a.id,
        label: a.label,
        mm: s.thicknessMm,
        change,
        turned: isCarrier(a)
          ? turnedText(turnedBetween(a, props.current[a.id] ?? a.startMm, s.thicknessMm))
          : undefined,
        pieces: fittingOrder(
          plannedPieces(s).flatMap(({ id, toMm }) => {
            const piece = pieceOf(id)
            return piece
              ? [{ ...piece, thicknessMm: toMm ?? piece.thicknessMm, fromMm: piece.thicknessMm }]
              : []
          }),
        ),
      }
    }),
)
/** Opening all sides that the plan changes, and closing them again, by the sheet's hours. */
const opens = computed(() => {
  const changed = stacks.value.filter((s) => Math.abs(s.change) > 1e-9).map((s) => s.id)
  const { parts, minutes } = openingFor(props.job.sheet, changed)
  return minutes ? `${parts.length} parts off and on again, about ${Math.round(minutes / 5) * 5} min` : ''
})
const measures = computed(() =>
  settingMeasures(props.job.sheet)
    .filter((m) => props.plan.predicted[m.id])
    .map((m) => ({ ...m, show: units.of(unitOf(m)) })),
)
const percent = computed(() => {
  const p = props.plan.probability * 100
  if (p >= 99.95) return '> 99.9'
  return p >= 99 ? p.toFixed(1) : p < 1 ? p.toFixed(2) : Math.round(p).toString()
})
</script>

<template>
  <article class="card" :class="{ open }">
    <button type="button" class="head" :aria-expanded="open" @click="$emit('open')">
      <span class="rank">Plan {{ rank }}</span>
      <span class="odds mono">{{ percent }} %</span>
      <span v-if="plan.pieces" class="small soft count"
        >{{ plan.pieces }} {{ plan.pieces === 1 ? 'piece' : 'pieces' }}</span
      >
      <span class="small soft lands">lands in every window</span>
    </button>
    <div v-if="open" class="body">
      <ul class="stacks">
        <li v-for="s in stacks" :key="s.id">
          <p class="line">
            <strong>{{ s.label }}</strong>
            <span v-if="s.turned">{{ s.turned }}</span>
            <span v-else class="mono">{{ units.both(s.mm, 3) }}</span>
          </p>
          <p v-if="!s.turned" class="small">
            <span class="soft mono">{{ s.change >= 0 ? '+' : '' }}{{ units.length(s.change, 3) }}</span>
            <button
              v-for="(p, i) in s.pieces"
              :key="i"
              type="button"
              class="piece mono"
              :class="p.origin"
              :aria-label="`${p.label}: plan without it`"
              title="Plan without it"
              @click="$emit('leave', p.id)"
            >
              <span v-if="p.cut && p.fromMm !== p.thicknessMm" class="from">{{
                `${units.digits(p.fromMm, 3)}, ${cutAct(p.cut)}\u00a0`
              }}</span
              >{{ units.digits(p.thicknessMm, 3)
              }}<span v-if="p.origin === 'case'" class="from"> out of the case</span>
            </button>
          </p>
        </li>
      </ul>
      <table>
        <caption class="sr-only">
          What it will read
        </caption>
        <thead>
          <tr>
            <th scope="col">will read</th>
            <th scope="col">{{ units.lengthUnit.value }}</th>
            <th scope="col">lands</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="m in measures" :key="m.id">
            <th scope="row">{{ m.label }}</th>
            <td class="mono">
              {{ m.show.digits(plan.predicted[m.id]!.value, decimalsOf(m)) }}
              <span class="small">± {{ m.show.digits(plan.predicted[m.id]!.U, 3) }}</span>
              <span v-if="unitOf(m) !== 'mm'" class="small"> {{ m.show.unit }}</span>
            </td>
            <td class="mono">{{ Math.round(plan.predicted[m.id]!.probability * 100) }} %</td>
          </tr>
        </tbody>
      </table>
      <p v-if="opens" class="small soft">Opens {{ opens }}.</p>
      <Button
        :label="fits ? 'Build this' : 'Build the closest'"
        class="take"
        :class="fits ? 'lamp' : 'quiet'"
        fluid
        :disabled="busy"
        @click="$emit('take')"
      />
    </div>
  </article>
</template>

<style scoped>
/* in view while the plan is read, however long it is */
.take {
  position: sticky;
  bottom: 0.4rem;
}
.card {
  border: 1px solid var(--line-strong);
  background: var(--sheet);
}
.card.open {
  border: 2px solid var(--ink);
}
.head {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  width: 100%;
  min-height: 48px;
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: baseline;
  gap: 0 0.9rem;
  padding: 0.4rem 0.8rem;
  cursor: pointer;
  text-align: left;
}
.rank {
  font-weight: 700;
}
.odds {
  font-size: 1.5rem;
}
.rank {
  white-space: nowrap;
}
.lands {
  grid-column: 2 / -1;
}
.body {
  padding: 0 0.8rem 0.8rem;
  display: grid;
  gap: 0.6rem;
}
.stacks li {
  border-top: 1px solid var(--line);
  padding: 0.35rem 0;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
}
.piece {
  font-size: inherit;
  color: inherit;
  background: none;
  cursor: pointer;
  min-height: 32px;
  display: inline-block;
  border: 1px solid var(--line-strong);
  padding: 0 0.3rem;
  margin-left: 0.3rem;
}
.piece.case {
  border-style: dashed;
}
.from {
  font-family: var(--font);
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: var(--t-small);
}
th {
  font-weight: 400;
  text-align: left;
}
td,
thead th:not(:first-child) {
  text-align: right;
  padding: 0.15rem 0 0.15rem 0.5rem;
}
</style>
