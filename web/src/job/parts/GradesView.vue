<script setup lang="ts">
import MissingFigures from '../panels/MissingFigures.vue'
import type { GradeEntry } from '@moray/core/job/record'
import type { ShownJob } from '../shown-job.ts'
import { ungraded } from '@moray/core/job/job-plan'
import { needsGrade, PART_KINDS, setOf, type Part } from '@moray/core/drives/parts'
import { criteria, GRADES, propose, type Grade } from '@moray/core/inspection/criteria'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import type { AddFigure } from '@moray/contract/requests/sheets'
import type { GivePartGrade } from '@moray/contract/requests/parts'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { useOwn } from '../../stores/own.ts'
import { readTyped } from '../../ui/both-units.ts'
import { useUnits } from '../../ui/units.ts'
import { suspectsOf } from '../faults.ts'

/** One part after the other: what is seen, what the rule proposes, what the technician decides, and why. */
const props = defineProps<{
  job: ShownJob
  /** Id of the part that is looked at; the first that is open when it is none. */
  at: string
  busy: boolean
  error: string
  figures: WriteState
}>()
const emit = defineEmits<{
  go: [part: string]
  give: [grade: GivePartGrade]
  figure: [figure: AddFigure, answered: Answered]
}>()
const own = useOwn()
const units = useUnits()
const allNew = computed(() => props.job.facts['school.seals'] === 'all')
/** What came off first; then what stays in and is looked at in place. */
const stays = computed(() => new Set(props.job.plan.stays.map((p) => p.id)))
const parts = computed(() => {
  const all = props.job.sheet.parts
  return [...all.filter((p) => !stays.value.has(p.id)), ...all.filter((p) => stays.value.has(p.id))]
})
/** What was found on receiving is looked at first. */
const suspected = computed(() => suspectsOf(props.job))
const gradeOf = (id: string): GradeEntry | undefined =>
  props.job.grades.find((g) => g.part === id && !g.superseded)
const isNewAnyhow = (p: Part) => !needsGrade(p, allNew.value) && !gradeOf(p.id)
const open = computed(() => ungraded(props.job, props.job.sheet, props.job.plan, allNew.value))
const part = computed(() => parts.value.find((p) => p.id === props.at) ?? open.value[0] ?? parts.value[0])

const seen = ref<string[]>([])
const measured = ref('')
const grade = ref<Grade | ''>('')
const reason = ref('')
const decided = ref(false)
const zones = computed(() => props.job.sheet.runoutLimits)
/** The narrowest limit first: nothing passes by a choice that nobody made. */
const zone = ref(
  zones.value.reduce<string | undefined>((a, b) => (tirOf(a) <= b.tirMm ? a : b.zone), undefined),
)
function tirOf(name: string | undefined): number {
  return zones.value.find((l) => l.zone === name)?.tirMm ?? Infinity
}
/** Undefined while the sheet has none: what is measured is kept, and held against nothing. */
const limit = computed(() => zones.value.find((l) => l.zone === zone.value)?.tirMm)
const wants = computed(() => (props.job.sheet.lacks ?? []).filter((l) => l.startsWith('runoutLimits.')))
const reading = computed(() => readTyped(measured.value, 'mm', 'length', own.first))
const proposal = computed(() =>
  part.value
    ? propose(part.value.kind, seen.value, {
        inSet: part.value.set !== undefined,
        ...(reading.value.state === 'value'
          ? {
              runoutMm: reading.value.value,
              ...(limit.value === undefined ? {} : { runoutLimitMm: limit.value }),
            }
          : {}),
      })
    : undefined,
)
watch(
  () => part.value?.id,
  () => {
    const before = part.value && gradeOf(part.value.id)
    seen.value = before?.seen ?? []
    measured.value = before?.measuredMm != null ? `${before.measuredMm} mm` : ''
    grade.value = before?.grade ?? ''
    reason.value = before?.reason ?? ''
    decided.value = before !== undefined
  },
  { immediate: true },
)
// the proposal fills the form until the technician has decided himself
watch(proposal, (p) => {
  if (decided.value) return
  grade.value = p?.grade ?? ''
  reason.value = p?.reason ?? ''
})
const departs = computed(() => proposal.value && grade.value && proposal.value.grade !== grade.value)
const together = computed(() =>
  part.value && grade.value === 'replace-set'
    ? setOf(parts.value, part.value.id).filter((p) => p.id !== part.value!.id)
    : [],
)
function give() {
  if (!part.value || !grade.value || reason.value.trim().length < 3) return
  emit('give', {
    part: part.value.id,
    grade: grade.value,
    reason: reason.value.trim(),
    seen: seen.value,
    ...(measured.value.trim()
      ? {
          measured: measured.value.trim(),
          ...(limit.value === undefined || zone.value === undefined ? {} : { zone: zone.value }),
        }
      : {}),
  })
}
</script>

