<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import RecordSheet from './record/RecordSheet.vue'
import { useJob } from './shown-job.ts'
import { useClosings, useEvents } from '../wire/queries.ts'

/** The record of a job of this shop. */
const store = useJob()
const job = computed(() => store.job!)
const events = useEvents(() => job.value.id)
const closings = useClosings(() => job.value.id)
const print = () => window.print()
</script>

<template>
  <RecordSheet :job="job" :events="events.events ?? []" :closings="closings.closings">
    <template #acts>
      <span class="acts no-print">
        <a class="page-link" :href="`/api/jobs/${job.id}/zip`" download>Everything as a zip</a>
        <Button label="Print" class="quiet" @click="print" />
      </span>
    </template>
  </RecordSheet>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  justify-content: end;
}
</style>
