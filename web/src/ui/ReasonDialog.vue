<script setup lang="ts">
import { ref, useId, watch } from 'vue'
import FormDialog from './FormDialog.vue'

/** Asks for a reason before something that stays in the record. */
const props = defineProps<{
  title: string
  explain: string
  action: string
  busy?: boolean
  error?: string | null | undefined
  /** Shortest reason that is accepted. */
  least?: number
  /** Something else in the dialog is still to be said. */
  unready?: boolean
}>()
const emit = defineEmits<{ give: [reason: string] }>()
const open = defineModel<boolean>('open', { required: true })
const reason = ref('')
const id = useId()
watch(open, (now) => {
  if (now) reason.value = ''
})
const enough = () => !props.unready && reason.value.trim().length >= (props.least ?? 3)
function give() {
  if (enough()) emit('give', reason.value.trim())
}
</script>

<template>
  <FormDialog
    v-if="open"
    :header="title"
    :action="action"
    :busy="busy ?? false"
    :unready="!enough()"
    :columns="1"
    class="reason"
    @send="give"
    @close="open = false"
  >
    <p>{{ explain }}</p>
    <slot />
    <label :for="id">Reason</label>
    <textarea
      :id="id"
      v-model="reason"
      rows="3"
      maxlength="300"
      autofocus
      @keydown.enter.exact.prevent="give"
    ></textarea>
    <p v-if="error" class="fault" role="alert">{{ error }}</p>
  </FormDialog>
</template>

<style scoped>
textarea {
  resize: vertical;
}
</style>
