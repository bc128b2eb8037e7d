<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { isOver } from '@moray/core/job/record'
import { isCondemned } from '@moray/core/job/bench-row'
import { jobScope, planWays } from '@moray/core/job/job-plan'
import { planOf } from '@moray/core/route/plan'
import { ownScope, usualScopes, type Scope } from '@moray/core/route/scope'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import SectionDrawing from '../../drawing/SectionDrawing.vue'
import { useShop } from '../../stores/shop.ts'
import { useJobWrite } from '../../writing/use-job-write.ts'
import { useStillHere } from '../../ui/still-here.ts'
import { useJob } from '../shown-job.ts'
import PlanView from './PlanView.vue'
import { placeMarks } from './scope-words.ts'

/** What the job is to reach: a usual scope, or places picked on the drawing; beside it what follows, before anything is opened. */
const store = useJob()
const shop = useShop()
const router = useRouter()
const here = useStillHere()
const write = useJobWrite()
const job = computed(() => store.job!)
const sheet = computed(() => job.value.sheet)
const usual = computed(() => usualScopes(sheet.value))
const now = computed(() => jobScope(job.value, sheet.value))
const chosen = ref<Scope>({ ...now.value })
watch(
  () => JSON.stringify(now.value),
  () => (chosen.value = { ...now.value }),
)
const over = computed(() => isOver(job.value.state))
const plan = computed(() =>
  planOf(sheet.value, chosen.value, planWays(job.value, job.value.ways), {
    condemned: sheet.value.parts.filter((p) => isCondemned(job.value.grades, p.id)).map((p) => p.id),
  }),
)
const marks = computed(() =>
  placeMarks(plan.value, chosen.value.usual === 'full' ? [] : chosen.value.targets),
)
const same = computed(() => JSON.stringify(chosen.value) === JSON.stringify(now.value))
/** Parts that have no place on the drawing, or share one. */
const pickable = computed(() => sheet.value.parts.filter((p) => p.role !== 'body'))
const picked = computed(() => new Set(chosen.value.usual === 'full' ? [] : chosen.value.targets))
const problem = ref('')

function take(targets: string[]) {
  problem.value = ''
  if (!targets.length) {
    chosen.value = { usual: 'own', mode: 'rebuild', targets: [], mounted: true }
    return
  }
  try {
    chosen.value = ownScope(sheet.value, targets)
  } catch (e) {
    problem.value = (e as Error).message
  }
}
function toggle(ids: string[]) {
  const next = new Set(picked.value)
  const all = ids.every((id) => next.has(id))
  for (const id of ids) {
    if (all) next.delete(id)
    else next.add(id)
  }
  take([...next])
}
const atPlace = (place: string) => pickable.value.filter((p) => p.place === place).map((p) => p.id)
function pickPlace(place: string) {
  const ids = atPlace(place)
  if (ids.length) toggle(ids)
}
const reason = ref('')
const label = computed(
  () => usual.value.find((u) => u.usual === chosen.value.usual)?.label ?? 'Picked by hand',
)
async function set() {
  const stillHere = here()
  const sent = reason.value
  const reply = await write.send(
    endpoints.setScope,
    { id: job.value.id },
    {
      usual: chosen.value.usual,
      ...(chosen.value.usual === 'own' ? { targets: chosen.value.targets } : {}),
      mounted: chosen.value.mounted,
      reason: reason.value.trim() || `as agreed: ${label.value.toLowerCase()}`,
    },
  )
  if (!reply) return
  if (reason.value === sent) reason.value = ''
  if (stillHere()) void router.push(`/jobs/${job.value.id}/route`)
}
</script>

