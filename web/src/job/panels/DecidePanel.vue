<script setup lang="ts">
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import type { TakePlan } from '@moray/contract/requests/setting'
import { endpoints } from '@moray/contract/endpoints'
import { InputError } from '@moray/core/checks/input-error'
import { isCarrier, type Adjuster } from '@moray/core/drives/sheet'
import { plannedPieces } from '@moray/core/job/pieces'
import { changeableIn, isSettable, notIn } from '@moray/core/setting/assess'
import { settingMeasures, unitOf } from '@moray/core/setting/measures'
import { openingFor } from '@moray/core/route/opening'
import { learnedSolverInput, learnFrom } from '@moray/core/setting/learned'
import type { ShimSolveInput } from '@moray/core/setting/shim-problem'
import { FIT, type ShimPlan, type ShimSolveResult } from '@moray/core/setting/shim-solve'
import { useStorage } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { useLateFocus } from '../../ui/late-focus.ts'
import ConfirmDialog from '../../ui/ConfirmDialog.vue'
import ReasonDialog from '../../ui/ReasonDialog.vue'
import { useUnits } from '../../ui/units.ts'
import { useShop } from '../../stores/shop.ts'
import { useJob } from '../shown-job.ts'
import { asWireError } from '../../wire/client.ts'
import { useExperience } from '../../wire/queries.ts'
import { useJobWrite } from '../../writing/use-job-write.ts'
import { useCalc } from '../../workers/use-calc.ts'
import { turnedBetween, turnedText } from '@moray/core/setting/turned'
import { uncheckedText } from '../reading-words.ts'
import { buildName, decimalsOf, shownMeasures, stackThicknesses } from '../setting-view.ts'
import MissingFigures from './MissingFigures.vue'
import OrderAdvice from './OrderAdvice.vue'
import OwnStacks from './OwnStacks.vue'
import PlanCard from './PlanCard.vue'
import SuspectList from './SuspectList.vue'
import WhatIf from './WhatIf.vue'

/** The decision at the end of a round: accept as built, or the next stacks out of the drawer. */
const props = defineProps<{ job: ShownJob; build: ShownBuild; writable: boolean }>()
const emit = defineEmits<{
  preview: [plan: ShimPlan | null]
  /** All plans that can be chosen, the best first. */
  plans: [plans: ShimPlan[]]
  go: [at: string | undefined, build?: number]
  /** The next trial is built: on to it. */
  built: []
}>()

const store = useJob()
const units = useUnits()
const settable = (id: string) => props.job.sheet.adjusters.find((a) => a.id === id)!
const turned = (a: Adjuster, toMm: number) => turnedBetween(a, props.build.state.stacks[a.id]!, toMm)
const stackLabel = (id: string) => props.job.sheet.adjusters.find((a) => a.id === id)?.label ?? id
const taught = useExperience(
  () => props.job.sheetId,
  () => props.job.id,
)
const experience = computed(() => taught.taught?.experience ?? undefined)
const calc = useCalc()
const accept = useJobWrite()
const take = useJobWrite()

const state = computed(() => props.build.assessment)
const accepted = computed(() =>
  props.job.acceptance?.build === props.build.number ? props.job.acceptance : null,
)
/** A pattern is a witness before the build is accepted; after it, only a finding. */
const patternFirst = computed(() =>
  props.job.progress.steps.some(
    (s) => s.step.page === 'contact' && s.state !== 'done' && s.state !== 'not-here',
  ),
)
const shimmed = computed(() => isSettable(props.job.sheet))
/** The sheet does not say yet how stacks and measures answer one another. */
const lacking = computed(() =>
  props.job.sheet.adjusters.some(
    (a) => a.kind === 'shim' && a.moves !== undefined && (a.setBy ?? 'readings') === 'readings',
  ),
)
const open = computed(() => notIn(props.job.sheet, state.value, props.build.asked).map((m) => m.label))
/** Checks before measuring that nobody ticked: the verdict stands on readings that were taken without. */
const unchecked = computed(() =>
  shownMeasures(props.job.sheet, props.build).flatMap((m) => {
    const text = uncheckedText(props.build.readings.filter((r) => r.measure === m.id))
    return text ? [`${m.label}: ${text.charAt(0).toLowerCase()}${text.slice(1)}`] : []
  }),
)
const unread = computed(() =>
  state.value.due.flatMap((d) => (d.kind === 'reading' ? [labelOf(d.measure)] : [])),
)
const again = ref(false)
const solving = computed(
  () =>
    props.writable &&
    state.value.decidable &&
    shimmed.value &&
    (!accepted.value || again.value) &&
    (!state.value.allIn || again.value),
)

