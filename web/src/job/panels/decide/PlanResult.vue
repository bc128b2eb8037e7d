<script setup lang="ts">
import { settingMeasures, unitOf } from '@moray/core/setting/measures'
import type { ShimPlan, ShimSolveResult } from '@moray/core/setting/shim-solve'
import { useUnits } from '../../../ui/units.ts'
import { stackThicknesses } from '../../setting-view.ts'
import type { ShownBuild, ShownJob } from '../../shown-job.ts'
import OrderAdvice from './OrderAdvice.vue'
import PlanCard from './PlanCard.vue'

/** What the search has come to: the plans, best first, or what is missing; and whether it is proved. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  result: ShimSolveResult
  fromDrawer: boolean
  busy: boolean
}>()
const chosen = defineModel<number>('chosen', { required: true })
const emit = defineEmits<{ take: [plan: ShimPlan]; leave: [piece: string] }>()

const units = useUnits()
const measureOf = (id: string) => settingMeasures(props.job.sheet).find((m) => m.id === id)
const labelOf = (id: string) => measureOf(id)?.label ?? id
const showOf = (id: string) => units.of(measureOf(id) ? unitOf(measureOf(id)!) : 'mm')
</script>

<template>
  <h3 v-if="result.status === 'fit'">
    {{ result.plans.length === 1 ? 'One plan' : `The ${result.plans.length} best plans`
    }}{{ fromDrawer ? ' out of the drawer' : '' }}
  </h3>
  <template v-else>
    <h3>
      {{
        !result.provedOptimal
          ? 'Nothing that comes in was found before the search was cut short'
          : fromDrawer
            ? 'Nothing in the drawer brings this in'
            : 'No place of the carrier brings this in'
      }}
    </h3>
    <p v-if="result.shortfall" class="small">
      Closest, and how far each stays off:
      <template v-for="(mm, id) in result.shortfall" :key="id">
        <span v-if="mm !== 0" class="off"
          >{{ labelOf(String(id)) }}
          <span class="mono">{{ mm > 0 ? '+' : '' }}{{ showOf(String(id)).say(mm, 3) }}</span></span
        >
      </template>
    </p>
  </template>
  <p class="small soft">
    {{
      result.provedOptimal
        ? fromDrawer
          ? 'Proved: this drawer holds no better one.'
          : 'Proved: it locks at no better place.'
        : 'The search was cut short; a better one may exist.'
    }}
  </p>
  <OrderAdvice v-if="result.status === 'no-fit' && fromDrawer" :suggestions="result.orderSuggestions ?? []" />
  <ol class="plans">
    <li v-for="(plan, i) in result.plans" :key="i">
      <PlanCard
        :job="job"
        :plan="plan"
        :current="stackThicknesses(build)"
        :rank="i + 1"
        :open="chosen === i"
        :busy="busy"
        :fits="result.status === 'fit'"
        @open="chosen = i"
        @take="emit('take', plan)"
        @leave="(piece) => emit('leave', piece)"
      />
    </li>
  </ol>
  <OrderAdvice
    v-if="result.status === 'fit' && result.orderSuggestions?.length"
    :suggestions="result.orderSuggestions"
  />
</template>

<style scoped>
h3 {
  margin-top: 0.8rem;
}
.off {
  display: block;
}
.plans {
  margin-top: 0.6rem;
  display: grid;
  gap: 0.6rem;
}
</style>
