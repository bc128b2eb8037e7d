<script setup lang="ts">
import { computed } from 'vue'
import { QUARTERS } from './drafts.ts'
import OneOf from '../../../ui/OneOf.vue'
import { clockHour } from '../../reading-words.ts'

/** Where round the gear the next reading is taken: any of four places, or not said. What has a reading already is marked. */
const props = defineProps<{ taken: readonly number[]; legend: string }>()
const at = defineModel<number | null>({ required: true })

const options = computed(() => [
  { value: null, label: 'not said' },
  ...QUARTERS.map((deg) => ({
    value: deg,
    label: clockHour(deg).replace(/ .*/, ''),
    more: "o'clock",
    done: props.taken.includes(deg),
  })),
])
</script>

<template>
  <OneOf v-model="at" class="places" :legend="legend" :options="options" />
</template>

<style scoped>
.places {
  margin-top: 0.5rem;
}
</style>
