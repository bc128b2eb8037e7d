<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { REMOVED } from '@moray/core/job/removed'
import { ref } from 'vue'
import ReasonDialog from '../ui/ReasonDialog.vue'
import { keys, useQueryClient } from '../wire/queries.ts'
import { useWrite } from '../writing/use-write.ts'

/** What is kept of an owner: given out, or the name taken out. */
const props = defineProps<{ owner: string }>()
const client = useQueryClient()
const write = useWrite()
const removing = ref(false)
async function remove(reason: string) {
  const reply = await write.send(endpoints.removeOwner, {}, { owner: props.owner, reason })
  if (!reply) return
  removing.value = false
  await client.invalidateQueries({ queryKey: keys.jobs })
}
</script>

<template>
  <span v-if="owner !== REMOVED" class="owner-data">
    <a class="small" :href="`/api/owner/zip?owner=${encodeURIComponent(owner)}`" download
      >what is kept of them</a
    >
    <button type="button" class="texty small" @click="removing = true">take the name out</button>
    <ReasonDialog
      v-model:open="removing"
      title="Take the name of an owner out"
      :explain="`“${owner}” goes out of every job, approval and entry of the history; drives, readings and tests stay. It cannot be undone. What somebody typed into notes stays, and copies made before keep the name until they are let go.`"
      action="Take it out"
      :busy="write.busy.value"
      :error="write.error.value?.message"
      @give="remove"
    />
  </span>
</template>

<style scoped>
.owner-data {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.2rem;
  align-items: center;
}
.owner-data a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
</style>
