<script setup lang="ts">
import type { JobReply } from '@moray/contract/replies'
import type {
  AcceptLine,
  AgreeToDeparture,
  CloseStep,
  CorrectStep,
  TakeBack,
  UndoStep,
} from '@moray/contract/requests/route'
import type { AddFigure } from '@moray/contract/requests/sheets'
import { undoneOf } from '@moray/core/job/acts/told-entries'
import { lineTexts } from '@moray/core/job/acts/line-text'
import { closingOf } from '@moray/core/job/closings'
import { isOver, type StepDraft } from '@moray/core/job/record'
import { dependentsOf, type StepProgress } from '@moray/core/route/progress'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { useLateFocus } from '../../ui/late-focus.ts'
import { useUnits } from '../../ui/units.ts'
import { useShop } from '../../stores/shop.ts'
import { problemAt, type WireError } from '../../wire/client.ts'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import MissingFigures from '../panels/MissingFigures.vue'
import type { ShownJob } from '../shown-job.ts'
import ClosedMeanwhile from './ClosedMeanwhile.vue'
import DepartDialog from './DepartDialog.vue'
import LinesLeft from './LinesLeft.vue'
import StepDone from './StepDone.vue'
import StepForm from './StepForm.vue'
import StepHead from './StepHead.vue'
import StepNotes from './StepNotes.vue'
import {
  askedNow,
  attemptsOf,
  cautionsNow,
  figuresOf,
  hintsOf,
  saidNow,
  wrongSoFar,
  type RouteView,
} from './route-view.ts'
import WaysBack from './WaysBack.vue'
import { useStepOffers } from './use-step-offers.ts'
import { useStepDraft, type Given, type Raw } from './use-step-draft.ts'

/** One step: what to do, what it asks, what it comes to. Asks for reasons, and gives the page what is to be sent. */
const props = defineProps<{
  job: ShownJob
  view: RouteView
  step: StepProgress
  /** What was given here before somebody else closed the step. */
  half?: Given | undefined
  writes: Record<'close' | 'back' | 'correct' | 'undo' | 'line' | 'figure' | 'agreement', WriteState>
}>()
const emit = defineEmits<{
  next: []
  /** What is given so far by whoever is at this screen, and not sent as the step. */
  given: [answers: Given]
  /** It is sent as the step from here; false, it did not get through. */
  closing: [step: string, sent: boolean]
  keep: [draft: StepDraft, failed: (error: WireError) => void]
  close: [step: CloseStep, answered: (reply: JobReply | undefined) => void]
  agree: [lead: string, step: AgreeToDeparture, answered: Answered]
  takeBack: [closing: number, body: TakeBack, answered: Answered]
  correct: [closing: number, body: CorrectStep, answered: Answered]
  undo: [closing: number, body: UndoStep, answered: Answered]
  acceptLine: [lead: string, body: AcceptLine, answered: Answered]
  figure: [figure: AddFigure, answered: Answered]
}>()
const shop = useShop()
const units = useUnits()
const { draft, answers, given, sending, refused, empty } = useStepDraft(
  props,
  (kept, failed) => emit('keep', kept, failed),
  (now) => emit('given', now),
)

const definition = computed(() => props.step.step)
const closing = computed(() => closingOf(props.job.closings, definition.value.id))
/** Of a job that is over only the record is put right: no answer is judged any more. */
const wrong = computed(() =>
  isOver(props.job.state) ? {} : wrongSoFar(props.job, definition.value, given.value),
)

const frame = useTemplateRef<HTMLElement>('frame')
const form = useTemplateRef<InstanceType<typeof StepForm>>('form')
const focusDue = useLateFocus(
  () => form.value?.first() ?? frame.value?.querySelector<HTMLElement>('.p-button.lamp, .page-link.lamp'),
)
// the last figure that the sheet lacked is in: on with the step itself
watch(
  () => definition.value.wants?.length ?? 0,
  (left, before) => before > 0 && left === 0 && focusDue(),
)
onMounted(async () => {
  focusDue()
  // a step opens at its top: its title, its reason and its caution come before what it asks
  await nextTick()
  if ((frame.value?.getBoundingClientRect().top ?? 0) < 0) frame.value?.scrollIntoView({ block: 'start' })
})

