<script setup lang="ts">
import type { ShownJob } from '../shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import { dependentsOf, type StepProgress } from '@moray/core/route/progress'
import { chosenSchool, schools } from '@moray/core/route/schools'
import { useDebounceFn, useNow } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { useLateFocus } from '../../ui/late-focus.ts'
import ReasonDialog from '../../ui/ReasonDialog.vue'
import { keepDrafts, useQueryClient } from '../../wire/queries.ts'
import { useShop } from '../../stores/shop.ts'
import { problemAt, send } from '../../wire/client.ts'
import { useJobWrite } from '../../wire/use-job-write.ts'
import { useWriteAs } from '../../wire/use-write.ts'
import AskField from './AskField.vue'
import { closingOf } from '@moray/core/job/closings'
import { answerWords, wrongSoFar, type RouteView } from './route-view.ts'

/** What one step asks; Enter closes it. Shut, it says why; done, it shows what was answered. */
const props = defineProps<{ job: ShownJob; view: RouteView; step: StepProgress }>()
const emit = defineEmits<{ next: [] }>()
const shop = useShop()
const write = useJobWrite()
const back = useJobWrite()

const definition = computed(() => props.step.step)
const closing = computed(() => closingOf(props.job.closings, definition.value.id))
const client = useQueryClient()
const draft = computed(() => props.job.drafts.find((d) => d.step === definition.value.id))
type Raw = Record<string, boolean | number | string | undefined>
const answers = ref<Raw>({ ...draft.value?.answers })
const given = computed(() =>
  Object.fromEntries(
    Object.entries(answers.value).filter((e): e is [string, boolean | number | string] => e[1] !== undefined),
  ),
)
const wrong = computed(() => wrongSoFar(props.job, definition.value, answers.value))

/** What is typed is kept on the server a moment later, so that an interruption, a reload or another screen finds it. */
let kept = JSON.stringify(given.value)
async function keep() {
  const now = JSON.stringify(given.value)
  if (now === kept || props.step.state === 'done') return
  kept = now
  const at = new Date().toISOString()
  const mine = {
    step: definition.value.id,
    answers: given.value,
    begunAt: draft.value?.begunAt ?? at,
    by: '',
    at,
  }
  keepDrafts(client, props.job.id, (before) => {
    const others = before.filter((d) => d.step !== mine.step)
    return now === '{}' ? others : [...others, mine]
  })
  const body = { step: definition.value.id, answers: given.value }
  // a draft that does not get through is tried again with the next key; the step itself would say it
  await send(endpoints.keepDraft, { id: props.job.id }, body, shop.personId, crypto.randomUUID()).catch(
    () => (kept = ''),
  )
}
// a panel that is gone tries nothing again: by then another step, or another job, may stand in the store
let gone = false
const keepSoon = useDebounceFn(() => (gone ? Promise.resolve() : keep()), 900)
watch(given, () => void keepSoon())
onBeforeUnmount(() => {
  void keep()
  gone = true
})

const frame = useTemplateRef<HTMLElement>('frame')
/** The first field that is still empty; when all are filled, the button that closes the step. */
const focusDue = useLateFocus(() => {
  const fields = frame.value?.querySelectorAll<HTMLInputElement>('.ask input[type=text]') ?? []
  return [...fields].find((f) => f.value === '') ?? frame.value?.querySelector<HTMLElement>('.p-button.lamp')
})
onMounted(focusDue)

