<script setup lang="ts">
import type { TakePlan } from '@moray/contract/requests/setting'
import { isCarrier } from '@moray/core/drives/sheet'
import { plannedPieces } from '@moray/core/job/pieces'
import { FIT, type ShimPlan } from '@moray/core/setting/shim-solve'
import { turnedBetween } from '@moray/core/setting/turned'
import Button from 'primevue/button'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { WriteState } from '../../../writing/for-panels.ts'
import { stackThicknesses } from '../../setting-view.ts'
import type { ShownBuild, ShownJob } from '../../shown-job.ts'
import BuildDialog from './BuildDialog.vue'
import OwnStacks from './OwnStacks.vue'
import PlanCard from './PlanCard.vue'
import PlanResult from './PlanResult.vue'
import PlanWishes from './PlanWishes.vue'
import { usePlanSearch } from './use-plan-search.ts'
import WhatIf from './WhatIf.vue'

/** The next stacks out of the drawer: searched for, supposed, or put together by hand. */
const props = defineProps<{ job: ShownJob; build: ShownBuild; write: WriteState }>()
const emit = defineEmits<{
  preview: [plan: ShimPlan | null]
  /** All plans that can be chosen, the best first. */
  plans: [plans: ShimPlan[]]
  take: [plan: TakePlan, answered: () => void]
  /** The search has found what it can. */
  answered: []
}>()

const chosen = ref(0)
const search = usePlanSearch(props, () => {
  chosen.value = 0
  emit('answered')
})
const { wishes, keep, leave, leftOut, reachable, carriers, fromDrawer } = search
const { experience, builds, result, stopped, soFar, why, question, calc } = search

const own = ref(false)
const supposing = ref(false)
/** Stacks moved or put together by hand, while that is open. */
const idea = ref<ShimPlan | null>(null)
/** Either is left to the plan that was looked at. */
function suppose(on: boolean, byHand: boolean) {
  supposing.value = on
  own.value = byHand
  idea.value = null
}
/** One place says what the drawing shows: a search that ends meanwhile must not put its plan over what somebody is moving. */
const shown = computed(() =>
  supposing.value || own.value ? idea.value : (result.value?.plans[chosen.value] ?? null),
)
watch(shown, (plan) => emit('preview', plan))
watch(
  () => (supposing.value || own.value ? [] : (result.value?.plans ?? [])),
  (plans) => emit('plans', plans),
)
onBeforeUnmount(() => {
  emit('preview', null)
  emit('plans', [])
})

/** The plan that is about to be built: asked once. */
const building = ref<ShimPlan | null>(null)
function buildPlan(plan: ShimPlan) {
  const stacks = Object.entries(plan.stacks)
    .filter(([id]) => !question.value?.locations.find((l) => l.id === id)?.fixed)
    .map(([location, s]) => {
      const a = props.job.sheet.adjusters.find((x) => x.id === location)!
      const pieces = plannedPieces(s)
      if (!isCarrier(a)) return { location, pieces }
      return {
        location,
        pieces,
        steps: turnedBetween(a, props.build.state.stacks[location]!, s.thicknessMm).steps,
      }
    })
  emit('take', { fromBuild: props.build.number, stacks }, () => (building.value = null))
}
</script>

<template>
  <p v-if="experience" class="small soft">
    {{ experience.units }} units of this drive stand behind how it is taken to answer.
  </p>
  <p v-if="builds.length > 1" class="small soft">
    Learned from {{ builds.length }} builds: the plans below follow how this case has answered.
  </p>
  <section class="solver" aria-label="Stacks out of the drawer">
    <PlanWishes
      v-model="wishes"
      :sheet="job.sheet"
      :reachable="reachable"
      :from-drawer="fromDrawer"
      :left-out="leftOut"
      @keep="keep"
      @leave="leave"
    />
    <div v-if="calc.progress.value" class="working" role="status">
      <p>
        Looking through the drawer: {{ calc.progress.value.stage }},
        {{ calc.progress.value.nodes.toLocaleString('en') }} looked at
      </p>
      <Button label="Stop" class="quiet" @click="calc.cancel()" />
    </div>
    <p v-else-if="stopped">
      Stopped. <button type="button" class="texty" @click="search.solve">Look again</button>
    </p>
    <template v-if="soFar && !result && !supposing">
      <h3>Best so far</h3>
      <p class="small soft">
        {{
          soFar.gap < 0.0005
            ? 'None is more likely to land; fewer pieces may do as well.'
            : `Another one could land with at most ${(100 * soFar.gap).toFixed(1)} % more.`
        }}
      </p>
      <PlanCard
        :job="job"
        :plan="soFar.plan"
        :current="stackThicknesses(build)"
        :rank="1"
        open
        :busy="write.busy"
        :fits="soFar.plan.probability >= FIT"
        @take="building = soFar.plan"
        @leave="leave"
      />
    </template>
    <p v-if="why" class="fault" role="alert">{{ why }}</p>
    <p v-if="write.error" class="fault" role="alert">{{ write.error.message }}</p>
    <PlanResult
      v-if="result && !supposing"
      v-model:chosen="chosen"
      :job="job"
      :build="build"
      :result="result"
      :from-drawer="fromDrawer"
      :busy="write.busy"
      @take="(plan) => (building = plan)"
      @leave="leave"
    />
    <button type="button" class="texty" :aria-expanded="supposing" @click="suppose(!supposing, false)">
      {{ supposing ? 'Leave what if' : 'What if: move a stack and see' }}
    </button>
    <WhatIf
      v-if="supposing && question"
      :job="job"
      :question="question"
      :busy="write.busy"
      @preview="(p: ShimPlan | null) => (idea = p)"
      @take="(plan: ShimPlan) => (building = plan)"
    />
    <button type="button" class="texty" :aria-expanded="own" @click="suppose(false, !own)">
      {{ own ? 'Close your own stacks' : 'Put stacks together yourself' }}
    </button>
    <OwnStacks
      v-if="own && question"
      :job="job"
      :build="build"
      :question="question"
      :busy="write.busy"
      @preview="(p: ShimPlan | null) => (idea = p)"
      @take="(plan: ShimPlan) => (building = plan)"
    />
    <BuildDialog
      v-model="building"
      :job="job"
      :build="build"
      :turns="carriers.length > 0"
      :busy="write.busy"
      @yes="buildPlan"
    />
  </section>
</template>

<style scoped>
h3 {
  margin-top: 0.8rem;
}
.texty {
  text-align: left;
  display: block;
}
.working {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.6rem;
  margin-top: 0.8rem;
}
</style>