<template>
  <div class="scope three">
    <aside class="left" aria-label="Usual scopes">
      <h2>What is it for?</h2>
      <ul class="usual">
        <li v-for="u in usual" :key="u.usual">
          <button
            type="button"
            :class="{ on: chosen.usual === u.usual }"
            :aria-pressed="chosen.usual === u.usual"
            :title="u.about"
            @click="chosen = { usual: u.usual, mode: u.mode, targets: u.targets, mounted: u.mounted }"
          >
            {{ u.label }}
          </button>
        </li>
      </ul>
    </aside>
    <section class="middle" aria-label="Section">
      <p class="small soft">
        Or pick the places on the drawing. <span class="key wanted"></span> wanted
        <span class="key new"></span> new on the way <span class="key off"></span> comes off
      </p>
      <SectionDrawing :sheet="sheet" :marks="marks" :max-height="430" @pick="pickPlace" />
      <details class="all">
        <summary>Every part by name</summary>
        <ul class="parts">
          <li v-for="p in pickable" :key="p.id">
            <label class="small">
              <input type="checkbox" :checked="picked.has(p.id)" @change="toggle([p.id])" /> {{ p.name }}
            </label>
          </li>
        </ul>
      </details>
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    </section>
    <aside class="panel" aria-label="Plan">
      <h2>{{ label }}</h2>
      <p v-if="job.scopes.length" class="small soft">
        Scope now: {{ usual.find((u) => u.usual === now.usual)?.label ?? 'picked by hand' }}, by
        {{ job.scopes.at(-1)!.by }}
      </p>
      <PlanView
        :sheet="sheet"
        :plan="plan"
        :currency="job.ways.rules.currency"
        :rate="job.ways.rules.rate"
        @also="(part) => toggle([part])"
      />
      <form v-if="!over" class="take entries" @submit.prevent="set">
        <label v-if="chosen.usual === 'own' || chosen.mode === 'rebuild'" class="small mounted">
          <input v-model="chosen.mounted" type="checkbox" /> the unit stays on the boat
        </label>
        <label v-if="!same" for="why" class="small">Why (may be left out)</label>
        <input v-if="!same" id="why" v-model="reason" type="text" maxlength="300" />
        <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
        <div class="actions">
          <Button
            v-if="!same"
            type="submit"
            label="Take this scope"
            class="lamp"
            :disabled="
              !shop.somebody || write.busy.value || (chosen.usual === 'own' && !chosen.targets.length)
            "
          />
          <RouterLink :to="`/jobs/${job.id}/route`" class="go" :class="{ lamp: same }"
            >To the route</RouterLink
          >
        </div>
      </form>
    </aside>
  </div>
</template>

<style scoped>
.scope {
  grid-template-columns: 14rem minmax(0, 1fr) 26rem;
}
h2 {
  font-size: var(--t-lead);
  margin-bottom: 0.3rem;
}
.usual button {
  font: inherit;
  color: inherit;
  text-align: left;
  width: 100%;
  min-height: 44px;
  padding: 0.2rem 0.6rem;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
.usual button.on {
  font-weight: 700;
  box-shadow: inset 5px 0 0 var(--lamp);
  background: var(--sheet);
}
.usual button:hover {
  background: var(--lamp-soft);
}
.key {
  display: inline-block;
  width: 1.1em;
  height: 0.8em;
  border: 1px solid var(--ink);
  margin-left: 0.6rem;
}
.key.wanted {
  background: var(--lamp);
}
.key.new {
  background: var(--lamp-soft);
}
.key.off {
  border-style: dashed;
}
.parts {
  columns: 3;
}
.parts label {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 32px;
}
.take {
  position: sticky;
  bottom: 0;
  background: var(--paper);
  border-top: 1px solid var(--line);
  padding: 0.5rem 0;
  display: grid;
  gap: 0.3rem;
}
.go {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.go.lamp {
  background: var(--lamp);
  color: var(--lamp-ink);
  border: 1px solid var(--lamp-ink);
  font-weight: 700;
  padding: 0 1rem;
  text-decoration: none;
}
.mounted {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 40px;
}
.actions {
  display: flex;
  gap: 1rem;
  align-items: center;
}
summary {
  min-height: 40px;
  cursor: pointer;
}
@media (max-width: 1180px) {
  .scope {
    grid-template-columns: 11rem minmax(0, 1fr) 22rem;
    gap: 1rem;
  }
}
@media (max-width: 1000px) {
  /* What it is for comes before what follows from it, and leaves the taking in view. */
  .scope .left {
    order: -2;
  }
  .usual {
    columns: 2;
    column-gap: 1rem;
  }
  .usual li {
    break-inside: avoid;
  }
}
@media (max-width: 860px) {
  .scope {
    grid-template-columns: minmax(0, 1fr);
  }
  .parts {
    columns: 1;
  }
}
</style>
