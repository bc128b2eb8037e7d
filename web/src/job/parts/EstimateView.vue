<script setup lang="ts">
import type { ApprovalChoice, StopEnd } from '@moray/core/job/record'
import type { ShownJob } from '../shown-job.ts'
import type { MakeEstimate, RecordApproval } from '@moray/contract/requests/parts'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { CHOICES, keepable, STOP_ENDS, stopEnds, usuallyKept } from '@moray/core/job/decision'
import { isStale } from '@moray/core/job/estimates'
import OneOf from '../../ui/OneOf.vue'
import { readFigure } from '../../ui/figures.ts'
import { moneyOrUnknown } from '../../ui/money.ts'
import { showTime } from '../../ui/times.ts'

/** What has to be bought and why, what each way costs, and what the customer says to it. */
const props = defineProps<{
  job: ShownJob
  busy: boolean
  /** What the server has against the estimate, or against the decision. */
  error: string
  decisionError: string
}>()
const emit = defineEmits<{ make: [terms: MakeEstimate]; decide: [decision: RecordApproval] }>()
const rules = computed(() => props.job.ways.rules)
const newest = computed(() => props.job.estimates.at(-1))
/** What the shop has not said yet is asked here; nothing is put in for it. */
const typed = (v: number | null | undefined) => (v == null ? '' : String(v))
const rate = ref(typed(newest.value?.body.rate ?? rules.value.rate))
const consumables = ref(typed(newest.value?.body.consumables ?? rules.value.consumables))
const extra = ref(String(newest.value?.body.extraHours ?? 0))
const read = computed(() => ({
  rate: readFigure(rate.value, { max: 100_000 }),
  consumables: readFigure(consumables.value),
  extra: readFigure(extra.value, { max: 1000, empty: 0 }),
}))
/** What is wrong with the figures is said once somebody wants the estimate. */
const tried = ref(false)
function make() {
  const { rate: r, consumables: c, extra: e } = read.value
  tried.value = r.value === undefined || c.value === undefined || e.value === undefined
  if (r.value === undefined || c.value === undefined || e.value === undefined) return
  const body = { rate: r.value, consumables: c.value, extraHours: e.value }
  emit('make', body)
}
const money = (v: number | undefined) => moneyOrUnknown(v, rules.value.currency)
const days = (n: number | undefined) =>
  n === undefined ? 'not known' : n === 0 ? 'none' : n === 1 ? '1 day' : `${n} days`
const inCurrency = computed(() => (rules.value.currency ? `${rules.value.currency} ` : ''))
/** Of a rebuild whose parts have prices that nobody knows, only the least is known. */
const least = (o: { id: string }) => (o.id === 'rebuild' && newest.value?.body.unpriced ? 'at least ' : '')

/** Grades given since: the estimate no longer says what is known. */
const stale = computed(() => !!newest.value && isStale(newest.value, props.job.grades))
const customer = ref(props.job.owner)
const how = ref('')
function record() {
  if (!newest.value) return
  emit('decide', {
    estimateId: newest.value.id,
    choice: choice.value,
    customer: customer.value.trim(),
    how: how.value.trim(),
    ...(choice.value === 'stop' ? { ends: end.value } : {}),
    ...(choice.value === 'exchange' || choice.value === 'used' ? { kept: kept.value } : {}),
  })
}
/** What the customer can choose: not what safety forbids. */
const offered = computed((): ApprovalChoice[] => [
  ...(newest.value?.body.options.filter((o) => !o.forbidden).map((o) => o.id) ?? []),
  'stop',
])
/** In what it ends where it is stopped, the usual end first. */
const ends = computed(() => stopEnds(props.job.plan.scope, props.job.work.state))
const pickedEnd = ref<StopEnd>()
const end = computed({
  get: () => (pickedEnd.value && ends.value.includes(pickedEnd.value) ? pickedEnd.value : ends.value[0]!),
  set: (e) => (pickedEnd.value = e),
})
/** What goes over to the unit that takes its place. */
const canBeKept = computed(() => keepable(props.job.sheet, props.job.work.state))
const pickedKept = ref<string[]>()
const kept = computed({
  get: () => pickedKept.value ?? usuallyKept(canBeKept.value),
  set: (ids) => (pickedKept.value = ids),
})
const namesOf = (ids: readonly string[]) =>
  ids.map((id) => props.job.sheet.parts.find((p) => p.id === id)?.name ?? id).join(', ')