/**
 * What plans shall keep to: stacks that are left as they are, since their side stays closed; pieces of one stack at most, where fewer are wanted than
 * the sheet allows (0: as it allows); pieces that are left out, and whether only those of this case are taken. Kept in this browser.
 */
const wishes = useStorage(
  `moray.draft.${props.job.id}.${props.build.number}.wishes`,
  { kept: [] as string[], most: 0, left: [] as string[], ownOnly: false },
  undefined,
  { mergeDefaults: true },
)
const kept = computed(() => wishes.value.kept)
const toggled = (list: string[], id: string) =>
  list.includes(id) ? list.filter((k) => k !== id) : [...list, id]
const toggle = (id: string) => (wishes.value = { ...wishes.value, kept: toggled(kept.value, id) })
/** Leaves a piece out of the plans, or takes it in again: bent, too soiled, or wanted elsewhere. */
const leave = (id: string) => (wishes.value = { ...wishes.value, left: toggled(wishes.value.left, id) })
const leftOut = computed(() =>
  wishes.value.left.flatMap((id) => props.job.pieces.find((p) => p.id === id) ?? []),
)
/** The same in words, for whoever has not opened it. */
const mayUse = computed(() => {
  const { most, ownOnly } = wishes.value
  const stays = kept.value.map((id) => stackLabel(id).toLowerCase())
  return [
    stays.length ? `all stacks but ${stays.join(' and ')}` : 'any stack',
    most ? `${most} ${most === 1 ? 'piece' : 'pieces'} in each at most` : '',
    fromDrawer.value ? (ownOnly ? 'what came out of this case' : 'any piece') : '',
  ]
    .filter(Boolean)
    .join(', ')
})
const offered = computed(() =>
  props.job.pieces.filter(
    (p) => !wishes.value.left.includes(p.id) && (!wishes.value.ownOnly || p.origin === 'case'),
  ),
)
const reachable = computed(() => changeableIn(props.job.sheet, props.build.state))
/** What the sheet's hours come to for one stack alone. */
const minutes = (stack: string) => Math.round(openingFor(props.job.sheet, [stack]).minutes / 5) * 5
const carriers = computed(() => reachable.value.filter(isCarrier))
/** Pieces are asked for; where carriers alone are turned there is no drawer to look through. */
const fromDrawer = computed(() => carriers.value.length < reachable.value.length)
const result = ref<ShimSolveResult | null>(null)
const failure = ref('')
const chosen = ref(0)
const stopped = ref(false)
/** The best plan of a search that is still going on, or was stopped; and how much better one could be at most. */
const soFar = ref<{ plan: ShimPlan; gap: number } | null>(null)
watch(calc.progress, (p) => {
  if (p?.plan) soFar.value = { plan: p.plan, gap: p.gap ?? 1 }
})
/** This build and all before it: each has taught something about how the case answers. */
const builds = computed(() =>
  props.job.builds.filter((b) => b.number <= props.build.number).map((b) => b.state),
)
/** Builds that read as no shim could make them: worth more than any plan. */
const warnings = computed(() =>
  props.writable && state.value.decidable && shimmed.value
    ? (learnFrom(props.job.sheet, builds.value)?.warnings ?? [])
    : [],
)
const posed = computed((): { input: ShimSolveInput | null; why: string } => {
  // asked once it is known what earlier units have taught: two answers one after the other would only confuse
  if (!solving.value || !(taught.taught || taught.error)) return { input: null, why: '' }
  try {
    const pieces = offered.value.map(({ id, thicknessMm, count, cut }) => ({
      id,
      thicknessMm,
      count,
      ...(cut ? { cut } : {}),
    }))
    const free = reachable.value.map((a) => a.id).filter((id) => !kept.value.includes(id))
    if (!free.length)
      return { input: null, why: 'Every stack is left as it is: let at least one be changed.' }
    const input = learnedSolverInput(
      props.job.sheet,
      builds.value,
      pieces,
      kept.value.length ? free : undefined,
      experience.value,
    )
    const fewer = (l: ShimSolveInput['locations'][number]) =>
      wishes.value.most > 0 && !l.fixed && !l.stepMm
        ? { ...l, maxPieces: Math.min(l.maxPieces, wishes.value.most) }
        : l
    return { input: { ...input, locations: input.locations.map(fewer) }, why: '' }
  } catch (e) {
    if (e instanceof InputError) return { input: null, why: e.message }
    throw e
  }
})
const question = computed(() => posed.value.input)
/** Asked anew when the readings, the drawer or the choice of stacks have changed, not at every live event. */
const asked = computed(() => JSON.stringify(question.value))

