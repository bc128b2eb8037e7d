<script setup lang="ts">
import { pathOf } from '@moray/contract/endpoint'
import { endpoints } from '@moray/contract/endpoints'
import type { PicturePoint } from '@moray/core/contact/photo'
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import OneOf from '../../ui/OneOf.vue'
import PictureStrip from '../pictures/PictureStrip.vue'
import type { ShownJob } from '../shown-job.ts'
import PhotoFlank from './PhotoFlank.vue'

/** Pictures of the pattern, kept with its step; one of them is squared up and marked. */
const props = defineProps<{ job: ShownJob; toeShare: number; outline?: [number, number][] | undefined }>()
defineEmits<{ drawing: [flat: number[]] }>()

/** The step of the route that the pattern is read at. */
const STEP = 'pattern'
const pictures = computed(() =>
  props.job.attachments.filter((a) => a.subject === 'step' && a.subjectId === STEP),
)
const chosen = ref<string | null>(null)
const hash = computed(() => chosen.value ?? pictures.value.at(-1)?.hash)
/** Corners of each picture, kept in this browser. */
const kept = useStorage<Record<string, PicturePoint[]>>(`moray.draft.${props.job.id}.corners`, {})
const corners = computed({
  get: () => (hash.value ? (kept.value[hash.value] ?? []) : []),
  set: (list) => hash.value && (kept.value = { ...kept.value, [hash.value]: list }),
})
</script>

<template>
  <section class="photo-mark" aria-label="On a photo">
    <PictureStrip :job="job" subject="step" :of="STEP" compact />
    <OneOf
      v-if="pictures.length > 1"
      legend="Marked on"
      :options="pictures.map((p, i) => ({ value: p.hash, label: `picture ${i + 1}` }))"
      :model-value="hash"
      @update:model-value="(h) => (chosen = h ?? null)"
    />
    <PhotoFlank
      v-if="hash"
      :key="hash"
      v-model:corners="corners"
      :src="pathOf(endpoints.file, { hash })"
      :toe-share="toeShare"
      :outline="outline"
      @drawing="(flat) => $emit('drawing', flat)"
    />
    <p v-else class="small soft">Take it square to the flank, all four corners of one tooth in it.</p>
  </section>
</template>
