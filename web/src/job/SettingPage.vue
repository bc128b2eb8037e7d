<script setup lang="ts">
import type { ShownBuild } from './shown-job.ts'
import type { ShimPlan } from '@moray/core/setting/shim-solve'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { holdMarks } from '../drawing/hold-marks.ts'
import SectionDrawing from '../drawing/SectionDrawing.vue'
import ContactStrip from './contact/ContactStrip.vue'
import LoadState from '../ui/LoadState.vue'
import WindowRuler from '../ui/WindowRuler.vue'
import VerdictMark from '../ui/VerdictMark.vue'
import { useUnits } from '../ui/units.ts'
import { isCarrier } from '@moray/core/drives/sheet'
import { hasLimit, isReadable } from '@moray/core/setting/assess'
import { unitOf } from '@moray/core/setting/measures'
import { useJob } from './shown-job.ts'
import { useGauges } from '../wire/queries.ts'
import RoundList from './RoundList.vue'
import CarrierPanel from './panels/CarrierPanel.vue'
import DecidePanel from './panels/DecidePanel.vue'
import ReadingPanel from './panels/ReadingPanel.vue'
import ShaftPanel from './panels/ShaftPanel.vue'
import StackPanel from './panels/StackPanel.vue'
import UndoLast from './panels/UndoLast.vue'
import {
  buildName,
  decimalsOf,
  drawingTags,
  dueFocus,
  focusFrom,
  focusId,
  shownMeasures,
  stackThicknesses,
  type Focus,
} from './setting-view.ts'

/** Charts are heavy: they come when somebody asks for them. */
const TrialsView = defineAsyncComponent(() => import('./trials/TrialsView.vue'))

const ShaftRound = defineAsyncComponent(() => import('./panels/ShaftRound.vue'))

const store = useJob()
const units = useUnits()
const gauges = useGauges()
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
const rows = computed(() =>
  shownMeasures(job.value.sheet, build.value).map((m) => {
    const state = build.value.assessment.measures[m.id]!
    const predicted = preview.value?.predicted[m.id] ?? build.value.plan?.predicted[m.id]
    const others = plans.value.flatMap((p, i) => {
      const value = p.predicted[m.id]?.value
      return p === preview.value || value === undefined ? [] : [{ rank: i + 1, value }]
    })
    return { measure: m, state, predicted, others, show: units.of(unitOf(m)) }
  }),
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
      <ul v-else class="rulers" :class="{ many: rows.length > 3 }">
        <li v-for="r in rows" :key="r.measure.id" :class="{ lit: lit === `measure:${r.measure.id}` }">
          <button type="button" class="what" @click="go(`measure:${r.measure.id}`)">
            <span class="label">{{ r.measure.label }}</span>
            <VerdictMark :verdict="r.state.judgement?.verdict" />
            <span v-if="r.state.carried" class="small soft">from the trial before</span>
          </button>
          <p v-if="!hasLimit(r.state.window)" class="small soft">
            <template v-if="!isReadable(job.sheet, r.measure)"
              >the sheet does not say yet how it is measured</template
            >
            <template v-else-if="r.measure.kind === 'depth' && r.measure.nominal === 'of-the-pair'"
              >its pair says where it should be; that is not found yet</template
            >
            <template v-else-if="!r.state.judgement">no window on the sheet yet</template>
          </p>
          <WindowRuler
            v-else
            :label="r.measure.label"
            :window="r.state.window"
            :unit="unitOf(r.measure)"
            :target="r.state.window === r.measure.window ? r.measure.target : undefined"
            :decimals="decimalsOf(r.measure)"
            :reading="
              r.state.judgement && r.state.judgement.verdict !== 'no-window'
                ? {
                    value: r.state.judgement.mean,
                    U: r.state.judgement.U,
                    verdict: r.state.judgement.verdict,
                  }
                : undefined
            "
            :prediction="r.predicted"
            :others="r.others"
          />
          <p class="number mono">
            <template v-if="r.state.judgement">
              <span class="big">{{ r.show.digits(r.state.judgement.mean, decimalsOf(r.measure)) }}</span>
              <span class="small">± {{ r.show.say(r.state.judgement.U, 3) }}</span>
              <span class="small soft">{{
                r.show.other(r.state.judgement.mean, decimalsOf(r.measure))
              }}</span>
            </template>
            <span v-else class="soft">—</span>
          </p>
        </li>
      </ul>
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
        @go="(id) => go(id)"
      />
      <DecidePanel
        v-else
        :key="`d${build.number}`"
        :job="job"
        :build="build"
        :writable="isNewest"
        @preview="(p) => (preview = p)"
        @plans="(p) => (plans = p)"
        @go="go"
        @built="next"
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
.rulers {
  border-top: 1px solid var(--line);
}
.rulers li {
  display: grid;
  grid-template-columns: 10rem minmax(0, 1fr) 7.2rem;
  gap: 0.8rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.25rem 0;
}
.rulers li.lit {
  box-shadow: inset 5px 0 0 var(--lamp);
}
.what {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  text-align: left;
  cursor: pointer;
  min-height: 44px;
  padding: 0.2rem 0.2rem 0.2rem 0.8rem;
  display: grid;
  gap: 0.15rem;
}
.what .label {
  font-weight: 700;
}
.what :deep(.mark) {
  font-size: var(--t-small);
}
.number {
  display: grid;
  text-align: right;
  line-height: 1.2;
}
.number .big {
  font-size: 1.75rem;
}
.many .number .big {
  font-size: 1.35rem;
}
.many .what {
  line-height: 1.15;
}
.many .what .label {
  font-size: var(--t-small);
}
@media (max-width: 1180px) {
  .setting {
    grid-template-columns: 11.5rem minmax(0, 1fr) 19rem;
    gap: 1rem;
  }
}
@media (max-width: 620px) {
  .rulers li {
    grid-template-columns: 1fr auto;
  }
  .rulers li :deep(.ruler) {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