/** What the server said was about the answers that were sent; about others it says nothing. */
const sent = ref('')
const error = computed(() => (sent.value === JSON.stringify(given.value) ? write.error.value : null))
async function close(departure?: { reason: string }): Promise<boolean> {
  sent.value = JSON.stringify(given.value)
  const body = { step: definition.value.id, answers: given.value, ...(departure ? { departure } : {}) }
  // what is on its way as the step itself needs no draft
  kept = sent.value
  const reply = await write.send(endpoints.closeStep, { id: props.job.id }, body)
  if (!reply) {
    kept = ''
    return false
  }
  departing.value = false
  emit('next')
  return true
}
const departing = ref(false)
const lead = ref('')
const canDepart = computed(
  () =>
    !definition.value.firm &&
    (props.step.state === 'blocked' ||
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

const PAGES = {
  setting: ['setting', 'To Setting'],
  row: ['parts?view=row', 'To the row'],
  grades: ['parts?view=grades', 'To the grades'],
  estimate: ['parts?view=estimate', 'To the estimate'],
  faults: ['faults', 'To the fault finder'],
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
/** A pressure test runs from its first answer. */
const running = computed(() => {
  if (!definition.value.timed || !draft.value || props.step.state === 'done') return undefined
  const minutes = Math.max(
    0,
    Math.floor((now.value.getTime() - new Date(draft.value.begunAt).getTime()) / 60_000),
  )
  const hold = props.job.sheet.bench.leak.holdMin
  return { minutes, left: Math.max(0, hold - minutes) }
})
const CRUSH = computed(() => props.job.facts['crush.stack'])
</script>

<template>
  <div ref="frame">
    <h2>{{ definition.what }}</h2>
    <p class="why">{{ definition.why }}</p>
    <p v-if="definition.caution" class="caution"><strong>Caution.</strong> {{ definition.caution }}</p>
    <p v-if="running" class="running" role="timer">
      <span class="live mono">{{ running.minutes }} min</span>
      <span>{{
        running.left > 0 ? `running; hold ${running.left} min more` : 'held as long as the sheet asks'
      }}</span>
    </p>

    <template v-if="step.state === 'done'">
      <template v-if="closing">
        <p class="small soft">Done by {{ closing.by }}, {{ new Date(closing.at).toLocaleString('en-GB') }}</p>
        <div v-if="closing.departedFrom.length" class="departed">
          <p>
            <strong>Gone on all the same:</strong> {{ closing.reason
            }}<template v-if="closing.lead">; agreed by {{ closing.lead }}</template>
          </p>
          <p v-for="d in closing.departedFrom" :key="d" class="small">{{ d }}</p>
        </div>
        <dl class="answers">
          <template v-for="a in definition.asks" :key="a.fact">
            <div v-if="closing.answers[a.fact] !== undefined">
              <dt>{{ a.label }}</dt>
              <dd>{{ answerWords(a, closing.answers[a.fact]!, closing.texts[a.fact]) }}</dd>
            </div>
          </template>
        </dl>
        <div class="actions">
          <Button label="To what is due" class="lamp" @click="$emit('next')" />
          <Button label="Take it back" class="quiet" @click="taking = true" />
        </div>
      </template>
      <template v-else>
        <p>Done: what it waited for is there.</p>
        <div class="actions">
          <Button label="To what is due" class="lamp" @click="$emit('next')" />
          <RouterLink v-if="page" :to="`/jobs/${job.id}/${page[0]}`">{{ page[1] }}</RouterLink>
        </div>
      </template>
    </template>

    <form v-else @submit.prevent="close()">
      <div v-if="step.state === 'blocked'" class="shut" role="status">
        <p class="head"><strong>Shut.</strong></p>
        <p v-for="w in step.why" :key="w">{{ w }}</p>
      </div>
      <RouterLink
        v-if="page"
        :to="`/jobs/${job.id}/${page[0]}`"
        class="page-link"
        :class="{ lamp: step.state === 'blocked' }"
        >{{ page[1] }}</RouterLink
      >
      <div class="asks">
        <div v-for="a in definition.asks" :key="a.fact" class="ask">
          <AskField
            v-model="answers[a.fact]"
            :ask="a"
            :wrong="wrong[a.fact]"
            :error="wrong[a.fact] ? undefined : problemAt(error, `answers.${a.fact}`)"
          />
        </div>
      </div>
      <p v-if="definition.id === 'crush' && CRUSH !== undefined" class="small">
        Stack for the wanted crush: <span class="mono">{{ Number(CRUSH).toFixed(3) }} mm</span>
      </p>
      <p v-if="error && !error.fields.some((f) => f.path.startsWith('answers.'))" class="fault" role="alert">
        {{ error.message.replace(/^step: /, '') }}
      </p>
      <div class="actions">
        <Button
          type="submit"
          :label="definition.asks.length ? 'Done, next step' : 'Next step'"
          class="lamp"
          :disabled="write.busy.value || step.state === 'blocked'"
        />
        <Button
          v-if="canDepart"
          type="button"
          label="Go on all the same"
          class="quiet"
          @click="departing = true"
        />
      </div>
      <p v-if="definition.firm" class="small soft">Nobody departs from this step: it could hurt somebody.</p>
    </form>

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
      v-model:open="taking"
      title="Take the step back"
      :explain="
        falling
          ? `With it ${falling} later step${falling > 1 ? 's are' : ' is'} taken back, to be done again. All of it stays in the record.`
          : 'It is done again; what was answered stays in the record.'
      "
      action="Take it back"
      :busy="back.busy.value"
      :error="back.error.value?.message"
      @give="takeBack"
    />
  </div>
</template>

<style scoped>
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
.asks {
  display: grid;
  gap: 0.7rem;
  margin: 0.5rem 0;
}
.ask {
  display: grid;
  gap: 0.25rem;
  min-width: 0;
}
.shut {
  border: 2px solid var(--ink);
  padding: 0.6rem 0.8rem;
  margin-bottom: 0.6rem;
  background: var(--sheet);
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
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin: 0.8rem 0;
  align-items: center;
}
.running {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
  border-left: 6px solid var(--lamp);
  padding-left: 0.7rem;
  margin-bottom: 0.7rem;
}
.departed {
  border-left: 4px solid var(--ink);
  padding-left: 0.7rem;
  margin: 0.5rem 0;
}
.answers {
  margin: 0.5rem 0;
}
.answers div {
  border-bottom: 1px solid var(--line);
  padding: 0.2rem 0;
}
dt {
  font-size: var(--t-small);
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.kit {
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
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
