<script setup lang="ts">
import { RouterLink, RouterView } from 'vue-router'
import JobMenu from './JobMenu.vue'
import LoadState from '../ui/LoadState.vue'
import RouteNews from './RouteNews.vue'
import { provideJob } from './shown-job.ts'

const props = defineProps<{ id: string }>()
const store = provideJob(() => props.id)
</script>

<template>
  <LoadState v-if="!store.job" what="the job" :error="store.error" @again="store.load" />
  <template v-else>
    <div class="head no-print">
      <div class="title">
        <h1>
          {{ store.job.sheet.name }} <span class="boat">· {{ store.job.boat }}</span>
        </h1>
        <p class="small soft">
          <span class="mono">{{ store.job.number }}</span> · {{ store.job.serial }} · {{ store.job.owner }}
          <template v-if="store.job.sheet.demo"> · demo sheet, invented numbers</template>
          <template v-if="store.job.newerSheetVersion">
            · sheet version {{ store.job.sheet.version }}, a newer one ({{ store.job.newerSheetVersion }})
            exists
          </template>
        </p>
        <JobMenu :job="store.job" />
      </div>
      <nav aria-label="Job">
        <RouterLink :to="`/jobs/${id}/route`">Route</RouterLink>
        <RouterLink :to="`/jobs/${id}/faults`">Faults</RouterLink>
        <RouterLink :to="`/jobs/${id}/parts`">Parts</RouterLink>
        <RouterLink :to="`/jobs/${id}/setting`">Setting</RouterLink>
        <RouterLink :to="`/jobs/${id}/record`">Record</RouterLink>
      </nav>
    </div>
    <RouteNews :job="store.job" />
    <p v-if="store.error" class="fault no-print" role="alert">{{ store.error.message }}</p>
    <RouterView :key="id" />
  </template>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: end;
  gap: 0 1.5rem;
  border-bottom: 1px solid var(--line);
  margin: -0.4rem 0 0.9rem;
}
.title {
  padding-bottom: 0.4rem;
}
.boat {
  font-weight: 400;
}
nav {
  display: flex;
  flex-wrap: wrap;
}
nav a {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  padding: 0 1rem;
  text-decoration: none;
  border-bottom: 4px solid transparent;
}
nav a.router-link-active {
  font-weight: 700;
  border-bottom-color: var(--lamp);
}
@media (max-width: 700px) {
  nav a {
    padding: 0 0.55rem;
    font-size: var(--t-small);
  }
}
</style>
