<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { useJob } from './shown-job.ts'
import EstimateView from './parts/EstimateView.vue'
import GradesView from './parts/GradesView.vue'
import RowView from './parts/RowView.vue'

/** Parts of a job: the row on the bench, the grades, the estimate. The address says which. */
const store = useJob()
const route = useRoute()
const job = computed(() => store.job!)
const views = computed(() => {
  const { facts } = job.value
  return [
    { id: 'row', label: 'Row', note: `${Number(facts['row.left'])} on the bench` },
    {
      id: 'grades',
      label: 'Grades',
      note: Number(facts['grades.open']) ? `${Number(facts['grades.open'])} open` : 'all given',
    },
    {
      id: 'estimate',
      label: 'Estimate',
      note: facts['estimate.choice'] ? String(facts['estimate.choice']) : 'no decision',
    },
  ]
})
const view = computed(() => views.value.find((v) => v.id === route.query.view)?.id ?? 'row')
</script>

<template>
  <div>
    <nav class="views" aria-label="Parts">
      <RouterLink
        v-for="v in views"
        :key="v.id"
        :to="{ query: { view: v.id } }"
        replace
        :class="{ on: view === v.id }"
        :aria-current="view === v.id ? 'page' : undefined"
      >
        {{ v.label }} <span class="small soft">{{ v.note }}</span>
      </RouterLink>
    </nav>
    <RowView v-if="view === 'row'" :job="job" />
    <GradesView v-else-if="view === 'grades'" :job="job" />
    <EstimateView v-else :job="job" />
  </div>
</template>

<style scoped>
.views {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.4rem;
  margin-bottom: 0.8rem;
}
.views a {
  min-height: 44px;
  display: inline-flex;
  gap: 0.5rem;
  align-items: center;
  text-decoration: none;
  border-bottom: 3px solid transparent;
}
.views a.on {
  font-weight: 700;
  border-bottom-color: var(--ink);
}
</style>
