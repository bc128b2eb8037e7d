<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { ref, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import FormDialog from '../ui/FormDialog.vue'
import { useDrives } from '../wire/queries.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import type { ShownJob } from './shown-job.ts'

/** The other case of the same unit comes into this job, with a sheet of its own. */
const props = defineProps<{ job: ShownJob }>()
const emit = defineEmits<{ close: [] }>()
const drives = useDrives()
const router = useRouter()
const write = useJobWrite()
const sheetId = ref('')
const serial = ref('')
/** The sheet says which other half belongs to it. */
watchEffect(() => {
  const partner = props.job.sheet.further?.partner
  if (!sheetId.value && partner && drives.sheets?.some((s) => s.id === partner)) sheetId.value = partner
})
async function add() {
  const reply = await write.send(
    endpoints.addCase,
    { id: props.job.id },
    { sheetId: sheetId.value, serial: serial.value.trim() },
  )
  if (!reply) return
  emit('close')
  if (reply.partner) void router.push(`/jobs/${reply.partner.id}/scope`)
}
</script>

<template>
  <FormDialog
    header="Its other half in this job"
    action="Take it in"
    :busy="write.busy.value"
    :unready="!sheetId || !serial.trim()"
    :columns="1"
    @send="add"
    @close="emit('close')"
  >
    <p class="small">
      Each case keeps its own stacks, trials and test. Joining, the joined test, filling and the run are done
      once, on the route of the half with the propeller.
    </p>
    <label>
      Other half
      <select v-model="sheetId">
        <option value="">choose the sheet</option>
        <option
          v-for="s in (drives.sheets ?? []).filter((x) => x.id !== job.sheet.id)"
          :key="s.id"
          :value="s.id"
        >
          {{ s.name }}
        </option>
      </select>
    </label>
    <label>Its serial number <input v-model="serial" type="text" maxlength="60" /></label>
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
  </FormDialog>
</template>
