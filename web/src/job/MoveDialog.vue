<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { computed, ref } from 'vue'
import { serialsOf } from '../drives/own/show-figure.ts'
import FormDialog from '../ui/FormDialog.vue'
import { useDrives } from '../wire/queries.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import type { ShownJob } from './shown-job.ts'

/** The stamps say that it is another drive or variant: the job goes on with that one's sheet. */
const props = defineProps<{ job: ShownJob }>()
const emit = defineEmits<{ close: [] }>()
const drives = useDrives()
const write = useJobWrite()
const sheetId = ref(props.job.sheet.id)
const variant = ref('')
const reason = ref('')
const variants = computed(() => drives.sheets?.find((s) => s.id === sheetId.value)?.variants ?? [])
async function move() {
  const reply = await write.send(
    endpoints.moveJob,
    { id: props.job.id },
    {
      sheetId: sheetId.value,
      ...(variants.value.some((v) => v.id === variant.value) ? { variant: variant.value } : {}),
      reason: reason.value.trim(),
    },
  )
  if (reply) emit('close')
}
</script>

<template>
  <FormDialog
    header="It is another drive"
    action="Go on with that sheet"
    :busy="write.busy.value"
    :unready="reason.trim().length < 3"
    :columns="1"
    @send="move"
    @close="emit('close')"
  >
    <p class="small">
      Before anything lies in the row or is measured the job can change its sheet. What was answered stays.
    </p>
    <label>
      Drive
      <select v-model="sheetId">
        <option v-for="s in drives.sheets ?? []" :key="s.id" :value="s.id">{{ s.name }}</option>
      </select>
    </label>
    <label v-if="variants.length">
      Variant
      <select v-model="variant">
        <option value="">none of them</option>
        <option v-for="v in variants" :key="v.id" :value="v.id">
          {{ v.label }}{{ serialsOf(v) ? `, ${serialsOf(v)}` : '' }}
        </option>
      </select>
    </label>
    <label>How that was seen <input v-model="reason" type="text" maxlength="300" /></label>
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
  </FormDialog>
</template>
