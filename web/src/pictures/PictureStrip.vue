<script setup lang="ts">
import type { Attachment } from '@moray/core/job/record'
import type { ShownJob } from '../job/shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import { computed, ref } from 'vue'
import { useShop } from '../stores/shop.ts'
import { pathOf } from '@moray/contract/endpoint'
import { asWireError, sendBytes } from '../wire/client.ts'
import { sendForJob, useQueryClient } from '../wire/queries.ts'
import { useRequestIds } from '../wire/use-write.ts'
import PictureShow from './PictureShow.vue'
import { reducePicture } from './reduce.ts'

/** The pictures of one step, part or grade; one that is added is reduced and sent. */
const props = defineProps<{
  job: ShownJob
  subject: Attachment['subject']
  of: string
  wanted?: boolean
  compact?: boolean
}>()
const client = useQueryClient()
const ids = useRequestIds()
const fileOf = (hash: string) => pathOf(endpoints.file, { hash })
const shop = useShop()
const mine = computed(() =>
  props.job.attachments.filter((a) => a.subject === props.subject && a.subjectId === props.of),
)
const busy = ref('')
const error = ref('')
const MOST = 10 * 1024 * 1024

async function add(file: File) {
  error.value = ''
  busy.value = 'Reducing the picture'
  try {
    const small = await reducePicture(file).catch(() => {
      throw new Error('That file is no picture that this browser can read.')
    })
    if (small.size > MOST) throw new Error('The picture is larger than 10 MB; take it at a lower resolution.')
    busy.value = 'Sending the picture'
    const query = { subject: props.subject, of: props.of }
    // the same picture for the same place keeps its id: sent again after a lost answer it is stored once
    const key = `${props.job.id} ${props.subject} ${props.of} ${file.name} ${file.size} ${file.lastModified}`
    await sendForJob(client, props.job.id, () =>
      sendBytes(endpoints.attach, { id: props.job.id }, query, small, shop.personId, ids.of(key)),
    )
    ids.done(key)
  } catch (e) {
    error.value = asWireError(e).message
  } finally {
    busy.value = ''
  }
}
</script>

<template>
  <PictureShow
    :pictures="mine"
    :of="`${subject} ${of}`"
    :file-of="fileOf"
    :wanted="wanted"
    :compact="compact"
    :busy="busy"
    :error="error"
    @add="add"
  />
</template>
