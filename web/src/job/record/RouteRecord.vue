<script setup lang="ts">
import { CHOICES, STOP_ENDS } from '@moray/core/job/decision'
import type { ShownJob } from '../shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import { counted } from '@moray/core/job/closings'
import { GRADES } from '@moray/core/inspection/criteria'
import { seedTable } from '@moray/core/inspection/fault-history'
import { isOver, type ClosingRecord } from '@moray/core/job/record'
import { pathOf } from '@moray/contract/endpoint'
import { schools } from '@moray/core/route/schools'
import { showTime } from '../../ui/times.ts'
import { computed } from 'vue'
import { useUnits } from '../../ui/units.ts'
import { answerWords, askedOf } from '../route/route-view.ts'
import ScopeRecord from './ScopeRecord.vue'

/** What the route leaves in the record: findings and what it was, grades, what was decided, every step with its answers. */
const props = defineProps<{
  job: ShownJob
  /** Closings with the words in which they were asked; null until they are here. */
  closings: ClosingRecord[] | null
}>()
const at = showTime
const units = useUnits()
const work = computed(() => props.job)
const stepOf = (id: string) => props.job.route.steps.find((s) => s.id === id)
/** Until the closings with their own words are here, those of today. */
const steps = computed((): ClosingRecord[] =>
  (props.closings ?? props.job.closings.map((c) => ({ ...c, asked: null }))).map((c) => ({
    ...c,
    asked: c.asked ?? askedOf(stepOf(c.step)),
  })),
)
/** When the job was handed over, where it is. */
const handedOverAt = computed(() =>
  isOver(work.value.state)
    ? counted(work.value.closings).findLast((c) => stepOf(c.step)?.role === 'hands-over')?.at
    : undefined,
)
const fileOf = (hash: string) => pathOf(endpoints.file, { hash })
const nameOf = (part: string) => props.job.sheet.parts.find((p) => p.id === part)?.name ?? part
/** Parts that go back as they are need no line each. */
const graded = computed(() =>
  work.value.grades.filter((g) => !['keep', 'keep-same'].includes(g.grade) || g.superseded),
)
const kept = computed(() => work.value.grades.length - graded.value.length)
const decided = computed(() => work.value.estimates.filter((e) => e.approval).at(-1))
const findingLabel = (id: string) => seedTable.findings.find((f) => f.id === id)?.label ?? id
const causeLabel = (id: string) => seedTable.causes.find((c) => c.id === id)?.label ?? id
const schoolLabel = (id: string, choice: string) => {
  const school = schools.find((s) => s.id === id)
  return `${school?.question ?? id}: ${school?.options.find((o) => o.value === choice)?.label ?? choice}`
}
/** The schools that the closed steps were done by. */
const followed = computed(() => {
  const ids = new Set(counted(work.value.closings).flatMap((s) => stepOf(s.step)?.school ?? []))
  return [...ids].map((id) => schoolLabel(id, String(work.value.facts[`school.${id}`])))
})
const answersOf = (s: ClosingRecord) =>
  (s.asked?.asks ?? []).flatMap((a) =>
    s.answers[a.fact] === undefined
      ? []
      : [`${a.label}: ${answerWords(a, s.answers[a.fact]!, s.texts[a.fact])}`],
  )
</script>

