<script setup lang="ts">
import type { ShownBuild } from './shown-job.ts'
import type { TakePlan } from '@moray/contract/requests/setting'
import type { ShimPlan } from '@moray/core/setting/shim-solve'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { holdMarks } from '../drawing/hold-marks.ts'
import SectionDrawing from '../drawing/SectionDrawing.vue'
import ContactStrip from './contact/ContactStrip.vue'
import LoadState from '../ui/LoadState.vue'
import { useUnits } from '../ui/units.ts'
import { isCarrier } from '@moray/core/drives/sheet'
import { useJob } from './shown-job.ts'
import { useShop } from '../stores/shop.ts'
import type { Answered } from '../writing/for-panels.ts'
import { useSettingWrites } from './use-setting-writes.ts'
import { useGauges } from '../wire/queries.ts'
import RoundList from './RoundList.vue'
import RulerList from './RulerList.vue'
import CarrierPanel from './panels/CarrierPanel.vue'
import DecidePanel from './panels/DecidePanel.vue'
import ReadingPanel from './panels/ReadingPanel.vue'
import ShaftPanel from './panels/ShaftPanel.vue'
import StackPanel from './panels/StackPanel.vue'
import UndoLast from './panels/UndoLast.vue'
import {
  buildName,
  drawingTags,
  dueFocus,
  focusFrom,
  focusId,
  stackThicknesses,
  type Focus,
} from './setting-view.ts'

/** Charts are heavy: they come when somebody asks for them. */
const TrialsView = defineAsyncComponent(() => import('./trials/TrialsView.vue'))

const ShaftRound = defineAsyncComponent(() => import('./panels/ShaftRound.vue'))

const store = useJob()
const units = useUnits()
const shop = useShop()
const gauges = useGauges()
const writes = useSettingWrites(() => job.value.id)
const route = useRoute()
const router = useRouter()

const job = computed(() => store.job!)
const newest = computed(() => job.value.builds.at(-1)!)
/** The build looked at; the address keeps it, so that a reload comes back here. */
const held = ref({ build: job.value.builds.at(-1)!.number, at: '' })
const build = computed<ShownBuild>(() => {
  const asked = route.query.build === undefined ? held.value.build : Number(route.query.build)
  return job.value.builds.find((b) => b.number === asked) ?? newest.value
})
const isNewest = computed(() => build.value === newest.value)
/** What was accepted stands on its readings; they are closed with it. */
const isOpen = computed(() => isNewest.value && job.value.acceptance?.build !== build.value.number)
held.value.at = focusId(dueFocus(job.value.sheet, newest.value))
/**
 * Where the hand is. It moves on by one's own entries and clicks only: what somebody else enters meanwhile must not put another place
 * under what is being typed.
 */
const focus = computed<Focus>(
  () =>
    focusFrom(job.value.sheet, String(route.query.at ?? '')) ??
    focusFrom(job.value.sheet, held.value.at) ??
    dueFocus(job.value.sheet, build.value),
)

function go(at: string | undefined, number = build.value.number) {
  const shown = job.value.builds.find((b) => b.number === number) ?? newest.value
  held.value = { build: number, at: at ?? focusId(dueFocus(job.value.sheet, shown, focus.value)) }
  const query: Record<string, string> = {}
  if (number !== newest.value.number) query.build = String(number)
  if (at !== undefined) query.at = at
  void router.replace({ query })
}
/** After an entry the next due step comes up by itself. */
const next = () => go(undefined, newest.value.number)

/** A plan that is being looked at; the drawing and the rulers show where it would lead. */
const preview = ref<ShimPlan | null>(null)
/** The plans beside it, by rank: each has its mark on the rulers. */
const plans = ref<ShimPlan[]>([])
watch([build, focus], () => {
  preview.value = null
  plans.value = []
})
const planned = computed(() => {
  if (!preview.value) return undefined
  return {
    stacks: Object.fromEntries(Object.entries(preview.value.stacks).map(([id, s]) => [id, s.thicknessMm])),
    predicted: preview.value.predicted,
  }
})
/** Builds the next trial, and goes on to it. */
async function takePlan(plan: TakePlan, answered?: Answered) {
  if (await writes.takePlan(plan, answered)) return next()
  // somebody else was quicker: show what the drawer holds now
  const code = writes.plan.error?.code
  if (code === 'stock' || code === 'stale-build') await store.load()
}
const signs = computed(() => shop.people.find((p) => p.id === shop.personId)?.coded === true)
/** Two builds that were read tell something of each other. */
const trials = computed(() => job.value.builds.filter((b) => b.readings.length > 0).length > 1)
const trialsOpen = ref(false)
/** Everything is read: what the gears do in contact helps to decide. */
const deciding = computed(() => focus.value.kind === 'decide' && build.value.assessment.decidable)
const drawn = computed(() => ({
  stacks: { ...stackThicknesses(build.value), ...planned.value?.stacks },
  from: planned.value ? stackThicknesses(build.value) : stackThicknesses(job.value.builds[0]!),
}))
const tags = computed(() => drawingTags(job.value, build.value, units, planned.value))
const lit = computed(() => focusId(focus.value))
const hold = computed(() =>
  isOpen.value && focus.value.kind === 'measure' && focus.value.measure.kind === 'backlash'
    ? holdMarks(job.value.sheet, focus.value.measure)
    : [],
)
</script>

