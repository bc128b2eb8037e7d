<script setup lang="ts">
import type { PastJob } from '@moray/contract/found'
import { computed } from 'vue'
import LoadState from '../ui/LoadState.vue'
import SaveCsv from '../ui/SaveCsv.vue'
import { useSheetOf, useUnitJobs } from '../wire/found.ts'
import PastJobs from './PastJobs.vue'
import UnitChart from './UnitChart.vue'
import { figuresOf } from './past-words.ts'

/** One unit over the years: every job, its stacks, readings and tests. */
const props = defineProps<{ sheet: string; serial: string }>()
const store = useUnitJobs(
  () => props.sheet,
  () => props.serial,
)
const drive = useSheetOf(() => props.sheet)
const jobs = computed(() => store.jobs ?? [])
const newest = computed(() => jobs.value[0])
const columns = computed(() => [
  { name: 'number', of: (j: PastJob) => j.number },
  { name: 'opened', of: (j: PastJob) => j.openedAt },
  { name: 'accepted', of: (j: PastJob) => j.acceptedAt },
  { name: 'complaint', of: (j: PastJob) => j.complaint },
  { name: 'hours', of: (j: PastJob) => j.hours },
  ...(drive.sheet ? figuresOf(drive.sheet) : []).map((f) => ({
    name: `${f.label} (${f.unit})`,
    of: (j: PastJob) => f.of(j),
  })),
])
/** A line needs two points. */
const hasCourse = computed(() => jobs.value.filter((j) => Object.keys(j.stacks).length).length > 1)
</script>

<template>
  <LoadState
    v-if="!store.jobs || !drive.sheet"
    what="the unit"
    :error="store.error ?? drive.error"
    @again="store.load"
  />
  <p v-else-if="!newest" class="soft">No unit of this number has been here.</p>
  <div v-else>
    <div class="page-head">
      <h1><span class="mono">{{ newest.serial }}</span> {{ newest.sheetName }}</h1>
      <p class="soft">
        {{ newest.boat }}, {{ newest.owner }}; {{ jobs.length }} {{ jobs.length === 1 ? 'job' : 'jobs' }}
      </p>
      <SaveCsv :name="`unit-${newest.serial}`" :columns="columns" :rows="() => jobs" />
    </div>
    <UnitChart v-if="hasCourse" :jobs="jobs" :sheet="drive.sheet" />
    <PastJobs :jobs="jobs" :sheet="drive.sheet" />
  </div>
</template>