<template>
  <div class="grades">
    <ol class="list" aria-label="Parts">
      <li v-for="p in parts" :key="p.id">
        <button
          type="button"
          :class="{ here: p === part }"
          :aria-current="p === part ? 'true' : undefined"
          @click="emit('go', p.id)"
        >
          <span class="name"
            >{{ p.name }}<span v-if="suspected.has(p.id)" class="small suspect"> suspected</span></span
          >
          <span class="small" :class="gradeOf(p.id) ? gradeOf(p.id)!.grade : 'soft'">{{
            gradeOf(p.id)
              ? GRADES[gradeOf(p.id)!.grade]
              : isNewAnyhow(p)
                ? 'new anyhow'
                : stays.has(p.id)
                  ? 'stays in'
                  : 'not graded'
          }}</span>
        </button>
      </li>
    </ol>
    <form v-if="part" class="form entries" @submit.prevent="give">
      <p class="small soft">
        {{ PART_KINDS[part.kind] }}<template v-if="part.set"> · sold as “{{ part.set }}”</template>
      </p>
      <h2>{{ part.name }}</h2>
      <p v-if="suspected.has(part.id)" class="suspect">
        Suspected on receiving: {{ suspected.get(part.id)!.toLowerCase() }}.
      </p>
      <fieldset class="seen">
        <legend>Look and feel for</legend>
        <label v-for="c in criteria[part.kind]" :key="c.id" :class="{ on: seen.includes(c.id) }">
          <input v-model="seen" type="checkbox" :value="c.id" class="sr-only" /> {{ c.label }}
        </label>
      </fieldset>
      <div v-if="part.kind === 'shaft' || part.kind === 'gear'" class="line">
        <fieldset v-if="zones.length" class="one-of">
          <legend>Runout measured at</legend>
          <label v-for="z in zones" :key="z.zone" :class="{ on: zone === z.zone }">
            <input v-model="zone" type="radio" name="zone" :value="z.zone" class="sr-only" />
            {{ z.zone.toLowerCase() }}, limit {{ units.both(z.tirMm) }}
          </label>
        </fieldset>
        <label for="runout" :class="{ 'sr-only': zones.length > 0 }"
          >Runout{{
            limit === undefined ? ', no limit on the sheet yet' : `, limit ${units.both(limit)}`
          }}</label
        >
        <input id="runout" v-model="measured" type="text" autocomplete="off" placeholder="12h · .12" />
        <span class="small mono">{{
          reading.state === 'value' ? reading.shown : reading.state === 'not' ? reading.why : ''
        }}</span>
      </div>
      <MissingFigures
        v-if="(part.kind === 'shaft' || part.kind === 'gear') && wants.length"
        :job="job"
        :paths="wants"
        :write="figures"
        @figure="(f, answered) => emit('figure', f, answered)"
      />
      <p v-if="proposal" class="proposal">
        Proposed: <strong>{{ GRADES[proposal.grade] }}</strong>, {{ proposal.reason }}
      </p>
      <p v-else class="soft">Tap what you see; the rule proposes a grade. You decide.</p>
      <fieldset class="one-of">
        <legend>Your grade</legend>
        <label v-for="(word, g) in GRADES" :key="g" :class="{ on: grade === g }">
          <input
            v-model="grade"
            type="radio"
            name="grade"
            :value="g"
            class="sr-only"
            @change="decided = true"
          />
          {{ word }}
        </label>
      </fieldset>
      <p v-if="departs" class="small">That departs from the proposal; your reason stands beside it.</p>
      <p v-if="together.length" class="small">
        With it goes {{ together.map((p) => p.name.toLowerCase()).join(', ') }}: one set.
      </p>
      <div class="line">
        <label for="why">Reason</label>
        <input
          id="why"
          v-model="reason"
          type="text"
          maxlength="300"
          autocomplete="off"
          @input="decided = true"
        />
      </div>
      <slot name="pictures" :part="part.id" />
      <p v-if="error" class="fault" role="alert">{{ error }}</p>
      <Button
        type="submit"
        :label="open.length > 1 || !gradeOf(part.id) ? 'Grade it, next part' : 'Grade it'"
        class="lamp"
        :disabled="!grade || reason.trim().length < 3 || busy"
      />
      <ul v-if="job.grades.some((g) => g.part === part!.id && g.superseded)" class="older small">
        <li v-for="g in job.grades.filter((x) => x.part === part!.id && x.superseded)" :key="g.id">
          <s>{{ GRADES[g.grade] }}</s>, {{ g.reason }} ({{ g.by }})
        </li>
      </ul>
    </form>
  </div>
</template>

<style scoped>
.grades {
  display: grid;
  grid-template-columns: 20rem minmax(0, 1fr);
  gap: 1.6rem;
  align-items: start;
}
.list {
  border-top: 1px solid var(--line);
  max-height: 72vh;
  overflow-y: auto;
}
.list button {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--line);
  width: 100%;
  min-height: 44px;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  text-align: left;
  padding: 0.2rem 0.5rem;
  cursor: pointer;
}
.list button:hover {
  background: var(--lamp-soft);
}
.list .here {
  box-shadow: inset 5px 0 0 var(--lamp);
  background: var(--sheet);
}
.suspect {
  border-bottom: 3px solid var(--lamp);
}
.replace,
.replace-set {
  color: var(--out);
  font-weight: 700;
}
.dress,
.send-out {
  color: var(--close);
  font-weight: 700;
}
.form {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
}
.form h2 {
  font-size: var(--t-live);
}
.seen {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.seen legend,
.one-of legend,
.line label {
  font-weight: 700;
  margin-bottom: 0.2rem;
}
.seen label {
  border: 1px solid var(--line-strong);
  min-height: 48px;
  display: inline-flex;
  align-items: center;
  padding: 0.2rem 0.8rem;
  cursor: pointer;
}
.seen label.on {
  background: var(--ink);
  color: var(--paper);
}
.seen label:focus-within {
  outline: 3px solid var(--focus);
}
.proposal {
  border-left: 4px solid var(--ink);
  padding-left: 0.7rem;
}
.line {
  display: grid;
  width: min(100%, 34rem);
}
.line input:not(.sr-only) {
  font-size: var(--t-lead);
}
@media (max-width: 900px) {
  .grades {
    grid-template-columns: minmax(0, 1fr);
  }
  /* what is graded now comes before the list of what else is there */
  .list {
    max-height: none;
    order: 1;
  }
}
</style>
