<script setup lang="ts">
import { computed, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import SectionDrawing from '../drawing/SectionDrawing.vue'
import PictureStrip from './pictures/PictureStrip.vue'
import { useJob } from './shown-job.ts'
import { suspectsOf } from './faults.ts'
import { lies, stillIn } from '@moray/core/job/bench-row'
import { buildBack } from './parts/row-view.ts'
import { routeView } from './route/route-view.ts'
import StageList from './route/StageList.vue'
import StepPanel from './route/StepPanel.vue'
import OpenEdges from './panels/OpenEdges.vue'
import { stackThicknesses } from './setting-view.ts'
import { useStepWrites } from './use-step-writes.ts'

/** The route: stages on the left, the place lit in the middle, what is due on the right. The address keeps the step. */
const store = useJob()
const route = useRoute()
const router = useRouter()
const job = computed(() => store.job!)
const writes = useStepWrites(() => job.value.id)
const view = computed(() => routeView(job.value))
const here = computed(() => view.value.progress.steps.filter((s) => s.state !== 'not-here'))
/** What is half given at a step: kept here, since its panel goes when somebody else closes the step. */
const half = ref<{ step: string; answers: Record<string, boolean | number | string>; sent: boolean }>()
/** The step one was at while somebody else closed it: the page stays there until one has seen that. */
const closedMeanwhile = computed(() => {
  const { step: id, answers, sent } = half.value ?? { sent: true, answers: {} }
  if (sent || !Object.keys(answers).length) return undefined
  return here.value.find((s) => s.step.id === id && s.state === 'done')
})
const step = computed(
  () =>
    closedMeanwhile.value ??
    here.value.find((s) => s.step.id === route.query.step) ??
    view.value.progress.due ??
    here.value.at(-1)!,
)
function go(id?: string) {
  half.value = undefined
  return router.replace({ query: id && id !== view.value.progress.due?.step.id ? { step: id } : {} })
}
const drawn = computed(() => {
  const newest = job.value.builds.at(-1)!
  const stacks = stackThicknesses(newest)
  return { stacks, from: stackThicknesses(job.value.builds[0]!) }
})
/** Before a leak test: the sealing place that the findings point at. */
const suspect = computed(() => {
  if (!step.value.step.timedFrom) return undefined
  const found = suspectsOf(job.value)
  const part = job.value.sheet.parts.find((p) => found.has(p.id) && p.place?.startsWith('seal:'))
  return part && { name: part.name, place: part.place, why: found.get(part.id)! }
})
/** The lip that this job renews. */
const renewedSeal = computed(() => {
  const isNew = new Set(job.value.plan.renew.map((r) => r.part))
  return job.value.plan.off.find((p) => isNew.has(p.id) && p.place?.startsWith('seal:'))?.place
})
/** Where it happens: the step's own place, or the part that comes off or goes in next. */
const lit = computed(() => {
  if (suspect.value) return suspect.value.place
  if (step.value.step.id === 'seals') return renewedSeal.value ?? step.value.step.place
  if (step.value.step.page !== 'row') return step.value.step.place
  const next = step.value.step.bares
    ? stillIn(job.value.plan.off, job.value.row).find((w) => !w.held.length && w.part.place)?.part
    : job.value.sheet.parts.find((p) => p.id === buildBack(job.value.row).find(lies)?.part)
  return next?.place ?? step.value.step.place
})
/** What can go on besides what is due: somebody else's work, or one's own while something soaks. */
const others = computed(() =>
  view.value.progress.meanwhile.filter((s) => s.step.id !== step.value.step.id).slice(0, 3),
)
const WAITS = { soak: 'penetrant works', cure: 'compound cures' } as const
const share = computed(() => Math.round((100 * view.value.progress.done) / view.value.progress.total))
</script>

<template>
  <div class="route three" :class="{ much: step.step.asks.length > 4 }">
    <aside class="left" aria-label="Route">
      <p class="small soft share">
        {{ view.progress.done }} of {{ view.progress.total }} steps, {{ share }} %
        <RouterLink :to="`/jobs/${job.id}/sheet`">step sheet on paper</RouterLink>
      </p>
      <p v-if="job.complaint" class="small complaint">
        <span class="soft">Complaint</span> {{ job.complaint }}
      </p>
      <div v-if="view.progress.running.length" class="running small" role="status">
        <p v-for="r in view.progress.running" :key="r.step.id">
          <strong>{{ r.minutes }} min more:</strong> {{ WAITS[r.kind] }}
        </p>
      </div>
      <div v-if="others.length" class="others small">
        <p class="soft">For other hands</p>
        <RouterLink v-for="o in others" :key="o.step.id" :to="{ query: { step: o.step.id } }">{{
          o.step.what
        }}</RouterLink>
      </div>
      <StageList :job="job" :view="view" :current="step.step.id" @go="go" />
    </aside>
    <section class="middle" aria-label="Section">
      <SectionDrawing :sheet="job.sheet" :state="drawn" :lit="lit" :max-height="560" />
      <p v-if="suspect" class="suspect">
        Look here first: <strong>{{ suspect.name.toLowerCase() }}</strong>. What was found points at
        {{ suspect.why.toLowerCase() }}.
      </p>
      <div class="below">
        <PictureStrip
          :key="step.step.id"
          :job="job"
          subject="step"
          :of="step.step.id"
          :wanted="step.step.picture && step.state !== 'done'"
        />
      </div>
    </section>
    <aside class="panel" aria-label="Due now">
      <OpenEdges
        v-if="step.state !== 'done'"
        :job="job"
        :step="step.step.id"
        :write="writes.edge"
        @settle="writes.settleEdge"
      />
      <StepPanel
        :key="`${step.step.id}${step.state}`"
        :job="job"
        :view="view"
        :step="step"
        :half="closedMeanwhile && half?.answers"
        :writes="writes"
        @keep="writes.keepDraft"
        @close="writes.closeStep"
        @agree="writes.agree"
        @take-back="writes.takeBack"
        @correct="writes.correctStep"
        @undo="writes.undoStep"
        @accept-line="writes.acceptLine"
        @figure="writes.addFigure"
        @given="(answers) => (half = { step: step.step.id, answers, sent: false })"
        @closing="(id, sent) => half?.step === id && (half = { ...half, sent })"
        @next="go()"
      />
    </aside>
  </div>
</template>

<style scoped>
.route {
  grid-template-columns: 15rem minmax(0, 1fr) 25rem;
}
.share {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
  flex-wrap: wrap;
  padding-bottom: 0.3rem;
}
.share a {
  min-height: 24px;
}
.running {
  border-left: 6px solid var(--lamp);
  padding-left: 0.6rem;
  margin-bottom: 0.4rem;
}
.others {
  display: grid;
  padding-bottom: 0.4rem;
}
.others a {
  min-height: 28px;
}
.suspect {
  border-left: 6px solid var(--lamp);
  padding-left: 0.7rem;
}
.below {
  margin-top: 0.8rem;
}
.route.much {
  grid-template-columns: 13rem minmax(0, 1fr) 33rem;
}
.complaint {
  padding-bottom: 0.4rem;
}
@media (max-width: 1180px) {
  .route {
    grid-template-columns: 12rem minmax(0, 1fr) 21rem;
    gap: 1rem;
  }
  .route.much {
    grid-template-columns: 11rem minmax(0, 1fr) 26rem;
  }
}
</style>
