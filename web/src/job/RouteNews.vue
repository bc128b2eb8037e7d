<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { isOver } from '@moray/core/job/record'
import { routeOf } from '@moray/core/route/route-of'
import { printOf, routeHash } from '@moray/core/route/route-print'
import Button from 'primevue/button'
import { computed } from 'vue'
import { useJobWrite } from '../writing/use-job-write.ts'
import { useRouteChanges } from '../wire/queries.ts'
import type { ShownJob } from './shown-job.ts'

/** A newer Moray has changed the order of work of a job that is open: it says what, and what was done stays done. */
const props = defineProps<{ job: ShownJob }>()
/** Of the drive's route; what this very job adds to it (repairs, lists) is no news. */
const now = computed(() => routeHash(printOf(routeOf(props.job.sheet))))
const differs = computed(
  () => !isOver(props.job.state) && props.job.routeHash !== null && props.job.routeHash !== now.value,
)
const news = useRouteChanges(
  () => props.job.id,
  () => differs.value,
)
const write = useJobWrite()
const seen = () => write.send(endpoints.seeRoute, { id: props.job.id }, { hash: now.value })
const words = (steps: { what: string }[]) => steps.map((s) => s.what).join('; ')
</script>

<template>
  <section v-if="differs && news.changes" class="news no-print" aria-label="The route has changed">
    <p>
      <strong>This Moray knows the order of work better than the one that opened this job.</strong> What is
      done stays done.
    </p>
    <p v-if="news.changes.added.length">New: {{ words(news.changes.added) }}.</p>
    <p v-if="news.changes.changed.length">Asks something else now: {{ words(news.changes.changed) }}.</p>
    <p v-if="news.changes.removed.length">No longer asked: {{ words(news.changes.removed) }}.</p>
    <Button label="I have seen it" class="quiet" :disabled="write.busy.value" @click="seen" />
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
  </section>
</template>

<style scoped>
.news {
  border: 2px solid var(--ink);
  padding: 0.6rem 0.8rem;
  margin-bottom: 0.8rem;
  display: grid;
  gap: 0.3rem;
  justify-items: start;
}
</style>
