<script setup lang="ts">
import { newRequestId } from '../../wire/request-id.ts'
import type { ShownJob } from '../shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import { closingOf } from '@moray/core/job/closings'
import { isOver } from '@moray/core/job/record'
import { dependentsOf, type StepProgress } from '@moray/core/route/progress'
import { chosenSchool, schools } from '@moray/core/route/schools'
import { useDebounceFn, useNow } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { useLateFocus } from '../../ui/late-focus.ts'
import ReasonDialog from '../../ui/ReasonDialog.vue'
import TurnArrow from '../../ui/TurnArrow.vue'
import { withUnit } from '../../ui/both-units.ts'
import { useUnits } from '../../ui/units.ts'
import { keepDrafts, useGauges, useQueryClient } from '../../wire/queries.ts'
import { useShop } from '../../stores/shop.ts'
import { asWireError, problemAt, send, type WireError } from '../../wire/client.ts'
import { useJobWrite } from '../../writing/use-job-write.ts'
import { useWriteAs } from '../../writing/use-write.ts'
import FastenerTable from '../../drives/FastenerTable.vue'
import MissingFigures from '../panels/MissingFigures.vue'
import ClosedMeanwhile from './ClosedMeanwhile.vue'
import StepDone from './StepDone.vue'
import InstructList from './InstructList.vue'
import StepForm from './StepForm.vue'
import {
  askedNow,
  attemptsOf,
  figuresOf,
  manualPages,
  saidNow,
  wrenchesFor,
  wrenchOffers,
  wrongSoFar,
  type RouteView,
} from './route-view.ts'

/** One step: what to do, what it asks, what it comes to. Keeps what is typed, sends what is done, and asks for reasons. */
const props = defineProps<{
  job: ShownJob
  view: RouteView
  step: StepProgress
  /** What was given here before somebody else closed the step. */
  half?: Record<string, boolean | number | string> | undefined
}>()
const emit = defineEmits<{
  next: []
  /** What is given so far by whoever is at this screen, and not sent as the step. */
  given: [answers: Record<string, boolean | number | string>]
  /** It is sent as the step from here; false, it did not get through. */
  closing: [step: string, sent: boolean]
}>()
const shop = useShop()
const units = useUnits()
const write = useJobWrite()
const back = useJobWrite()
const correction = useJobWrite()

const definition = computed(() => props.step.step)
const closing = computed(() => closingOf(props.job.closings, definition.value.id))
const client = useQueryClient()
const draft = computed(() => props.job.drafts.find((d) => d.step === definition.value.id))
type Raw = Record<string, boolean | number | string | undefined>
const answers = ref<Raw>({ ...draft.value?.answers })
/** As it is sent: a bare number of somebody who reads inches first says its unit. */
const given = computed(() =>
  Object.fromEntries(
    Object.entries(answers.value).flatMap(([fact, value]): [string, boolean | number | string][] => {
      if (value === undefined) return []
      const ask = definition.value.asks.find((a) => a.fact === fact)
      const typed = ask?.kind === 'number' && typeof value === 'string'
      return [[fact, typed ? withUnit(value, ask.quantity, shop.first) : value]]
    }),
  ),
)
/** Of a job that is over only the record is put right: no answer is judged any more. */
const wrong = computed(() =>
  isOver(props.job.state) ? {} : wrongSoFar(props.job, definition.value, given.value),
)

