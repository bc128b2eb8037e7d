<script setup lang="ts">
import type { JobSummary } from '@moray/contract/replies'
import { stageLabel, waitsText } from '@moray/core/job/standing-text'
import SaveCsv from '../ui/SaveCsv.vue'
import { readJobs } from '../wire/found.ts'

/** The jobs of the Bench as a table, all pages of what the search finds. */
const props = defineProps<{ search: string }>()
const columns = [
  { name: 'number', of: (j: JobSummary) => j.number },
  { name: 'drive', of: (j: JobSummary) => j.sheetName },
  { name: 'serial', of: (j: JobSummary) => j.serial },
  { name: 'boat', of: (j: JobSummary) => j.boat },
  { name: 'owner', of: (j: JobSummary) => j.owner },
  { name: 'stand', of: (j: JobSummary) => j.stand },
  { name: 'state', of: (j: JobSummary) => j.state },
  { name: 'stage', of: (j: JobSummary) => stageLabel(j.stage) },
  { name: 'waits for', of: (j: JobSummary) => waitsText(j.waits, (iso) => iso) },
  { name: 'complaint', of: (j: JobSummary) => j.complaint },
  { name: 'water', of: (j: JobSummary) => j.water },
  { name: 'hours', of: (j: JobSummary) => j.hours },
  { name: 'opened', of: (j: JobSummary) => j.openedAt },
  { name: 'last touched', of: (j: JobSummary) => j.touchedAt },
]
async function all(): Promise<JobSummary[]> {
  const jobs: JobSummary[] = []
  for (const state of ['open', 'over'] as const) {
    let before: string | null = null
    do {
      const page: Awaited<ReturnType<typeof readJobs>> = await readJobs(state, props.search, before)
      jobs.push(...page.jobs)
      before = page.next
    } while (before !== null)
  }
  return jobs
}
</script>

<template>
  <SaveCsv name="jobs" :columns="columns" :rows="all" />
</template>