<template>
  <div class="setting three">
    <aside class="rounds" aria-label="Rounds">
      <RoundList :job="job" :build="build" :focus="lit" @go="go" />
    </aside>
    <section class="middle" :class="{ stays: deciding && !trialsOpen }" aria-label="Section and windows">
      <SectionDrawing
        :sheet="job.sheet"
        :state="drawn"
        :tags="tags"
        :lit="lit"
        :hold="hold"
        :max-height="deciding ? 320 : focus.kind === 'shaft' ? 220 : 390"
        @pick="(p) => go(p)"
      />
      <ContactStrip v-if="deciding" :job="job" :build="build" :stacks="planned?.stacks ?? {}" />
      <ShaftRound
        v-if="focus.kind === 'shaft'"
        :job="job"
        :build="build"
        :station="focus.station"
        @go="(id) => go(id)"
      />
      <RulerList
        v-else
        :job="job"
        :build="build"
        :preview="preview"
        :plans="plans"
        :lit="lit"
        @go="(id) => go(id)"
      />
      <details v-if="trials" class="trials" @toggle="trialsOpen = ($event.target as HTMLDetailsElement).open">
        <summary>The trials side by side, and how it has answered</summary>
        <TrialsView v-if="trialsOpen" :job="job" />
      </details>
    </section>
    <aside class="panel" aria-label="Due now">
      <p v-if="!isNewest" class="caution">
        {{ buildName(build) }} is past; it can be read, not changed.
        <button type="button" class="texty" @click="next">To {{ buildName(newest).toLowerCase() }}</button>
      </p>
      <UndoLast
        v-if="isOpen"
        :job="job"
        :build="build"
        :write="writes.aside"
        @set-aside="(id, reason, answered) => writes.setAside(id, { reason }, answered)"
        @undone="(m) => go(m.startsWith('runout:') ? m : `measure:${m}`)"
      />
      <CarrierPanel
        v-if="focus.kind === 'stack' && isCarrier(focus.stack)"
        :job="job"
        :build="build"
        :carrier="focus.stack"
        @decide="go('decide')"
      />
      <StackPanel
        v-else-if="focus.kind === 'stack'"
        :key="`s${focus.stack.id}${build.number}`"
        :job="job"
        :build="build"
        :stack="focus.stack"
        :writable="isOpen && build.number === 0 && job.builds.length === 1"
        :write="writes.stack"
        @enter="writes.enterStack"
        @done="next"
      />
      <!-- an entry needs its gauge: nothing is typed before they are there -->
      <LoadState
        v-else-if="(focus.kind === 'measure' || focus.kind === 'shaft') && !gauges.gauges"
        what="the gauges"
        :error="gauges.error"
        @again="gauges.load"
      />
      <ReadingPanel
        v-else-if="focus.kind === 'measure'"
        :key="`m${focus.measure.id}${build.number}`"
        :job="job"
        :build="build"
        :measure="focus.measure"
        :gauges="gauges.gauges!"
        :writable="isOpen"
        :taking="writes.reading"
        :aside="writes.aside"
        :figures="writes.figure"
        @take="writes.takeReading"
        @set-aside="(id, reason, answered) => writes.setAside(id, { reason }, answered)"
        @figure="writes.addFigure"
        @done="next"
      />
      <ShaftPanel
        v-else-if="focus.kind === 'shaft'"
        :key="`r${focus.station.id}${build.number}`"
        :job="job"
        :build="build"
        :station="focus.station"
        :gauges="gauges.gauges!"
        :writable="isOpen"
        :taking="writes.reading"
        :aside="writes.aside"
        @take="writes.takeReading"
        @set-aside="(id, reason, answered) => writes.setAside(id, { reason }, answered)"
        @go="(id) => go(id)"
      />
      <DecidePanel
        v-else
        :key="`d${build.number}`"
        :job="job"
        :build="build"
        :writable="isNewest"
        :signs="signs"
        :accepting="writes.accept"
        :withdrawing="writes.withdraw"
        :planning="writes.plan"
        :figures="writes.figure"
        @preview="(p) => (preview = p)"
        @plans="(p) => (plans = p)"
        @go="go"
        @accept="writes.acceptBuild"
        @withdraw="writes.withdrawAcceptance"
        @take="takePlan"
        @figure="writes.addFigure"
      />
    </aside>
  </div>
</template>

<style scoped>
.setting {
  grid-template-columns: 13.5rem minmax(0, 1fr) 22rem;
}
details.trials summary {
  min-height: 44px;
  padding: 0.7rem 0.8rem;
  cursor: pointer;
}
.middle.stays {
  align-self: start;
}
@media (min-width: 1001px) {
  /* gear, contact and windows stay in view while stacks are moved beside them */
  .middle.stays {
    position: sticky;
    top: 0;
    background: var(--paper);
  }
}
@media (max-width: 1180px) {
  .setting {
    grid-template-columns: 11.5rem minmax(0, 1fr) 19rem;
    gap: 1rem;
  }
}
</style>