/** What is typed is kept on the server a moment later, so that an interruption, a reload or another screen finds it. */
let kept = JSON.stringify(given.value)
async function keep() {
  const now = JSON.stringify(given.value)
  if (now === kept || props.step.state === 'done' || !shop.somebody) return
  kept = now
  const at = new Date().toISOString()
  const clock = definition.value.timedFrom
  const begins =
    clock !== undefined && given.value[clock] !== undefined && draft.value?.answers[clock] === undefined
  const mine = {
    step: definition.value.id,
    answers: given.value,
    begunAt: begins ? at : (draft.value?.begunAt ?? at),
    by: '',
    at,
  }
  keepDrafts(client, props.job.id, (before) => {
    const others = before.filter((d) => d.step !== mine.step)
    return now === '{}' ? others : [...others, mine]
  })
  const body = { step: definition.value.id, answers: given.value }
  const person = shop.personId
  // a draft that does not get through is tried again with the next key; the step itself would say it
  await send(endpoints.keepDraft, { id: props.job.id }, body, person, newRequestId()).catch((e: unknown) => {
    kept = ''
    // asked for now, and not when the step is closed: until then nothing of it would be kept
    if (asWireError(e).code === 'code-needed' && !gone) shop.codeFor = person
  })
}
// the code was said: what is typed can be kept
watch(
  () => shop.codeFor,
  (asked) => asked === '' && void keepSoon(),
)
// a panel that is gone tries nothing again: by then another step, or another job, may stand in the store
let gone = false
const keepSoon = useDebounceFn(() => (gone ? Promise.resolve() : keep()), 900)
watch(given, (now) => {
  if (props.step.state !== 'done') emit('given', now)
  void keepSoon()
})
onBeforeUnmount(() => {
  void keep()
  gone = true
})

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
const still = (error: WireError | null) => (sent.value === JSON.stringify(given.value) ? error : null)
const error = computed(() => still(correcting.value ? correction.error.value : write.error.value))
const problems = computed((): Record<string, string> => {
  if (!error.value) return {}
  const own = definition.value.asks.flatMap((a) => {
    const said = problemAt(error.value, `answers.${a.fact}`)
    return said ? [[a.fact, said] as const] : []
  })
  return own.length ? Object.fromEntries(own) : { '': error.value.message.replace(/^(step|answers): /, '') }
})
async function close(departure?: { reason: string }): Promise<boolean> {
  sent.value = JSON.stringify(given.value)
  const body = { step: definition.value.id, answers: given.value, ...(departure ? { departure } : {}) }
  // what is on its way as the step itself needs no draft
  kept = sent.value
  emit('closing', body.step, true)
  const reply = await write.send(endpoints.closeStep, { id: props.job.id }, body)
  if (!reply) {
    emit('closing', body.step, false)
    kept = ''
    if (!departing.value) await form.value?.toWrong()
    return false
  }
  departing.value = false
  if (!closingOf(reply.closings, definition.value.id)) {
    // an attempt: kept, with its reasons; the step begins anew
    answers.value = {}
    kept = '{}'
    await nextTick()
    frame.value?.scrollIntoView({ block: 'start' })
    focusDue()
    return true
  }
  emit('next')
  return true
}
const departing = ref(false)
const lead = ref('')
const canDepart = computed(
  () =>
    !correcting.value &&
    (['blocked', 'waiting'].includes(props.step.state) ||
      ['slip', 'answer-missing', 'lead-needed'].includes(error.value?.code ?? '')),
)
/** Where the lead has to agree he does it himself, under his own name, before the step is closed. */
const agreement = useWriteAs(() => lead.value)
const needsLead = computed(
  () => props.job.ways.rules.departuresNeedLead && !shop.leads.some((l) => l.id === shop.personId),
)
async function depart(reason: string) {
  if (needsLead.value) {
    const step = definition.value.id
    if (!(await agreement.send(endpoints.agree, { id: props.job.id }, { step, reason }))) return
  }
  await close({ reason })
}

