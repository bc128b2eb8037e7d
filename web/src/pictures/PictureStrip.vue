<script setup lang="ts">
import { showTime } from '../ui/times.ts'
import type { Attachment } from '@moray/core/job/record'
import type { ShownJob } from '../job/shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import Dialog from 'primevue/dialog'
import { computed, ref, useId } from 'vue'
import { useShop } from '../stores/shop.ts'
import { pathOf } from '@moray/contract/endpoint'
import { asWireError, sendBytes } from '../wire/client.ts'
import { keepJob, useQueryClient } from '../wire/queries.ts'
import { useRequestIds } from '../wire/use-write.ts'
import { reducePicture } from './reduce.ts'

/** The pictures of one step, part or grade: small in a row, full size when asked; the camera or a file adds one. */
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
const id = useId()
const mine = computed(() =>
  props.job.attachments.filter((a) => a.subject === props.subject && a.subjectId === props.of),
)
const shown = ref<Attachment | null>(null)
const busy = ref('')
const error = ref('')
const MOST = 10 * 1024 * 1024

async function add(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
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
    const reply = await sendBytes(
      endpoints.attach,
      { id: props.job.id },
      query,
      small,
      shop.personId,
      ids.of(key),
    )
    ids.done(key)
    keepJob(client, reply)
  } catch (e) {
    error.value = asWireError(e).message
  } finally {
    busy.value = ''
  }
}
</script>

<template>
  <div class="strip" :class="{ compact }">
    <button
      v-for="a in mine"
      :key="a.id"
      type="button"
      class="thumb"
      :aria-label="`Picture by ${a.by}, full size`"
      @click="shown = a"
    >
      <img :src="fileOf(a.hash)" alt="" loading="lazy" />
    </button>
    <label class="add" :class="{ wanted: wanted && !mine.length }" :for="id">
      <svg width="26" height="20" viewBox="0 0 26 20" aria-hidden="true">
        <path d="M1 5 h6 l2-3 h8 l2 3 h6 v14 h-24 z" />
        <circle cx="13" cy="11" r="5" />
      </svg>
      <span :class="{ 'sr-only': compact }">{{
        wanted && !mine.length ? 'A picture is wanted' : 'Add a picture'
      }}</span>
      <input :id="id" type="file" accept="image/*" class="sr-only" @change="add" />
    </label>
    <p v-if="busy" class="small" role="status">{{ busy }} …</p>
    <p v-if="error" class="fault small" role="alert">{{ error }}</p>
    <Dialog :visible="shown !== null" modal header="Picture" @update:visible="shown = null">
      <template v-if="shown">
        <a :href="fileOf(shown.hash)" target="_blank" rel="noopener">
          <img :src="fileOf(shown.hash)" class="full" :alt="`Picture of ${subject} ${of}`" />
        </a>
        <p class="small soft">{{ shown.by }}, {{ showTime(shown.at) }}</p>
      </template>
    </Dialog>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.thumb {
  padding: 0;
  border: 1px solid var(--line-strong);
  background: var(--sheet);
  width: 64px;
  height: 48px;
  cursor: pointer;
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.add {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
  min-width: 44px;
  justify-content: center;
  padding: 0 0.7rem;
  border: 1px dashed var(--line-strong);
  cursor: pointer;
  font-size: var(--t-small);
}
.add.wanted {
  border: 2px solid var(--ink);
}
.add:focus-within {
  outline: 3px solid var(--focus);
}
.add svg {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
}
.compact .add {
  border: 0;
  padding: 0;
}
.full {
  max-width: min(80vw, 60rem);
  max-height: 70vh;
  display: block;
}
</style>