async function solve() {
  if (!question.value) return
  const mine = asked.value
  result.value = null
  failure.value = ''
  stopped.value = false
  soFar.value = null
  chosen.value = 0
  try {
    const answer = await calc.run<ShimSolveResult>('shim-solve', question.value)
    if (mine !== asked.value) return
    if (answer === 'cancelled') stopped.value = true
    else {
      result.value = answer
      focusDue()
    }
  } catch (e) {
    failure.value = asWireError(e).message
  }
}
const frame = useTemplateRef<HTMLElement>('frame')
/** To what is said, never to the act: the rhythm of Enter after each reading must not decide anything. */
const focusDue = useLateFocus(() => frame.value?.querySelector<HTMLElement>('h2'))
onMounted(() => {
  focusDue()
  void solve()
})
watch(asked, solve)

const own = ref(false)
const supposing = ref(false)
/** Either is left to the plan that was looked at. */
function suppose(on: boolean, byHand: boolean) {
  supposing.value = on
  own.value = byHand
  idea.value = null
}
/** Stacks moved or put together by hand, while that is open. */
const idea = ref<ShimPlan | null>(null)
/** One place says what the drawing shows: a search that ends meanwhile must not put its plan over what somebody is moving. */
const shown = computed(() => {
  if (!solving.value) return null
  return supposing.value || own.value ? idea.value : (result.value?.plans[chosen.value] ?? null)
})
watch(shown, (plan) => emit('preview', plan))
watch(
  () => (solving.value && !supposing.value && !own.value ? (result.value?.plans ?? []) : []),
  (plans) => emit('plans', plans),
)
/** The plan that is about to be built: asked once. */
const building = ref<ShimPlan | null>(null)
const buildingOpen = computed({
  get: () => building.value !== null,
  set: (open) => !open && (building.value = null),
})
async function takePlan(plan: ShimPlan) {
  await send({
    fromBuild: props.build.number,
    stacks: Object.entries(plan.stacks)
      .filter(([id]) => !question.value?.locations.find((l) => l.id === id)?.fixed)
      .map(([location, s]) => {
        const a = settable(location)
        const pieces = plannedPieces(s)
        return isCarrier(a)
          ? { location, pieces, steps: turned(a, s.thicknessMm).steps }
          : { location, pieces }
      }),
  })
}
async function send(body: TakePlan) {
  const reply = await take.send(endpoints.takePlan, { id: props.job.id }, body)
  building.value = null
  if (reply) emit('built')
  // somebody else was quicker: show what the drawer holds now
  if (!reply && (take.error.value?.code === 'stock' || take.error.value?.code === 'stale-build'))
    await store.load()
}

