<script setup lang="ts">
import type { Attachment } from '@moray/core/job/record'
import Dialog from 'primevue/dialog'
import { ref, useId } from 'vue'
import { showTime } from '../../ui/times.ts'

/** Pictures small in a row, full size when asked, and the place where the camera or a file adds one. Says what it is told, sends nothing. */
defineProps<{
  pictures: Attachment[]
  /** What they are of, in words. */
  of: string
  fileOf: (hash: string) => string
  wanted?: boolean
  compact?: boolean
  /** What is being done with one that was added; '' when nothing is. */
  busy: string
  error: string
}>()
const emit = defineEmits<{ add: [file: File] }>()
const id = useId()
const shown = ref<Attachment | null>(null)
function add(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) emit('add', file)
}
</script>

<template>
  <div class="strip" :class="{ compact }">
    <button
      v-for="a in pictures"
      :key="a.id"
      type="button"
      class="thumb"
      :aria-label="`Picture by ${a.by}, full size`"
      @click="shown = a"
    >
      <img :src="fileOf(a.hash)" alt="" loading="lazy" />
    </button>
    <label class="add" :class="{ wanted: wanted && !pictures.length }" :for="id">
      <svg width="26" height="20" viewBox="0 0 26 20" aria-hidden="true">
        <path d="M1 5 h6 l2-3 h8 l2 3 h6 v14 h-24 z" />
        <circle cx="13" cy="11" r="5" />
      </svg>
      <span :class="{ 'sr-only': compact }">{{
        wanted && !pictures.length ? 'A picture is wanted' : 'Add a picture'
      }}</span>
      <input
        :id="id"
        type="file"
        accept="image/jpeg,image/png,image/webp,image/gif"
        class="sr-only"
        @change="add"
      />
    </label>
    <p v-if="busy" class="small" role="status">{{ busy }} …</p>
    <p v-if="error" class="fault small" role="alert">{{ error }}</p>
    <Dialog :visible="shown !== null" modal header="Picture" @update:visible="shown = null">
      <template v-if="shown">
        <a :href="fileOf(shown.hash)" target="_blank" rel="noopener">
          <img :src="fileOf(shown.hash)" class="full" :alt="`Picture of ${of}`" />
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