const taking = ref(false)
const falling = computed(() => {
  const open = props.job.done
  return dependentsOf(props.view.route, definition.value.id).filter((s) => open.has(s)).length
})
async function takeBack(reason: string) {
  const reply = await back.send(
    endpoints.takeBack,
    { id: props.job.id, closing: closing.value!.id },
    { reason },
  )
  if (reply) taking.value = false
}

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
async function correct(reason: string) {
  sent.value = JSON.stringify(given.value)
  const reply = await correction.send(
    endpoints.correctStep,
    { id: props.job.id, closing: closing.value!.id },
    { reason, answers: given.value },
  )
  giving.value = false
  if (reply) {
    correcting.value = false
    if (props.half) emit('next')
  } else await form.value?.toWrong()
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
const school = computed(() => {
  const id = definition.value.school
  if (!id) return undefined
  const own = Object.fromEntries(props.job.schools.map((s) => [s.school, s.choice]))
  const shopWay = String(props.job.facts[`school.${id}`] ?? '')
  const chosen = chosenSchool(id, { [id]: shopWay }, own)
  return { question: schools.find((s) => s.id === id)!.question, ...chosen }
})
const now = useNow({ interval: 10_000 })
/** A pressure test runs from the moment its pressure was entered. */
const running = computed(() => {
  const { timedFrom, holdMin = 0 } = definition.value
  if (!timedFrom || draft.value?.answers[timedFrom] === undefined || props.step.state === 'done')
    return undefined
  const minutes = Math.max(
    0,
    Math.floor((now.value.getTime() - new Date(draft.value.begunAt).getTime()) / 60_000),
  )
  return { minutes, left: Math.max(0, holdMin - minutes) }
})
const gauges = useGauges()
/** Wrenches of the shop that can be trusted over the torque of this step. */
const wrenches = computed(() => wrenchesFor(props.job.sheet, definition.value, gauges.gauges ?? []))
const offers = computed((): Record<string, { label: string; value: string }> => {
  const lengths = wrenchOffers(definition.value, wrenches.value)
  if (!running.value) return lengths
  const { minutes } = running.value
  return {
    ...lengths,
    [`${definition.value.id}.minutes`]: {
      label: `By the clock: ${minutes} min. Take it over`,
      value: String(minutes),
    },
  }
})
const figures = computed(() => figuresOf(props.job, definition.value, given.value, units.value))
const attempts = computed(() => attemptsOf(props.job.closings, definition.value.id))
const pages = computed(() => manualPages(props.job.sheet, definition.value))
const asked = computed(() => askedNow(props.job, definition.value, given.value))
const said = computed(() => saidNow(props.job, definition.value))
/** What other hands can do while this waits. */
const meanwhile = computed(() =>
  props.step.state === 'waiting' || (props.step.state === 'blocked' && !props.step.elsewhere)
    ? [props.view.progress.due, ...props.view.progress.meanwhile].filter(
        (s) => s !== undefined && s.step.id !== definition.value.id && (s.state === 'open' || s.elsewhere),
      )
    : [],
)
const turn = computed(() => definition.value.turn)
</script>

<template>
  <div ref="frame" class="step">
    <h2>{{ definition.what }}</h2>
    <p class="why">{{ definition.why }}</p>
    <p v-if="turn" class="turning">
      <TurnArrow :turn="turn.turn" />
      <span><strong>{{ turn.what }}: {{ turn.turn }} {{ turn.act }}.</strong> Left-hand thread.</span>
    </p>
    <p v-if="definition.holdPoint && step.state !== 'done'" class="hold">
      <strong>Hold point.</strong> Nobody sees this again once it is closed: two words, or a picture.
    </p>
    <InstructList :lines="said" />
    <p v-if="definition.attitude && step.state !== 'done'" class="small attitude">
      <span class="soft">Which way up</span> {{ definition.attitude }}
    </p>
    <p v-if="definition.caution" class="caution"><strong>Caution.</strong> {{ definition.caution }}</p>
    <p v-if="running" class="running" role="timer">
      <span class="live mono">{{ running.minutes }} min</span>
      <span>{{
        running.left > 0 ? `running; hold ${running.left} min more` : 'held as long as the sheet asks'
      }}</span>
    </p>
    <ul
      v-if="attempts.length && step.state !== 'done'"
      class="attempts small"
      aria-label="Attempts that did not count"
    >
      <li v-for="a in attempts" :key="a.id"><strong>Attempt, {{ a.by }}:</strong> {{ a.why }}</li>
    </ul>

    <ClosedMeanwhile
      v-if="half && step.state === 'done' && !correcting"
      :step="definition"
      :closing="closing"
      :mine="half"
      @correct="beginCorrection(half)"
      @leave="$emit('next')"
    />
    <StepDone
      v-if="step.state === 'done' && !correcting"
      :step="definition"
      :closing="closing"
      :over="isOver(job.state)"
      @next="$emit('next')"
      @correct="beginCorrection()"
      @back="taking = true"
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
      @complete="focusDue"
    />
    <StepForm
      v-if="step.state !== 'done' || correcting"
      ref="form"
      v-model:answers="answers"
      :step="asked"
      :shut="correcting ? [] : step.why"
      :wrong="wrong"
      :problems="problems"
      :figures="figures"
      :offers="offers"
      :busy="write.busy.value || correction.busy.value"
      :can-depart="canDepart"
      :action="correcting ? 'Correct it' : definition.asks.length ? 'Done, next step' : 'Next step'"
      @done="correcting ? (giving = true) : close()"
      @depart="departing = true"
    >
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

    <FastenerTable
      v-if="definition.role === 'tightens' && job.sheet.fasteners?.length"
      :fasteners="job.sheet.fasteners"
    />
    <p v-if="pages.length" class="small"><span class="soft">Your manual</span> page {{ pages.join(', ') }}</p>
    <p v-if="wrenches.length" class="small">
      <span class="soft">Wrench for it</span> {{ wrenches.map((w) => w.name).join(', ') }}
    </p>
    <ul v-if="definition.tools.length || definition.consumables.length" class="kit small">
      <li v-if="definition.tools.length">
        <span class="soft">Tools</span> {{ definition.tools.join(', ') }}
      </li>
      <li v-if="definition.consumables.length">
        <span class="soft">Needs</span> {{ definition.consumables.join(', ') }}
      </li>
    </ul>
    <p v-if="school" class="small school">
      <span class="soft">{{ school.question }}:</span> {{ school.label }}, because {{ school.reason }}
      <RouterLink :to="`/jobs/${job.id}/schools`">change</RouterLink>
    </p>

    <div v-if="meanwhile.length" class="meanwhile">
      <p class="small soft">Meanwhile</p>
      <ul>
        <li v-for="m in meanwhile.slice(0, 5)" :key="m!.step.id">
          <RouterLink :to="{ query: { step: m!.step.id } }">{{ m!.step.what }}</RouterLink>
        </li>
      </ul>
    </div>
    <ReasonDialog
      v-model:open="departing"
      title="Go on all the same"
      explain="What is open and your reason stand in the record, with your name."
      action="Go on"
      :busy="write.busy.value || agreement.busy.value"
      :error="departing ? (agreement.error.value?.message ?? error?.message) : null"
      @give="depart"
    >
      <ul class="small open-list">
        <li v-for="w in [...step.why, ...Object.values(wrong)]" :key="w">{{ w }}</li>
      </ul>
      <label v-if="needsLead" class="entries">
        The lead, who does this himself
        <select v-model="lead">
          <option value="">choose</option>
          <option v-for="p in shop.leads" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select>
      </label>
    </ReasonDialog>
    <ReasonDialog
      v-model:open="giving"
      title="Correct what was answered"
      :explain="
        isOver(job.state)
          ? 'The old answer stays in the record with your reason. The job stays over: nothing is asked or judged again.'
          : 'The old answer stays in the record with your reason. Only what stood on it is asked again.'
      "
      action="Correct it"
      :busy="correction.busy.value"
      @give="correct"
    />
    <ReasonDialog
      v-model:open="taking"
      title="Do the step again"
      :explain="
        falling
          ? `The work itself is done again, and with it ${falling} later step${falling > 1 ? 's' : ''}. All of it stays in the record. A wrong answer alone is better corrected.`
          : 'It is done again; what was answered stays in the record.'
      "
      action="Do it again"
      :busy="back.busy.value"
      :error="back.error.value?.message"
      @give="takeBack"
    />
  </div>
</template>

<style scoped>
.step {
  scroll-margin-top: 0.5rem;
}
h2 {
  font-size: var(--t-title);
}
.why {
  margin: 0.2rem 0 0.6rem;
  color: var(--ink-soft);
}
.caution {
  margin-bottom: 0.7rem;
}
.hold {
  border: 2px solid var(--ink);
  border-left-width: 8px;
  padding: 0.3rem 0.7rem;
  margin-bottom: 0.6rem;
}
.attitude {
  margin-bottom: 0.5rem;
}
.meanwhile {
  border-top: 1px solid var(--line);
  margin-top: 0.6rem;
  padding-top: 0.4rem;
}
.turning {
  display: flex;
  gap: 0.9rem;
  align-items: center;
  font-size: var(--t-lead);
  margin-bottom: 0.6rem;
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
.running {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
  border-left: 6px solid var(--lamp);
  padding-left: 0.7rem;
  margin-bottom: 0.7rem;
}
.attempts li {
  border-left: 4px solid var(--out);
  padding-left: 0.6rem;
  margin-bottom: 0.4rem;
}
.kit {
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
  margin-top: 0.5rem;
}
.school {
  margin-top: 0.3rem;
}
.open-list li {
  border-left: 3px solid var(--out);
  padding-left: 0.5rem;
  margin-bottom: 0.3rem;
}
</style>