const sure = ref(false)
const shop = useShop()
/** Whoever has a code signs with it. */
const signs = computed(() => shop.people.find((p) => p.id === shop.personId)?.coded === true)
const withdrawing = ref(false)
const withdraw = useJobWrite()
async function withdrawNow(reason: string) {
  const reply = await withdraw.send(
    endpoints.withdrawAcceptance,
    { id: props.job.id },
    { build: props.build.number, reason },
  )
  if (!reply) return
  withdrawing.value = false
  focusDue()
}
const asking = ref(false)
async function acceptNow(reason?: string) {
  const body = { build: props.build.number, ...(reason ? { reason } : {}) }
  const reply = await accept.send(endpoints.acceptBuild, { id: props.job.id }, body)
  if (!reply) return
  asking.value = false
  sure.value = false
  again.value = false
  // the dialog leaves the focus nowhere: on to what is said now
  focusDue()
}
/** Where the pieces of a plan come from: some lie in the case already. */
function piecesSaid(plan: ShimPlan): string {
  const ids = Object.values(plan.stacks).flatMap((s) => s.pieceIds)
  const ofDrawer = ids.filter((id) => props.job.pieces.find((p) => p.id === id)?.origin === 'drawer').length
  if (!ofDrawer) return 'All pieces come out of this case.'
  const rest = ids.length - ofDrawer
  return `${ofDrawer} of its pieces ${ofDrawer === 1 ? 'is' : 'are'} taken out of the drawer${rest ? `, ${rest} come out of this case` : ''}.`
}
const measureOf = (id: string) => settingMeasures(props.job.sheet).find((m) => m.id === id)
const labelOf = (id: string) => measureOf(id)?.label ?? id
const showOf = (id: string) => units.of(measureOf(id) ? unitOf(measureOf(id)!) : 'mm')
</script>

