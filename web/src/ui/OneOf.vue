<script setup lang="ts" generic="T extends string | number | boolean | null | undefined">
import { useId } from 'vue'

/** One of a few, side by side: large enough for a glove, with a mark where something is done already. */
defineProps<{
  legend: string
  options: {
    value: T
    label: string
    /** Read out after the label, not shown. */ more?: string
    done?: boolean
  }[]
}>()
const chosen = defineModel<T>({ required: true })
const name = useId()
</script>

<template>
  <fieldset class="one-of">
    <legend class="small soft">{{ legend }}</legend>
    <label v-for="o in options" :key="String(o.value)" :class="{ on: chosen === o.value }">
      <input
        type="radio"
        class="sr-only"
        :name="name"
        :checked="chosen === o.value"
        @change="chosen = o.value"
      />
      {{ o.label }}<span v-if="o.more" class="sr-only">{{ ` ${o.more}` }}</span
      ><span v-if="o.done" aria-label="done"> ✓</span>
    </label>
  </fieldset>
</template>