/** What the server said was about the answers that were sent; about others it says nothing. */
const sent = ref('')
const error = computed(() => {
  const { correct, close } = props.writes
  return sent.value === JSON.stringify(given.value) ? (correcting.value ? correct.error : close.error) : null
})
const problems = computed((): Record<string, string> => {
  if (!error.value) return {}
  const own = definition.value.asks.flatMap((a) => {
    const said = problemAt(error.value, `answers.${a.fact}`)
    return said ? [[a.fact, said] as const] : []
  })
  return own.length ? Object.fromEntries(own) : { '': error.value.message.replace(/^(step|answers): /, '') }
})
function close(departure?: { reason: string; undone: boolean }) {
  sent.value = JSON.stringify(given.value)
  const { id: step } = definition.value
  sending()
  emit('closing', step, true)
  emit('close', { step, answers: given.value, ...(departure ? { departure } : {}) }, async (reply) => {
    if (!reply) {
      emit('closing', step, false)
      refused()
      if (!departing.value) await form.value?.toWrong()
      return
    }
    departing.value = false
    if (closingOf(reply.closings, step)) return emit('next')
    // an attempt: kept, with its reasons; the step begins anew
    empty()
    await nextTick()
    frame.value?.scrollIntoView({ block: 'start' })
    focusDue()
  })
}
const departing = ref(false)
const canDepart = computed(
  () =>
    !correcting.value &&
    (['blocked', 'waiting'].includes(props.step.state) ||
      ['slip', 'answer-missing', 'lead-needed'].includes(error.value?.code ?? '')),
)
/** Where the lead has to agree he does it himself, under his own name, before the step is closed. */
const leads = computed(() =>
  props.job.ways.rules.departuresNeedLead && !shop.leads.some((l) => l.id === shop.personId)
    ? shop.leads
    : undefined,
)
function depart(reason: string, lead: string, undone: boolean) {
  if (!leads.value) return close({ reason, undone })
  emit('agree', lead, { step: definition.value.id, reason }, (done) => done && close({ reason, undone }))
}

const taking = ref(false)
const falling = computed(
  () => dependentsOf(props.view.route, definition.value.id).filter((s) => props.job.done.has(s)).length,
)
const takeBack = (reason: string) =>
  emit('takeBack', closing.value!.id, { reason }, (done) => done && (taking.value = false))

const undoing = ref(false)
const undoable = computed(
  () => closing.value !== undefined && undoneOf(props.job, closing.value.id).length > 0,
)
const undo = (reason: string) =>
  emit('undo', closing.value!.id, { reason }, (done) => done && (undoing.value = false))

/** An answer is put right: the form again, with what was answered, and a reason at the end. */
const correcting = ref(false)
const giving = ref(false)
async function beginCorrection(mine: Raw = {}) {
  const { answers: was, texts } = closing.value!
  answers.value = { ...was, ...texts, ...mine }
  correcting.value = true
  await nextTick()
  form.value?.first()?.focus()
}
function correct(reason: string) {
  sent.value = JSON.stringify(given.value)
  emit('correct', closing.value!.id, { reason, answers: given.value }, async (done) => {
    giving.value = false
    if (!done) return form.value?.toWrong()
    correcting.value = false
    if (props.half) emit('next')
  })
}

const PAGES = {
  setting: ['setting', 'To Setting'],
  row: ['parts?view=row', 'To the row'],
  grades: ['parts?view=grades', 'To the grades'],
  estimate: ['parts?view=estimate', 'To the estimate'],
  faults: ['faults', 'To the fault finder'],
  contact: ['contact', 'Draw the pattern on the flank'],
} as const
const page = computed(() => (definition.value.page ? PAGES[definition.value.page] : undefined))
const { running, wrenches, offers } = useStepOffers(props, draft)
const figures = computed(() => figuresOf(props.job, definition.value, given.value, units.value))
const hints = computed(() => hintsOf(props.job, definition.value, given.value))
const attempts = computed(() => attemptsOf(props.job.closings, definition.value.id))
const asked = computed(() => askedNow(props.job, definition.value, given.value))
/** What is not as it must be, said on the step that hands the unit over: there each line is mended or accepted. */
const lines = computed(() => (definition.value.role === 'hands-over' ? props.job.work.lines : []))
const shut = computed(() => {
  const listed = new Set(lineTexts(props.job.sheet, lines.value))
  const others = props.step.why.filter((w) => !listed.has(w))
  return others.length < props.step.why.length ? ['What is open above comes first.', ...others] : others
})
const said = computed(() => saidNow(props.job, definition.value))
const cautions = computed(() => cautionsNow(props.job, definition.value))
</script>

