<script setup lang="ts">
import type { Gauge } from '@moray/contract/replies'
import type { StepProgress } from '@moray/core/route/progress'
import { chosenSchool, schools } from '@moray/core/route/schools'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import FastenerTable from '../../drives/FastenerTable.vue'
import type { ShownJob } from '../shown-job.ts'
import { manualPages, type RouteView } from './route-view.ts'

/** What stands below a step: torques, pages of the manual, tools, why it is done this way here, and what other hands can do meanwhile. */
const props = defineProps<{
  job: ShownJob
  view: RouteView
  step: StepProgress
  wrenches: readonly Pick<Gauge, 'name'>[]
}>()

const definition = computed(() => props.step.step)
const pages = computed(() => manualPages(props.job.sheet, definition.value))
const school = computed(() => {
  const id = definition.value.school
  if (!id) return undefined
  const own = Object.fromEntries(props.job.schools.map((s) => [s.school, s.choice]))
  const shopWay = String(props.job.facts[`school.${id}`] ?? '')
  const chosen = chosenSchool(id, { [id]: shopWay }, own)
  return { question: schools.find((s) => s.id === id)!.question, ...chosen }
})
const meanwhile = computed(() =>
  props.step.state === 'waiting' || (props.step.state === 'blocked' && !props.step.elsewhere)
    ? [props.view.progress.due, ...props.view.progress.meanwhile].filter(
        (s) => s !== undefined && s.step.id !== definition.value.id && (s.state === 'open' || s.elsewhere),
      )
    : [],
)
</script>

<template>
  <FastenerTable
    v-if="definition.role === 'tightens' && job.sheet.fasteners?.length"
    :fasteners="job.sheet.fasteners"
  />
  <p v-if="pages.length" class="small"><span class="soft">Your manual</span> page {{ pages.join(', ') }}</p>
  <p v-if="wrenches.length" class="small">
    <span class="soft">Wrench for it</span> {{ wrenches.map((w) => w.name).join(', ') }}
  </p>
  <ul v-if="definition.tools.length || definition.consumables.length" class="kit small">
    <li v-if="definition.tools.length"><span class="soft">Tools</span> {{ definition.tools.join(', ') }}</li>
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
</template>

<style scoped>
.kit {
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
  margin-top: 0.5rem;
}
.school {
  margin-top: 0.3rem;
}
.meanwhile {
  border-top: 1px solid var(--line);
  margin-top: 0.6rem;
  padding-top: 0.4rem;
}
</style>
