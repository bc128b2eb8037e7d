<script setup lang="ts">
import { computed } from 'vue'
import PastJobs from '../past/PastJobs.vue'
import UnitChart from '../past/UnitChart.vue'
import LoadState from '../ui/LoadState.vue'
import { useUnitsBefore } from '../wire/found.ts'
import { useJob } from './shown-job.ts'

/** What was here before: this very unit, and other units of the same drive. */
const store = useJob()
const job = computed(() => store.job!)
const before = useUnitsBefore(() => job.value.id)
</script>

<template>
  <LoadState v-if="!before.units" what="earlier jobs" :error="before.error" @again="before.load" />
  <div v-else>
    <section aria-label="The same unit before">
      <h2>The same unit before</h2>
      <p v-if="!before.units.same.length" class="soft">{{ job.serial }} has not been here before this job.</p>
      <template v-else>
        <UnitChart v-if="before.units.same.length > 1" :jobs="before.units.same" :sheet="job.sheet" />
        <PastJobs :jobs="before.units.same" :sheet="job.sheet" />
      </template>
    </section>
    <section aria-label="Units like this">
      <h2>Units like this</h2>
      <p v-if="!before.units.like.length" class="soft">
        No other {{ job.sheet.name }} has been set here yet.
      </p>
      <PastJobs v-else :jobs="before.units.like" :sheet="job.sheet" several />
    </section>
  </div>
</template>

<style scoped>
section {
  margin-top: 1rem;
}
</style>
