<script setup lang="ts">
import { ref } from 'vue'
import ReasonDialog from '../../ui/ReasonDialog.vue'

/** Going on although something does not hold: with a reason, and where the shop wants it with the lead's agreement. */
defineProps<{
  /** What does not hold. */
  unmet: readonly string[]
  /** Those who may agree; undefined where nobody has to. */
  leads: readonly { id: string; name: string }[] | undefined
  busy: boolean
  error: string | null | undefined
}>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ give: [reason: string, lead: string] }>()
const lead = ref('')
</script>

<template>
  <ReasonDialog
    v-model:open="open"
    title="Go on all the same"
    explain="What is open and your reason stand in the record, with your name."
    action="Go on"
    :busy="busy"
    :error="error"
    @give="(reason) => emit('give', reason, lead)"
  >
    <ul class="small open-list">
      <li v-for="w in unmet" :key="w">{{ w }}</li>
    </ul>
    <label v-if="leads" class="entries">
      The lead, who does this himself
      <select v-model="lead">
        <option value="">choose</option>
        <option v-for="p in leads" :key="p.id" :value="p.id">{{ p.name }}</option>
      </select>
    </label>
  </ReasonDialog>
</template>

<style scoped>
.open-list li {
  border-left: 3px solid var(--out);
  padding-left: 0.5rem;
  margin-bottom: 0.3rem;
}
</style>
