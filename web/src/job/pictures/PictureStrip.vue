<script setup lang="ts">
import type { Attachment } from '@moray/core/job/record'
import type { ShownJob } from '../shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import { computed, ref } from 'vue'
import { useShop } from '../../stores/shop.ts'
import { pathOf } from '@moray/contract/endpoint'
import { asWireError, sendBytes } from '../../wire/client.ts'
import { sendForJob, useQueryClient } from '../../wire/queries.ts'
import { useIntention } from '../../writing/intention.ts'
import PictureShow from './PictureShow.vue'

/** The pictures of one step, part or grade; one that is added is sent. */
const props = defineProps<{
  job: ShownJob
  subject: Attachment['subject']
  of: string
  wanted?: boolean
  compact?: boolean
}>()
const client = useQueryClient()
const fileOf = (hash: string) => pathOf(endpoints.file, { hash })
const shop = useShop()
const mine = computed(() =>
  props.job.attachments.filter((a) => a.subject === props.subject && a.subjectId === props.of),
)
const busy = ref('')
const error = ref('')
const MOST_MB = 25
const intention = useIntention()

/** Sent as it came: the server makes it anew, without what a camera wrote beside it, and keeps what the file was. */
async function add(file: File) {
  error.value = ''
  busy.value = 'Sending the picture'
  const person = shop.personId
  try {
    if (file.size > MOST_MB * 1024 * 1024)
      throw new Error(`The picture is larger than ${MOST_MB} MB; take it at a lower resolution.`)
    const query = { subject: props.subject, of: props.of }
    const place = `${endpoints.attach.path} ${props.job.id} ${props.subject} ${props.of}`
    // the same picture for the same place keeps its id: sent again after a lost answer it is stored once
    const id = intention.idOf(place, `${person} ${file.name} ${file.size} ${file.lastModified}`)
    try {
      await sendForJob(client, props.job.id, () =>
        sendBytes(endpoints.attach, { id: props.job.id }, query, file, person, id),
      )
      intention.settled(place, id)
    } catch (e) {
      if (!asWireError(e).unsure) intention.settled(place, id)
      throw e
    }
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
