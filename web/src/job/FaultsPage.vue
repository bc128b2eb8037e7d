<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { traitsOf } from '@moray/core/inspection/fault-drive'
import { onDrive } from '@moray/core/inspection/fault-rank'
import { seedTable } from '@moray/core/inspection/fault-history'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useJob } from './shown-job.ts'
import { rankOf } from './faults.ts'
import { useJobWrite } from '../writing/use-job-write.ts'

/** From what is found to what it may be, and what to look at next. */
const store = useJob()
const write = useJobWrite()
const job = computed(() => store.job!)
const work = job
const stateOf = (finding: string) => {
  const entry = work.value.findings.find((f) => f.finding === finding)
  return entry === undefined ? 'unknown' : entry.present ? 'there' : 'not'
}
const say = (finding: string, state: 'there' | 'not' | 'unknown') =>
  write.send(endpoints.sayFinding, { id: job.value.id }, { finding, state })
const rank = computed(() => rankOf(job.value))
const shown = computed(() => rank.value.causes.filter((c, i) => i < 3 || c.probability > 0.02).slice(0, 9))
const labelOf = (id: string) => seedTable.findings.find((f) => f.id === id)?.label.toLowerCase() ?? id
const shows = (id: string) =>
  seedTable.checks
    .find((c) => c.id === id)
    ?.shows.map(labelOf)
    .join('; ') ?? ''
const percent = (p: number) => (p < 0.01 ? '< 1 %' : `${Math.round(100 * p)} %`)
/** How much a check is expected to tell, in words: a bit is one yes-or-no question answered for good. */
const tells = (bits: number) =>
  bits > 0.5 ? 'says much' : bits > 0.2 ? 'says something' : bits > 0.05 ? 'says a little' : 'says little'
/** Findings and causes that can be on this drive, and what somebody has said already. */
const traits = computed(() => traitsOf(job.value.sheet))
const findings = computed(() => {
  const said = new Set(work.value.findings.map((f) => f.finding))
  const here = new Set(onDrive(seedTable.findings, traits.value).map((f) => f.id))
  return seedTable.findings.filter((f) => here.has(f.id) || said.has(f.id))
})
const causes = computed(() => onDrive(seedTable.causes, traits.value))

const cause = ref('')
const note = ref('')
async function itWas() {
  if (!cause.value) return
  const sent = { cause: cause.value, note: note.value }
  const reply = await write.send(
    endpoints.sayOutcome,
    { id: job.value.id },
    {
      cause: cause.value,
      ...(note.value.trim() ? { note: note.value.trim() } : {}),
    },
  )
  if (reply && cause.value === sent.cause && note.value === sent.note) {
    cause.value = ''
    note.value = ''
  }
}
const outcome = computed(() => work.value.outcome)
const causeLabel = (id: string) => seedTable.causes.find((c) => c.id === id)?.label ?? id
</script>

