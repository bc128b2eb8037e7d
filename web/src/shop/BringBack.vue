<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { Copies } from '@moray/contract/copies'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import FileField from '../ui/FileField.vue'
import { showBytes } from '../ui/bytes.ts'
import { showTime } from '../ui/times.ts'
import { asWireError, send, sendBytes, type WireError } from '../wire/client.ts'
import { newRequestId } from '../wire/request-id.ts'
import { keys, useQueryClient } from '../wire/queries.ts'
import { useWatchedCopies } from './use-copies.ts'

/** In an empty shop: a copy is brought back, one that lies in the folder of the copies or one that is chosen as a file. */
const store = useWatchedCopies()
const client = useQueryClient()
const copies = computed(() => store.copies)
const sending = ref(false)
const error = ref<WireError | null>(null)
async function begin(work: () => Promise<Copies>) {
  error.value = null
  sending.value = true
  try {
    client.setQueryData(keys.copies, await work())
  } catch (e) {
    error.value = asWireError(e)
  } finally {
    sending.value = false
  }
}
const fromFolder = (name: string) =>
  begin(() => send(endpoints.bringBackCopy, {}, { name }, '', newRequestId()))
const fromFile = (file: File) =>
  begin(() => sendBytes(endpoints.sendCopy, {}, {}, file, '', newRequestId(), null))
const busy = computed(() => sending.value || !!copies.value?.running)
</script>

<template>
  <section aria-labelledby="back-head">
    <h2 id="back-head">Bring back a copy</h2>
    <p v-if="error" class="fault" role="alert">{{ error.message }}</p>
    <p v-else-if="copies?.failed?.what === 'back'" class="fault" role="alert">
      Nothing was brought back: {{ copies.failed.why }}
    </p>
    <p v-if="busy" role="status">
      {{ sending ? 'The copy is being sent.' : 'The copy is being brought back.' }} This page is loaded anew
      when the shop is here.
    </p>
    <template v-else>
      <p class="soft">On the machine that Moray runs on. Everything is as it was when the copy was made.</p>
      <ul v-if="copies?.copies.length">
        <li v-for="c in copies.copies" :key="c.name">
          <span>{{ showTime(c.at) }}</span>
          <span class="mono small soft">{{ showBytes(c.bytes) }}</span>
          <Button
            label="Bring it back"
            class="quiet small-button"
            :aria-label="`Bring back the copy of ${showTime(c.at)}`"
            @click="fromFolder(c.name)"
          />
        </li>
      </ul>
      <FileField accept=".zip" @choose="fromFile">Choose a copy, from a stick or another machine</FileField>
    </template>
  </section>
</template>

<style scoped>
section {
  border-top: 2px solid var(--ink);
  padding-top: 0.6rem;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.2rem;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
}
</style>
