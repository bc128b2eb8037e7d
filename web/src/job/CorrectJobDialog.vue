<script setup lang="ts">
import type { CorrectJob } from '@moray/contract/requests/life'
import { endpoints } from '@moray/contract/endpoints'
import { plainNumber } from '@moray/core/units/plain-number'
import { reactive } from 'vue'
import FormDialog from '../ui/FormDialog.vue'
import { problemAt } from '../wire/client.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import type { ShownJob } from './shown-job.ts'

/** What was written down when the drive came in, put right with a reason; what it was stays in the history. */
const props = defineProps<{ job: ShownJob }>()
const emit = defineEmits<{ close: [] }>()
const write = useJobWrite()
const { serial, boat, owner, water, hours, complaint } = props.job
const form = reactive({
  serial,
  boat,
  owner,
  water,
  hours: hours === null ? '' : String(hours),
  complaint,
  reason: '',
})
const said = (field: string) => problemAt(write.error.value, field)
async function correct() {
  const typed = form.hours.trim()
  const body: CorrectJob = {
    serial: form.serial,
    boat: form.boat,
    owner: form.owner,
    water: form.water,
    ...(typed ? { hours: plainNumber(typed.replace(/\s*h$/i, '')) ?? NaN } : {}),
    // a service may have come without one, which then stays as it is
    ...(form.complaint === complaint ? {} : { complaint: form.complaint }),
    reason: form.reason,
  }
  if (await write.send(endpoints.correctJob, { id: props.job.id }, body)) emit('close')
}
const FIELDS = [
  ['serial', 'Serial number', 60],
  ['boat', 'Boat', 80],
  ['owner', 'Owner', 80],
  ['hours', 'Hours', 12],
] as const
</script>

<template>
  <FormDialog
    header="Correct what is written"
    action="Correct it"
    :busy="write.busy.value"
    @send="correct"
    @close="emit('close')"
  >
    <label v-for="[field, label, most] in FIELDS" :key="field">
      {{ label }}
      <input v-model="form[field]" :maxlength="most" autocomplete="off" />
      <span v-if="said(field)" class="bad" role="alert">{{ said(field) }}</span>
    </label>
    <label>
      Water
      <select v-model="form.water">
        <option>salt</option>
        <option>brackish</option>
        <option>fresh</option>
      </select>
    </label>
    <label class="wide">
      Complaint
      <textarea v-model="form.complaint" rows="2" maxlength="600"></textarea>
      <span v-if="said('complaint')" class="bad" role="alert">{{ said('complaint') }}</span>
    </label>
    <label class="wide">
      Why it is corrected
      <input v-model="form.reason" maxlength="300" autocomplete="off" />
      <span v-if="said('reason')" class="bad" role="alert">{{ said('reason') }}</span>
    </label>
    <p v-if="said('details')" class="fault wide" role="alert">Nothing is changed yet.</p>
    <p v-else-if="write.error.value && !write.error.value.fields.length" class="fault wide" role="alert">
      {{ write.error.value.message }}
    </p>
  </FormDialog>
</template>
