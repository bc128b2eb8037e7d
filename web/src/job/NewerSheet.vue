<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { ref } from 'vue'
import DifferenceTable from '../drives/own/DifferenceTable.vue'
import ReasonDialog from '../ui/ReasonDialog.vue'
import { useSheetFile } from '../wire/queries.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import type { ShownJob } from './shown-job.ts'

/** A newer version of the sheet exists: what it would change in this job, and going on with it on purpose. */
const props = defineProps<{ job: ShownJob; newer: number }>()
const emit = defineEmits<{ close: [] }>()
const write = useJobWrite()
const open = ref(true)
const now = useSheetFile(() => ({ id: props.job.sheetId, version: props.job.sheetVersion }))
const next = useSheetFile(() => ({ id: props.job.sheetId, version: props.newer }))
async function adopt(reason: string) {
  const reply = await write.send(endpoints.adoptSheet, { id: props.job.id }, { version: props.newer, reason })
  if (reply) emit('close')
}
</script>

<template>
  <ReasonDialog
    :open="open"
    title="Go on with the newer version of the sheet"
    explain="Readings, stacks and steps that were done stay. What is judged is judged against the new figures from then on, also what was read before."
    action="Go on with it"
    :busy="write.busy.value"
    :error="write.error.value?.message"
    @give="adopt"
    @update:open="(o: boolean) => !o && emit('close')"
  >
    <DifferenceTable
      v-if="now.body && next.body"
      :from="now.body"
      :to="next.body"
      from-name="This job"
      to-name="Newer version"
    />
  </ReasonDialog>
</template>
