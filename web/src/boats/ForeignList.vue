<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { ref } from 'vue'
import { RouterLink } from 'vue-router'
import { useShop } from '../stores/shop.ts'
import FileField from '../ui/FileField.vue'
import { showDate } from '../ui/times.ts'
import { asWireError, sendBytes, type WireError } from '../wire/client.ts'
import { useForeignJobs } from '../wire/found.ts'
import { keys, useQueryClient } from '../wire/queries.ts'
import { newRequestId } from '../wire/request-id.ts'

/** Records that other shops have sent along. */
const store = useForeignJobs()
const client = useQueryClient()
const shop = useShop()
const busy = ref(false)
const error = ref<WireError | null>(null)
async function take(file: File) {
  busy.value = true
  error.value = null
  try {
    const list = await sendBytes(endpoints.bringForeign, {}, {}, file, shop.personId, newRequestId(), null)
    client.setQueryData(keys.foreign, list)
  } catch (cause) {
    error.value = asWireError(cause)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section aria-label="Records of other shops">
    <h2>Records of other shops</h2>
    <p v-if="error" class="fault" role="alert">{{ error.message }}</p>
    <ul v-if="store.records?.length">
      <li v-for="f in store.records" :key="f.id">
        <RouterLink :to="`/foreign/${f.id}`">
          <span class="mono">{{ f.number }}</span> {{ f.sheetName }} · {{ f.boat }}
        </RouterLink>
        <span class="small soft"
          >{{ f.shop || 'another shop' }}, opened {{ showDate(f.openedAt) }}; brought in
          {{ showDate(f.at) }} by {{ f.by }}</span
        >
      </li>
    </ul>
    <FileField accept=".zip" :busy="busy" @choose="take">{{
      busy ? 'It is being read and checked.' : 'Bring in a job’s zip from another Moray'
    }}</FileField>
  </section>
</template>

<style scoped>
section {
  border-top: 2px solid var(--ink);
  padding-top: 0.4rem;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
}
</style>