<template>
  <div class="faults">
    <section aria-label="Findings">
      <h2>What is found</h2>
      <ul class="findings">
        <li v-for="f in findings" :key="f.id" :class="stateOf(f.id)">
          <fieldset class="one-of">
            <legend>{{ f.label }}</legend>
            <label
              v-for="s in ['there', 'not', 'unknown'] as const"
              :key="s"
              :class="{
                on: stateOf(f.id) === s && s !== 'unknown',
                open: stateOf(f.id) === s && s === 'unknown',
              }"
            >
              <input
                type="radio"
                class="sr-only"
                :name="f.id"
                :checked="stateOf(f.id) === s"
                @change="say(f.id, s)"
              />
              {{ s === 'there' ? 'yes' : s === 'not' ? 'no' : '?' }}
            </label>
          </fieldset>
        </li>
      </ul>
    </section>
    <section class="causes" aria-label="Causes">
      <h2>Likely causes</h2>
      <p v-if="!work.findings.length" class="soft">Nothing is found yet. This is how common each cause is.</p>
      <ol>
        <li v-for="c in shown" :key="c.id">
          <span
            class="bar"
            :style="{ width: `${Math.max(1, 100 * c.probability)}%` }"
            aria-hidden="true"
          ></span>
          <span class="head"
            ><strong>{{ c.label }}</strong> <span class="mono big">{{ percent(c.probability) }}</span></span
          >
          <span v-if="c.speaksFor.length" class="small">for: {{ c.speaksFor.map(labelOf).join('; ') }}</span>
          <span v-if="c.speaksAgainst.length" class="small"
            >against: {{ c.speaksAgainst.map(labelOf).join('; ') }}</span
          >
          <span v-if="c.seenHere" class="small soft"
            >found here {{ c.seenHere }} time{{ c.seenHere > 1 ? 's' : '' }} before</span
          >
        </li>
      </ol>
    </section>
    <aside aria-label="Next">
      <h2>Next checks</h2>
      <ol class="checks">
        <li v-for="(c, i) in rank.nextChecks.slice(0, 5)" :key="c.id" :class="{ first: i === 0 }">
          <strong>{{ c.label }}</strong>
          <span class="small">About {{ c.minutes }} min, {{ tells(c.expectedBits) }}</span>
          <span class="small soft">shows: {{ shows(c.id) }}</span>
        </li>
      </ol>
      <section class="outcome" aria-label="What it was">
        <h2>What it was</h2>
        <p v-if="outcome">
          <strong>{{ causeLabel(outcome.cause) }}</strong
          ><template v-if="outcome.note">: {{ outcome.note }}</template>
          <span class="small soft"> {{ outcome.by }}</span>
        </p>
        <form class="entries" @submit.prevent="itWas">
          <label for="cause">{{ outcome ? 'It was something else' : 'What it turned out to be' }}</label>
          <select id="cause" v-model="cause">
            <option value="">choose</option>
            <option v-for="c in causes" :key="c.id" :value="c.id">{{ c.label }}</option>
          </select>
          <label for="note">Note</label>
          <input id="note" v-model="note" maxlength="300" />
          <Button type="submit" label="Save" class="quiet" :disabled="!cause || write.busy.value" />
        </form>
        <p class="small soft">
          {{ work.history.length }} faults of this shop are in the table; the next job starts with them.
        </p>
      </section>
      <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
    </aside>
  </div>
</template>

<style scoped>
.faults {
  display: grid;
  grid-template-columns: 22rem minmax(0, 1fr) 20rem;
  gap: 1.6rem;
  align-items: start;
}
h2 {
  margin-bottom: 0.4rem;
}
.findings {
  max-height: 74vh;
  overflow-y: auto;
}
.findings li {
  border-bottom: 1px solid var(--line);
}
.findings li.there {
  box-shadow: inset 5px 0 0 var(--ink);
  padding-left: 0.7rem;
}
.findings fieldset {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto auto;
  align-items: center;
}
.findings legend {
  float: left;
  padding-right: 0.6rem;
  font-size: var(--t-small);
}
.findings label {
  min-width: 44px;
  justify-content: center;
}
.findings label.open {
  font-weight: 700;
}
.causes li {
  position: relative;
  display: grid;
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--line);
}
.bar {
  height: 8px;
  background: var(--ink);
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  align-items: baseline;
}
.big {
  font-size: var(--t-title);
}
.checks li {
  display: grid;
  border-bottom: 1px solid var(--line);
  padding: 0.4rem 0;
}
.checks li.first {
  border-left: 6px solid var(--lamp);
  padding-left: 0.7rem;
}
.outcome {
  margin-top: 1.2rem;
}
form {
  display: grid;
  gap: 0.3rem;
  justify-items: start;
  margin: 0.4rem 0;
}
select,
input:not(.sr-only) {
  width: 100%;
}
@media (max-width: 1100px) {
  .faults {
    grid-template-columns: minmax(0, 1fr);
  }
  .findings {
    max-height: none;
  }
}
</style>