<template>
  <div ref="frame" class="step">
    <StepHead :step="step" :said="said" :cautions="cautions" :running="running" :attempts="attempts" />
    <ClosedMeanwhile
      v-if="half && step.state === 'done' && !correcting"
      :step="definition"
      :closing="closing"
      :mine="half"
      @correct="beginCorrection(half)"
      @leave="emit('next')"
    />
    <StepDone
      v-if="step.state === 'done' && !correcting"
      :step="definition"
      :closing="closing"
      :over="isOver(job.state)"
      @next="emit('next')"
      @correct="beginCorrection()"
      @back="taking = true"
      :undoable="undoable"
      @undo="undoing = true"
    >
      <RouterLink v-if="!closing && page" :to="`/jobs/${job.id}/${page[0]}`">{{ page[1] }}</RouterLink>
      <template v-if="isOver(job.state)">
        <RouterLink :to="`/jobs/${job.id}/record`" class="page-link lamp">To the record</RouterLink>
        <RouterLink to="/" class="page-link">Back to the bench</RouterLink>
      </template>
    </StepDone>
    <MissingFigures
      v-if="definition.wants && step.state !== 'done'"
      :job="job"
      :paths="definition.wants"
      :write="writes.figure"
      @figure="(f, answered) => emit('figure', f, answered)"
      @complete="focusDue"
    />
    <StepForm
      v-if="step.state !== 'done' || correcting"
      ref="form"
      v-model:answers="answers"
      :step="asked"
      :shut="correcting ? [] : shut"
      :wrong="wrong"
      :problems="problems"
      :figures="figures"
      :hints="hints"
      :offers="offers"
      :busy="writes.close.busy || writes.correct.busy"
      :can-depart="canDepart"
      :action="correcting ? 'Correct it' : definition.asks.length ? 'Done, next step' : 'Next step'"
      @done="correcting ? (giving = true) : close()"
      @depart="departing = true"
    >
      <LinesLeft
        v-if="lines.length && !correcting"
        :job="job"
        :leads="leads"
        :write="writes.line"
        @accept="(lead, body, answered) => emit('acceptLine', lead, body, answered)"
      />
      <RouterLink
        v-if="page && !correcting"
        :to="`/jobs/${job.id}/${page[0]}`"
        class="page-link"
        :class="{ lamp: step.state === 'blocked' }"
        >{{ page[1] }}</RouterLink
      >
      <template #beside>
        <button v-if="correcting" type="button" class="texty" @click="correcting = false">
          Leave it as it was
        </button>
      </template>
    </StepForm>
    <StepNotes :job="job" :view="view" :step="step" :wrenches="wrenches" />
    <DepartDialog
      v-model:open="departing"
      :unmet="[...step.why, ...Object.values(wrong)]"
      :leads="leads"
      :asks-work="definition.role !== 'hands-over'"
      :busy="writes.close.busy || writes.agreement.busy"
      :error="departing ? (writes.agreement.error?.message ?? error?.message) : null"
      @give="depart"
    />
    <WaysBack
      v-model:giving="giving"
      v-model:taking="taking"
      v-model:undoing="undoing"
      :over="isOver(job.state)"
      :falling="falling"
      :writes="writes"
      @correct="correct"
      @back="takeBack"
      @undo="undo"
    />
  </div>
</template>

<style scoped>
.step {
  scroll-margin-top: 0.5rem;
}
.page-link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 0.9rem;
  border: 1px solid var(--line-strong);
  text-decoration: none;
}
.page-link.lamp {
  background: var(--lamp);
  color: var(--lamp-ink);
  border-color: var(--lamp-ink);
  font-weight: 700;
}
</style>
