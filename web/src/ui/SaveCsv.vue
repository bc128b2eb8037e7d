<script setup lang="ts" generic="T">
import type { CsvColumn } from '@moray/contract/csv'
import Button from 'primevue/button'
import { ref } from 'vue'
import { dayField } from './times.ts'

/** Saves a list as it is shown, as comma-separated values. */
const props = defineProps<{
  /** First word of the file's name. */
  name: string
  columns: readonly CsvColumn<T>[]
  /** The rows of now; a list that is shown by pages fetches the rest. */
  rows: () => readonly T[] | Promise<readonly T[]>
}>()
const busy = ref(false)
const failed = ref('')
async function save() {
  busy.value = true
  failed.value = ''
  try {
    const [{ csvText }, rows] = await Promise.all([import('@moray/contract/csv'), props.rows()])
    // with the mark by which table programs see that it is UTF-8
    const blob = new Blob([csvText(props.columns, rows, { bom: true })], { type: 'text/csv;charset=utf-8' })
    const link = document.createElement('a')
    link.href = URL.createObjectURL(blob)
    link.download = `${props.name}-${dayField(new Date())}.csv`
    link.click()
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
  } catch (e) {
    failed.value = e instanceof Error ? e.message : String(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <span class="save no-print">
    <Button label="Save as CSV" class="quiet small-button" :disabled="busy" @click="save" />
    <span v-if="failed" class="small" role="alert">{{ failed }}</span>
  </span>
</template>
