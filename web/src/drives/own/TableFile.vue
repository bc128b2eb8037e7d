<script setup lang="ts">
import { ref } from 'vue'
import type { WireError } from '../../wire/client.ts'

/** A list as a table of comma-separated values, out and in. What is wrong with one that comes in stands here by row and column. */
defineProps<{ href: string; what: string; busy: boolean; error: WireError | null }>()
const emit = defineEmits<{ table: [csv: string] }>()
const tried = ref(false)
async function take(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  tried.value = true
  // tables of other systems end their lines otherwise, and may begin with a mark
  emit(
    'table',
    (await file.text())
      .replace(/^\uFEFF/, '')
      .replace(/\r\n?/g, '\n')
      .replace(/\t/g, ' '),
  )
  input.value = ''
}
</script>

<template>
  <div class="file small">
    <a :href="href" download>Save the {{ what }} as a table</a>
    <label class="texty small">
      Take a table in
      <input type="file" accept=".csv,text/csv" class="sr-only" :disabled="busy" @change="take" />
    </label>
    <div v-if="tried && error" class="fault" role="alert">
      <p>Nothing was taken in.</p>
      <ul v-if="error.fields.length">
        <li v-for="f in error.fields.slice(0, 12)" :key="f.path + f.message">
          <strong>{{ f.path }}</strong>: {{ f.message }}
        </li>
        <li v-if="error.fields.length > 12">and {{ error.fields.length - 12 }} more</li>
      </ul>
      <p v-else>{{ error.message }}</p>
    </div>
  </div>
</template>

<style scoped>
.file {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  align-items: center;
  padding: 0.5rem 0;
}
.file a,
.file label {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  cursor: pointer;
}
.file label:focus-within {
  outline: 3px solid var(--focus);
}
.fault {
  width: 100%;
}
</style>
