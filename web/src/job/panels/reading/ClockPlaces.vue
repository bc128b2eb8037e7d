<script setup lang="ts">
import { computed } from 'vue'
import { clockHour } from '../../reading-words.ts'

/** Where round the gear the next reading is taken: any of four places, or not said. What has a reading already is marked. */
const props = defineProps<{ taken: readonly number[]; legend: string }>()
const at = defineModel<number | null>({ required: true })

const PLACES = [0, 90, 180, 270]
const options = computed(() => [
  { deg: null, label: 'not said' },
  ...PLACES.map((deg) => ({ deg, label: clockHour(deg).replace(/ .*/, '') })),
])
const read = (deg: number | null) => deg !== null && props.taken.includes(deg)
</script>

<template>
  <fieldset class="one-of places">
    <legend class="small soft">{{ legend }}</legend>
    <label v-for="o in options" :key="String(o.deg)" :class="{ on: at === o.deg }">
      <input v-model="at" type="radio" name="clock" :value="o.deg" class="sr-only" />
      {{ o.label }}<span v-if="o.deg !== null" class="sr-only"> o'clock</span
      ><span v-if="read(o.deg)" aria-label="read"> ✓</span>
    </label>
  </fieldset>
</template>

<style scoped>
.places {
  margin-top: 0.5rem;
}
</style>
