<script setup lang="ts">
import type { AcceptBuild, TakePlan, WithdrawAcceptance } from '@moray/contract/requests/setting'
import type { AddFigure } from '@moray/contract/requests/sheets'
import { isSettable, notIn } from '@moray/core/setting/assess'
import { findMeasured } from '@moray/core/setting/measured'
import { unitOf } from '@moray/core/setting/measures'
import type { ShimPlan } from '@moray/core/setting/shim-solve'
import Button from 'primevue/button'
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { RouterLink } from 'vue-router'
import ConfirmDialog from '../../ui/ConfirmDialog.vue'
import ReasonDialog from '../../ui/ReasonDialog.vue'
import { useLateFocus } from '../../ui/late-focus.ts'
import { useUnits } from '../../ui/units.ts'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import { uncheckedText } from '../reading-words.ts'
import { buildName, decimalsOf, shownMeasures } from '../setting-view.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import BuildWarnings from './decide/BuildWarnings.vue'
import PlanSearch from './decide/PlanSearch.vue'
import MissingFigures from './MissingFigures.vue'

/** The decision at the end of a round: accept as built, or the next stacks out of the drawer. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  writable: boolean
  /** Whoever has a code signs with it. */
  signs: boolean
  accepting: WriteState
  withdrawing: WriteState
  planning: WriteState
  figures: WriteState
}>()
const emit = defineEmits<{
  preview: [plan: ShimPlan | null]
  plans: [plans: ShimPlan[]]
  go: [at: string | undefined, build?: number]
  accept: [build: AcceptBuild, answered: Answered]
  withdraw: [build: WithdrawAcceptance, answered: Answered]
  take: [plan: TakePlan, answered?: Answered]
  figure: [figure: AddFigure, answered: Answered]
}>()

const units = useUnits()
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
  state.value.due.flatMap((d) =>
    d.kind === 'reading' ? [findMeasured(props.job.sheet, d.measure)?.label ?? d.measure] : [],
  ),
)
/** The windows are met, and better stacks are looked for all the same. */
const again = ref(false)
const solving = computed(
  () =>
    props.writable &&
    state.value.decidable &&
    shimmed.value &&
    (again.value || !(accepted.value || state.value.allIn)),
)
/** It was opened again after it was accepted, or was accepted before it was bare: what was parted since is read once more. */
const outdated = computed(
  () => props.writable && accepted.value !== null && props.job.facts['setting.accepted'] !== true,
)
const frame = useTemplateRef<HTMLElement>('frame')
/** To what is said, never to the act: the rhythm of Enter after each reading must not decide anything. */
const focusDue = useLateFocus(() => frame.value?.querySelector<HTMLElement>('h2'))
onMounted(() => focusDue())

const sure = ref(false)
const asking = ref(false)
function accept(reason?: string) {
  const body = { build: props.build.number, ...(reason ? { reason } : {}) }
  emit('accept', body, (done) => {
    if (!done) return
    asking.value = false
    sure.value = false
    again.value = false
    // the dialog leaves the focus nowhere: on to what is said now
    focusDue()
  })
}
const reopening = ref(false)
function withdraw(reason: string) {
  emit('withdraw', { build: props.build.number, reason }, (done) => {
    if (!done) return
    reopening.value = false
    focusDue()
  })
}
</script>

<template>
  <div ref="frame">
    <h2 tabindex="-1">{{ accepted ? 'Accepted as built' : state.decidable ? 'Decide' : 'Not yet' }}</h2>
    <template v-if="outdated">
      <p class="lead">Opened again since: what was parted is set anew, and read in a round of its own.</p>
      <p v-if="planning.error" class="fault" role="alert">{{ planning.error.message }}</p>
      <Button
        label="Read it anew"
        class="lamp"
        :disabled="planning.busy"
        @click="emit('take', { fromBuild: build.number, stacks: [] })"
      />
      <button type="button" class="texty" @click="reopening = true">Withdraw the acceptance</button>
    </template>
    <template v-else-if="!state.decidable">
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
        <button v-if="writable" type="button" class="texty" @click="reopening = true">
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
      <BuildWarnings v-if="writable && shimmed" :job="job" :build="build" />
      <p v-if="accepting.error && !asking" class="fault" role="alert">{{ accepting.error.message }}</p>

      <MissingFigures
        v-if="writable && !accepted && !state.allIn"
        :job="job"
        :paths="[]"
        ability="setting"
        title="What the next stacks still need"
        :write="figures"
        @figure="(f, answered) => emit('figure', f, answered)"
      />
      <p v-if="!shimmed && !accepted && !lacking" class="caution">
        Nothing that is set on this drive moves what is measured; it is judged by the readings alone.
      </p>

      <PlanSearch
        v-if="solving"
        :job="job"
        :build="build"
        :write="planning"
        @preview="(plan) => emit('preview', plan)"
        @plans="(plans) => emit('plans', plans)"
        @take="(plan, answered) => emit('take', plan, answered)"
        @answered="focusDue()"
      />
      <button
        v-if="writable"
        type="button"
        class="texty"
        :disabled="planning.busy"
        @click="emit('take', { fromBuild: build.number, stacks: [] })"
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
      :busy="accepting.busy"
      :error="accepting.error?.message"
      @yes="accept()"
    >
      <p>These stacks and readings stand in the record, and the route goes on from them.</p>
      <p v-if="signs">Signed with the code of your name: it is asked for now.</p>
      <ul class="small">
        <li v-for="m in shownMeasures(job.sheet, build)" :key="m.id">
          {{ m.label }}:
          <span class="mono">{{ units.of(unitOf(m)).both(state.measures[m.id]!.mean, decimalsOf(m)) }}</span>
        </li>
      </ul>
    </ConfirmDialog>
    <ReasonDialog
      v-model:open="reopening"
      title="Withdraw the acceptance"
      explain="The build is open again: readings and stacks can be set right. What was accepted stays in the record, with your reason."
      action="Withdraw it"
      :busy="withdrawing.busy"
      :error="withdrawing.error?.message"
      @give="withdraw"
    />
    <ReasonDialog
      v-model:open="asking"
      title="Accept although not in"
      :explain="`${open.join(', ')}: not in the window beyond doubt. Your reason stands in the record, with your name.`"
      action="Accept as built"
      :busy="accepting.busy"
      :error="accepting.error?.message"
      @give="accept"
    />
  </div>
</template>

<style scoped>
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
</style>