<template>
  <div ref="frame">
    <h2 tabindex="-1">{{ accepted ? 'Accepted as built' : state.decidable ? 'Decide' : 'Not yet' }}</h2>
    <template v-if="!state.decidable">
      <p>Some stacks or readings of this build are still missing.</p>
      <Button label="To the next one" class="lamp" @click="emit('go', undefined)" />
    </template>
    <template v-else>
      <div v-if="accepted" class="done">
        <p>
          {{ buildName(build) }}, accepted by {{ accepted.by
          }}{{ accepted.signed ? ', signed with the code of that name' : '' }}.
        </p>
        <p v-if="accepted.reason" class="caution">{{ accepted.reason }}</p>
        <RouterLink :to="`/jobs/${job.id}/route`" class="on">On with the route</RouterLink>
        <RouterLink :to="`/jobs/${job.id}/record`">Open the record</RouterLink>
        <Button
          v-if="writable && shimmed && !again"
          label="Go round again"
          class="quiet"
          @click="again = true"
        />
        <button v-if="writable" type="button" class="texty" @click="withdrawing = true">
          Withdraw the acceptance
        </button>
      </div>
      <template v-else-if="state.allIn">
        <p class="lead">Every window met, beyond doubt.</p>
        <p v-for="u in unchecked" :key="u" class="caution">{{ u }}.</p>
        <p v-if="patternFirst && writable">
          The contact pattern comes first: what is marked after this build is accepted is only a later
          finding.
        </p>
        <div class="actions">
          <RouterLink v-if="patternFirst && writable" :to="`/jobs/${job.id}/contact`" class="page-link lamp"
            >Read the contact pattern</RouterLink
          >
          <Button
            v-if="writable"
            label="Accept as built"
            :class="patternFirst ? 'quiet' : 'lamp'"
            @click="sure = true"
          />
          <Button
            v-if="writable && shimmed && !again"
            label="Look for better stacks"
            class="quiet"
            @click="again = true"
          />
        </div>
      </template>
      <template v-else-if="!state.complete && writable">
        <p class="lead">Not read yet: {{ unread.join(', ') }}. Until then its stack stays as it is.</p>
        <Button label="Read it now" class="lamp" @click="emit('go', undefined)" />
      </template>
      <p v-else class="lead">Not in its window beyond doubt: {{ open.join(', ') }}.</p>
      <p v-if="job.facts['setting.before-bare'] && build === job.builds.at(-1)" class="caution">
        Read before it was taken apart: that is how it was found. Build it up again and measure, and accept
        that.
      </p>
      <div v-if="warnings.length" class="fault warned" role="alert">
        <p v-for="w in warnings" :key="`${w.trial} ${w.quantity}`">
          <strong>{{ labelOf(w.quantity) }}</strong>, trial {{ w.trial }}: reads
          <span class="mono">{{ showOf(w.quantity).both(Math.abs(w.off), 3) }}</span>
          {{ w.off > 0 ? 'above' : 'below' }} what the builds before lead to expect.
        </p>
        <SuspectList :job="job" :build="build" />
      </div>
      <p v-if="solving && experience" class="small soft">
        {{ experience.units }} units of this drive stand behind how it is taken to answer.
      </p>
      <p v-if="solving && builds.length > 1" class="small soft">
        Learned from {{ builds.length }} builds: the plans below follow how this case has answered.
      </p>
      <p v-if="accept.error.value && !asking" class="fault" role="alert">{{ accept.error.value.message }}</p>

      <MissingFigures
        v-if="writable && !accepted && !state.allIn"
        :job="job"
        :paths="[]"
        ability="setting"
        title="What the next stacks still need"
      />
      <p v-if="!shimmed && !accepted && !lacking" class="caution">
        Nothing that is set on this drive moves what is measured; it is judged by the readings alone.
      </p>

      <section v-if="solving" class="solver" aria-label="Stacks out of the drawer">
        <details v-if="reachable.length > 1 || fromDrawer" class="wishes">
          <summary>Plans may use {{ mayUse }}</summary>
          <fieldset v-if="reachable.length > 1" class="one-of only">
            <legend class="small soft">May be changed; minutes to open and close its side</legend>
            <label v-for="o in reachable" :key="o.id" :class="{ on: !kept.includes(o.id) }">
              <input type="checkbox" class="sr-only" :checked="!kept.includes(o.id)" @change="toggle(o.id)" />
              {{ o.label.toLowerCase() }}
              <span v-if="minutes(o.id)" class="small minutes">{{ minutes(o.id) }} min</span>
            </label>
          </fieldset>
          <label v-if="fromDrawer" class="most small">
            Pieces in a stack
            <select v-model="wishes.most" class="plain-field">
              <option :value="0">as the sheet allows</option>
              <option v-for="n in [1, 2, 3]" :key="n" :value="n">{{ n }} at most</option>
            </select>
          </label>
          <label v-if="fromDrawer" class="most small">
            Pieces from
            <select v-model="wishes.ownOnly" class="plain-field">
              <option :value="false">drawer and case</option>
              <option :value="true">this case alone</option>
            </select>
          </label>
        </details>
        <p v-if="leftOut.length" class="small lefts">
          Left out:
          <button
            v-for="p in leftOut"
            :key="p.id"
            type="button"
            class="texty small left-out mono"
            :aria-label="`Take ${p.label} again`"
            @click="leave(p.id)"
          >
            {{ units.length(p.thicknessMm, 3) }} ×
          </button>
        </p>
        <div v-if="calc.progress.value" class="working" role="status">
          <p>
            Looking through the drawer: {{ calc.progress.value.stage }},
            {{ calc.progress.value.nodes.toLocaleString('en') }} looked at
          </p>
          <Button label="Stop" class="quiet" @click="calc.cancel()" />
        </div>
        <p v-else-if="stopped">
          Stopped. <button type="button" class="texty" @click="solve">Look again</button>
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
            :busy="take.busy.value"
            :fits="soFar.plan.probability >= FIT"
            @take="building = soFar.plan"
            @leave="leave"
          />
        </template>
        <p v-if="failure || posed.why" class="fault" role="alert">{{ failure || posed.why }}</p>
        <p v-if="take.error.value" class="fault" role="alert">{{ take.error.value.message }}</p>

        <template v-if="result && !supposing">
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
          <OrderAdvice
            v-if="result.status === 'no-fit' && fromDrawer"
            :suggestions="result.orderSuggestions ?? []"
          />
          <ol class="plans">
            <li v-for="(plan, i) in result.plans" :key="i">
              <PlanCard
                :job="job"
                :plan="plan"
                :current="stackThicknesses(build)"
                :rank="i + 1"
                :open="chosen === i"
                :busy="take.busy.value"
                :fits="result.status === 'fit'"
                @open="chosen = i"
                @take="building = plan"
                @leave="leave"
              />
            </li>
          </ol>
          <OrderAdvice
            v-if="result.status === 'fit' && result.orderSuggestions?.length"
            :suggestions="result.orderSuggestions"
          />
        </template>
        <button type="button" class="texty" :aria-expanded="supposing" @click="suppose(!supposing, false)">
          {{ supposing ? 'Leave what if' : 'What if: move a stack and see' }}
        </button>
        <WhatIf
          v-if="supposing && question"
          :job="job"
          :question="question"
          :busy="take.busy.value"
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
          :busy="take.busy.value"
          @preview="(p: ShimPlan | null) => (idea = p)"
          @take="(plan: ShimPlan) => (building = plan)"
        />
      </section>
      <button
        v-if="writable"
        type="button"
        class="texty"
        :disabled="take.busy.value"
        @click="send({ fromBuild: build.number, stacks: [] })"
      >
        Built up again with the same stacks: measure anew
      </button>
      <div v-if="writable && !accepted && !state.allIn" class="actions last">
        <Button label="Accept as built, with a reason" class="quiet" @click="asking = true" />
      </div>
    </template>
    <ConfirmDialog
      v-model:open="sure"
      :title="`Accept ${buildName(build).toLowerCase()} as built`"
      action="Accept as built"
      :busy="accept.busy.value"
      :error="accept.error.value?.message"
      @yes="acceptNow()"
    >
      <p>These stacks and readings stand in the record, and the route goes on from them.</p>
      <p v-if="signs">Signed with the code of your name: it is asked for now.</p>
      <ul class="small">
        <li v-for="m in shownMeasures(job.sheet, build)" :key="m.id">
          {{ m.label }}:
          <span class="mono">{{ showOf(m.id).both(state.measures[m.id]!.mean, decimalsOf(m)) }}</span>
        </li>
      </ul>
    </ConfirmDialog>
    <ConfirmDialog
      v-model:open="buildingOpen"
      title="Build these stacks"
      action="Build this"
      :busy="take.busy.value"
      @yes="building && takePlan(building)"
    >
      <p v-if="building && building.pieces">
        {{ piecesSaid(building) }} The next trial is then measured anew.
      </p>
      <p v-if="carriers.length">
        Turn from loose to tight, so that the thread's play lies on one side; out means one step further out,
        and back in. Lock it, and measure again after locking.
      </p>
      <ul v-if="building" class="small">
        <li v-for="(s, id) in building.stacks" :key="id">
          {{ stackLabel(String(id)) }}:
          <span class="mono">{{
            isCarrier(settable(String(id)))
              ? turnedText(turned(settable(String(id)), s.thicknessMm))
              : units.both(s.thicknessMm, 3)
          }}</span>
        </li>
      </ul>
    </ConfirmDialog>
    <ReasonDialog
      v-model:open="withdrawing"
      title="Withdraw the acceptance"
      explain="The build is open again: readings and stacks can be set right. What was accepted stays in the record, with your reason."
      action="Withdraw it"
      :busy="withdraw.busy.value"
      :error="withdraw.error.value?.message"
      @give="withdrawNow"
    />
    <ReasonDialog
      v-model:open="asking"
      title="Accept although not in"
      :explain="`${open.join(', ')}: not in the window beyond doubt. Your reason stands in the record, with your name.`"
      action="Accept as built"
      :busy="accept.busy.value"
      :error="accept.error.value?.message"
      @give="acceptNow"
    />
  </div>
</template>

<style scoped>
.wishes summary {
  min-height: 44px;
  padding: 0.6rem 0;
  cursor: pointer;
}
.lefts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
}
.left-out {
  margin-left: 0.6rem;
}
.on {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 0.9rem;
  background: var(--lamp);
  color: var(--lamp-ink);
  text-decoration: none;
  font-weight: 700;
}
h2 {
  margin-bottom: 0.4rem;
}
h2:focus {
  outline: none;
}
h3 {
  margin-top: 0.8rem;
}
.lead {
  font-size: var(--t-lead);
}
.done {
  display: grid;
  gap: 0.7rem;
  justify-items: start;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin: 0.8rem 0;
}
.texty {
  text-align: left;
  display: block;
}
.last {
  border-top: 1px solid var(--line);
  padding-top: 0.8rem;
}
.working {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.6rem;
  margin-top: 0.8rem;
}
.off {
  display: block;
}
.order li {
  display: flex;
  justify-content: space-between;
  border-bottom: 1px solid var(--line);
  padding: 0.4rem 0;
  align-items: baseline;
}
.minutes {
  margin-left: 0.5rem;
}
.most {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
}
.plans {
  margin-top: 0.6rem;
  display: grid;
  gap: 0.6rem;
}
</style>