const picked = ref<ApprovalChoice>('rebuild')
const choice = computed({
  get: () => (offered.value.includes(picked.value) ? picked.value : offered.value[0]!),
  set: (c) => (picked.value = c),
})
</script>

<template>
  <div class="estimate entries">
    <form class="terms" @submit.prevent="make">
      <label
        >Labour, {{ inCurrency }}an hour <input v-model="rate" inputmode="decimal" />
        <span v-if="tried && read.rate.why" class="bad" role="alert">{{ read.rate.why }}</span></label
      >
      <label
        >Consumables{{ rules.currency ? `, ${rules.currency}` : '' }}
        <input v-model="consumables" inputmode="decimal" />
        <span v-if="tried && read.consumables.why" class="bad" role="alert">{{
          read.consumables.why
        }}</span></label
      >
      <label
        >Hours beyond the sheet <input v-model="extra" inputmode="decimal" />
        <span v-if="tried && read.extra.why" class="bad" role="alert">{{ read.extra.why }}</span></label
      >
      <Button
        type="submit"
        :label="newest ? 'Make it anew' : 'Make the estimate'"
        :class="stale || !newest ? 'lamp' : 'quiet'"
        :disabled="busy"
      />
    </form>
    <p v-if="error" class="fault" role="alert">{{ error }}</p>
    <p v-if="Number(job.facts['grades.open']) > 0" class="caution">
      {{ job.facts['grades.open'] }} parts have no grade yet: what they will need is not in here.
    </p>
    <p v-if="stale" class="fault">Grades have been given since this was made.</p>
    <p v-if="!newest" class="soft">
      No estimate yet. It follows the grades, with sets and kits bought whole.
    </p>

    <template v-if="newest">
      <section v-if="newest.body.safety.length" class="safety" aria-label="Above the money">
        <p v-for="s in newest.body.safety" :key="s">
          <strong>{{ s }}</strong>
        </p>
      </section>
      <section aria-label="Ways">
        <h2>What it costs</h2>
        <div class="scroll">
          <table class="ledger">
            <thead>
              <tr>
                <th></th>
                <th>Parts or unit</th>
                <th>Labour</th>
                <th>Consumables</th>
                <th>Together</th>
                <th>Waiting</th>
                <th>Not in the money</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="o in newest.body.options"
                :key="o.id"
                :class="{ cheap: o.id === newest.body.cheapest }"
              >
                <th scope="row">{{ o.label }}</th>
                <td class="mono">
                  {{ least(o) && !o.parts ? 'not known' : `${least(o)}${money(o.parts)}` }}
                </td>
                <td class="mono">{{ money(o.labour) }}</td>
                <td class="mono">{{ money(o.consumables) }}</td>
                <td class="mono total">{{ least(o) }}{{ money(o.total) }}</td>
                <td>{{ days(o.waitDays) }}</td>
                <td class="small">
                  <strong v-if="o.forbidden">{{ o.forbidden }}</strong>
                  {{ o.risks.join('; ') }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="small soft">
          <template v-if="newest.body.unpriced">
            No price is known of {{ newest.body.unpriced.join(', ') }}: the rebuild costs more than stands
            here.
          </template>
          {{ newest.body.hours }} h of labour in a rebuild{{
            job.sheet.lacks?.includes('unit.hours')
              ? ", as usual for such work; this drive's own are not known"
              : ''
          }}.
          <template v-if="newest.body.breakEvenHours !== undefined">
            {{
              newest.body.breakEvenHours > 0
                ? `The exchange unit is level at ${newest.body.breakEvenHours.toFixed(1)} h.`
                : 'The exchange unit is cheaper before the first hour of labour.'
            }}
          </template>
          Made by {{ newest.by }}, {{ showTime(newest.at) }}.
        </p>
      </section>
      <section aria-label="To buy">
        <h2>To buy</h2>
        <p class="small soft">
          For serial {{ job.serial
          }}<template v-if="job.facts['id.stamp']">, stamped {{ job.facts['id.stamp'] }}</template>. Early and
          late parts of one drive differ: compare before ordering.
        </p>
        <p v-if="!newest.body.order.length">Nothing.</p>
        <div v-else class="scroll">
          <table class="ledger">
            <thead>
              <tr>
                <th>What</th>
                <th>Price</th>
                <th>Waiting</th>
                <th>Comes with</th>
                <th>Because</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in newest.body.order" :key="r.name">
                <th scope="row">{{ r.name }}</th>
                <td class="mono">{{ money(r.price) }}</td>
                <td>{{ days(r.waitDays) }}</td>
                <td class="small">{{ r.parts.length > 1 ? r.parts.join(', ') : '' }}</td>
                <td class="small">{{ r.why }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <section aria-label="Decision" class="decision">
        <h2>What the customer says</h2>
        <p v-if="newest.approval">
          <strong>{{ newest.approval.customer }}: {{ CHOICES[newest.approval.choice] }}</strong>,
          {{ newest.approval.how }}.
          <template v-if="newest.approval.ends">It is {{ STOP_ENDS[newest.approval.ends] }}.</template>
          <template v-if="newest.approval.kept?.length">Kept: {{ namesOf(newest.approval.kept) }}.</template>
          <span class="small soft"
            >Recorded by {{ newest.approval.by }}, {{ showTime(newest.approval.at) }}</span
          >
        </p>
        <form v-else @submit.prevent="record">
          <fieldset class="one-of">
            <legend class="sr-only">Decision</legend>
            <label v-for="c in offered" :key="c" :class="{ on: choice === c }">
              <input v-model="choice" type="radio" name="choice" :value="c" class="sr-only" />
              {{ CHOICES[c] }}
            </label>
          </fieldset>
          <OneOf
            v-if="choice === 'stop'"
            v-model="end"
            legend="It is"
            :options="ends.map((value) => ({ value, label: STOP_ENDS[value] }))"
            class="column"
          />
          <fieldset v-if="(choice === 'exchange' || choice === 'used') && canBeKept.length" class="kept">
            <legend>Kept for the other unit</legend>
            <label v-for="p in canBeKept" :key="p.id" class="tick">
              <input v-model="kept" type="checkbox" :value="p.id" /> {{ p.name }}
            </label>
          </fieldset>
          <label>Who decided <input v-model="customer" maxlength="80" /></label>
          <label
            >How it was said
            <input v-model="how" maxlength="120" placeholder="by telephone, in writing, at the bench"
          /></label>
          <p v-if="decisionError" class="fault" role="alert">{{ decisionError }}</p>
          <Button
            type="submit"
            label="Record the decision"
            class="lamp"
            :disabled="how.trim().length < 2 || customer.trim().length < 2 || busy"
          />
        </form>
      </section>
    </template>
  </div>
</template>

<style scoped>
.kept {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
  flex-basis: 100%;
}
.tick {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 44px;
}
/* as wide as it is, whatever other fields of a form are */
.tick input {
  width: auto;
  flex: none;
}
.column {
  flex-basis: 100%;
}
.bad {
  color: var(--out);
}
.estimate {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
}
.terms,
.decision form {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: end;
}
label:not(.one-of label, .tick) {
  display: grid;
  font-size: var(--t-small);
}
input:not(.sr-only) {
  font-size: var(--t-body);
  min-width: 11rem;
}
.safety {
  border: 2px solid var(--ink);
  padding: 0.5rem 0.8rem;
  background: var(--sheet);
}
.scroll {
  overflow-x: auto;
}
.total {
  font-size: var(--t-title);
}
tr.cheap .total::after {
  content: ' least';
  font-size: var(--t-small);
}
</style>