<template>
  <ScopeRecord :job="job" />
  <section v-if="work.findings.length || work.outcome" aria-label="Findings">
    <h2>Found</h2>
    <p v-if="work.findings.length">
      {{
        work.findings
          .filter((f) => f.present)
          .map((f) => findingLabel(f.finding))
          .join('; ')
      }}<template v-if="work.findings.some((f) => !f.present)"
        >. Not there:
        {{
          work.findings
            .filter((f) => !f.present)
            .map((f) => findingLabel(f.finding).toLowerCase())
            .join('; ')
        }}</template
      >.
    </p>
    <p v-if="work.outcome">
      <strong>It was: {{ causeLabel(work.outcome.cause) }}</strong
      ><template v-if="work.outcome.note">. {{ work.outcome.note }}</template> {{ ' '
      }}<span class="small soft">{{ work.outcome.by }}</span>
    </p>
  </section>
  <section v-if="work.grades.length" aria-label="Parts">
    <h2>Parts</h2>
    <p v-if="kept" class="small soft">{{ kept }} parts looked at and kept.</p>
    <table class="ledger fine" v-if="graded.length">
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Grade</th>
          <th scope="col">Reason</th>
          <th scope="col">By</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="g in graded" :key="g.id" :class="{ gone: g.superseded }">
          <td>{{ nameOf(g.part) }}</td>
          <td>
            {{ GRADES[g.grade]
            }}<template v-if="g.proposed && g.proposed !== g.grade">
              (proposed: {{ GRADES[g.proposed] }})</template
            >
          </td>
          <td>
            {{ g.reason
            }}<template v-if="g.measuredMm !== null"> · {{ units.both(g.measuredMm, 3) }}</template>
          </td>
          <td>{{ g.by }}, {{ at(g.at) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="decided">
      <strong>{{ decided.approval!.customer }}: {{ CHOICES[decided.approval!.choice] }}</strong>,
      {{ decided.approval!.how }}; {{ decided.body.order.map((r) => r.name).join(', ') }}.
      <template v-if="decided.approval!.ends">It is {{ STOP_ENDS[decided.approval!.ends] }}.</template>
      <template v-if="decided.approval!.kept?.length"
        >Kept: {{ decided.approval!.kept.map(nameOf).join(', ') }}.</template
      >
    </p>
  </section>
  <section v-if="steps.length" aria-label="Steps">
    <h2>Steps</h2>
    <table class="ledger fine">
      <thead>
        <tr>
          <th scope="col">Step</th>
          <th scope="col">Answers</th>
          <th scope="col">By</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="s in steps" :key="s.id" :class="{ gone: s.takenBack }">
          <td>{{ s.asked?.what ?? s.step }}</td>
          <td>
            <span v-for="a in answersOf(s)" :key="a" class="answer">{{ a }}</span>
            <span v-if="s.departedFrom.length" class="answer"
              ><strong>{{ s.undone ? 'Left undone' : 'Gone on all the same' }}: {{ s.reason }}</strong
              ><template v-if="s.lead">, agreed by {{ s.lead }}</template> ({{
                s.departedFrom.join(' ')
              }})</span
            >
            <span v-if="s.takenBack" class="answer keep"
              >{{
                s.takenBack.replacedBy
                  ? handedOverAt && s.takenBack.at > handedOverAt
                    ? 'corrected after the job was over'
                    : 'corrected'
                  : s.takenBack.at === s.at
                    ? 'attempt, does not count'
                    : 'taken back'
              }}: {{ s.takenBack.reason }} ({{ s.takenBack.by }})</span
            >
          </td>
          <td>{{ s.by }}, {{ at(s.at) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="followed.length" class="small">Done by: {{ followed.join('; ') }}.</p>
    <p v-for="s in work.schools" :key="s.school" class="small">
      {{ schoolLabel(s.school, s.choice) }}: on this job, {{ s.reason }}
    </p>
  </section>
  <section v-if="work.attachments.length" aria-label="Pictures">
    <h2>Pictures</h2>
    <ul class="pictures">
      <li v-for="a in work.attachments" :key="a.id">
        <a :href="fileOf(a.hash)" target="_blank" rel="noopener"
          ><img :src="fileOf(a.hash)" :alt="`${a.subject} ${a.subjectId}`" loading="lazy"
        /></a>
        <span class="small soft">{{ stepOf(a.subjectId)?.what ?? nameOf(a.subjectId) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-top: 1.4rem;
  overflow-x: auto;
}
.answer {
  display: block;
}
tr.gone td:first-child,
tr.gone .answer:not(.keep) {
  text-decoration: line-through;
}
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
}
.pictures li {
  width: 11rem;
}
.pictures img {
  width: 100%;
  height: 8rem;
  object-fit: cover;
  border: 1px solid var(--line-strong);
}
</style>
