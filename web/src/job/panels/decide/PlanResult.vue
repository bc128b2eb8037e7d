<script setup lang="ts">
import { findMeasured } from '@moray/core/setting/measured'
import { unitOf } from '@moray/core/setting/measures'
import type { ShimPlan, ShimSolveResult } from '@moray/core/setting/shim-solve'
import { computed } from 'vue'
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
/** How far each measure stays off with the closest plan. */
const shortfall = computed(() =>
  Object.entries(props.result.shortfall ?? {}).flatMap(([id, by]) => {
    if (by === 0) return []
    const measure = findMeasured(props.job.sheet, id)
    const said = units.of(measure ? unitOf(measure) : 'mm').say(by, 3)
    return [{ id, label: measure?.label ?? id, said: `${by > 0 ? '+' : ''}${said}` }]
  }),
)
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
      <span v-for="s in shortfall" :key="s.id" class="off"
        >{{ s.label }} <span class="mono">{{ s.said }}</span></span
      >
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
