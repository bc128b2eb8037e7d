<script setup lang="ts">
import type { JobFile } from '@moray/contract/job-file'
import { asBody } from '@moray/core/drives/upgrade/upgrade'
import { filled } from '@moray/core/drives/own/fill'
import Button from 'primevue/button'
import { computed } from 'vue'
import RecordSheet from '../job/record/RecordSheet.vue'
import { showJob, type ShownJob } from '../job/shown-job.ts'
import LoadState from '../ui/LoadState.vue'
import { showTime } from '../ui/times.ts'
import { useForeignJob } from '../wire/found.ts'

/** A record that another Moray has written: read, never changed; judged as it stood on the day it left there. */
const props = defineProps<{ id: string }>()
const store = useForeignJob(() => props.id)
const shown = computed<{ job: ShownJob; file: JobFile } | { wrong: string } | null>(() => {
  const { file } = store
  if (!file) return null
  try {
    const sheet = {
      ...filled({ ...asBody(file.sheet), version: file.job.sheetVersion }),
      ...(file.edition === null ? {} : { edition: file.edition }),
      ...(file.after ? { after: file.after } : {}),
    }
    const ways = { ...file.ways, edits: [], found: {}, demo: false }
    return { job: showJob(file.job, sheet, ways, [], [], new Date(file.exportedAt)), file }
  } catch (e) {
    return { wrong: e instanceof Error ? e.message : String(e) }
  }
})
const print = () => window.print()
</script>

<template>
  <LoadState v-if="!shown" what="the record" :error="store.error" @again="store.load" />
  <p v-else-if="'wrong' in shown" class="fault" role="alert">
    This record cannot be shown: what is in it does not go together ({{ shown.wrong }}).
  </p>
  <template v-else>
    <p class="caution">
      A record of another shop, as it left there on {{ showTime(shown.file.exportedAt) }} (Moray
      {{ shown.file.moray }}). It is kept as it came.
    </p>
    <RecordSheet :job="shown.job" :events="shown.file.events" :closings="shown.file.closings">
      <template #acts><Button label="Print" class="quiet no-print" @click="print" /></template>
    </RecordSheet>
  </template>
</template>
