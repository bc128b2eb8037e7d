<script setup lang="ts">
import type { DriveSheet } from '@moray/core/drives/sheet'
import { shimAdjusters } from '@moray/core/drives/sheet'
import { firstQuestion, FEWEST_UNITS } from '@moray/core/setting/experience'
import type { ShimSolveResult } from '@moray/core/setting/shim-solve'
import { computed, ref, watch } from 'vue'
import { percent } from '../ui/both-units.ts'
import { useUnits } from '../ui/units.ts'
import { useDrawer, useExperience } from '../wire/queries.ts'
import { useCalc } from '../workers/use-calc.ts'

/** What the units of this sheet that were built here have taught: what was built, what it read, and with which stacks the next one begins. */
const props = defineProps<{ sheet: DriveSheet }>()
const units = useUnits()
const store = useExperience(() => props.sheet.id)
const drawer = useDrawer()
const calc = useCalc()
const taught = computed(() => store.taught?.experience ?? undefined)
const stacks = computed(() => shimAdjusters(props.sheet))
const begin = ref<ShimSolveResult['plans'][number] | null>(null)
const question = computed(() => {
  if (!taught.value || !drawer.lines) return undefined
  const pieces = drawer.lines
    .filter((l) => l.count > 0)
    .map((l) => ({ id: l.id, thicknessMm: l.thicknessMm, count: l.count }))
  return firstQuestion(props.sheet, taught.value, pieces)
})
watch(
  () => JSON.stringify(question.value),
  async () => {
    begin.value = null
    if (!question.value) return
    const answer = await calc
      .run<ShimSolveResult>('shim-solve', { ...question.value, plans: 1 })
      .catch(() => 'cancelled' as const)
    if (answer !== 'cancelled' && answer.status === 'fit') begin.value = answer.plans[0] ?? null
  },
  { immediate: true },
)
const labelOf = (measure: string) => props.sheet.measures.find((m) => m.id === measure)?.label ?? measure
</script>

<template>
  <section v-if="stacks.length && store.taught">
    <h2>What units have taught</h2>
    <p v-if="!taught" class="small soft">
      Fewer than {{ FEWEST_UNITS }} units of this sheet were built and accepted here; until then each begins
      by the manual.
    </p>
    <template v-else>
      <p class="small">{{ taught.units }} units, built and accepted here.</p>
      <dl class="small">
        <template v-for="a in stacks" :key="a.id">
          <dt>
            {{ a.label }} <span class="mono">{{ units.digits(taught.at[a.id]!, 3) }}</span> ±
            <span class="mono">{{ units.length(taught.spread[a.id]!, 3) }}</span>
          </dt>
          <dd v-if="!sheet.lacks?.includes(`adjusters.${a.id}.startMm`)" class="soft">
            the manual begins with {{ units.both(a.startMm) }}
          </dd>
        </template>
        <template v-for="(m, id) in taught.measures" :key="id">
          <dt>
            {{ labelOf(String(id)) }} then <span class="mono">{{ units.digits(m.mean, 3) }}</span> ±
            <span class="mono">{{ units.length(2 * m.sd, 3) }}</span>
          </dt>
        </template>
      </dl>
      <p v-if="begin" class="small">
        To begin the next one with, out of the drawer:
        <template v-for="(s, id, i) in begin.stacks" :key="id"
          >{{ i ? ', ' : '' }}{{ stacks.find((a) => a.id === String(id))?.label.toLowerCase() }}
          <span class="mono">{{ units.length(s.thicknessMm, 3) }}</span></template
        >; lands at once with {{ percent(begin.probability) }}.
      </p>
    </template>
  </section>
</template>
