<script setup lang="ts">
import { ref, watch } from 'vue'
import LeadChoice from './LeadChoice.vue'
import ReasonDialog from '../../ui/ReasonDialog.vue'

/** Going on although something does not hold: with a reason, and where the shop wants it with the lead's agreement. */
defineProps<{
  /** What does not hold. */
  unmet: readonly string[]
  /** Those who may agree; undefined where nobody has to. */
  leads: readonly { id: string; name: string }[] | undefined
  /** Whether it is asked if the work was done: not where only a list is accepted. */
  asksWork: boolean
  busy: boolean
  error: string | null | undefined
}>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ give: [reason: string, lead: string, undone: boolean] }>()
const lead = ref('')
const undone = ref(false)
watch(open, () => (undone.value = false))
</script>

<template>
  <ReasonDialog
    v-model:open="open"
    title="Go on all the same"
    explain="What is open and your reason stand in the record, with your name."
    action="Go on"
    :busy="busy"
    :error="error"
    @give="(reason) => emit('give', reason, lead, asksWork && undone)"
  >
    <ul class="small open-list">
      <li v-for="w in unmet" :key="w">{{ w }}</li>
    </ul>
    <fieldset v-if="asksWork" class="work">
      <legend>The work of this step</legend>
      <label><input v-model="undone" type="radio" :value="false" /> done anyway</label>
      <label><input v-model="undone" type="radio" :value="true" /> left undone</label>
      <p v-if="undone" class="small">
        What that leaves open stands on the handover step, and is mended or accepted there by name.
      </p>
    </fieldset>
    <LeadChoice v-if="leads" v-model="lead" :leads="leads" />
  </ReasonDialog>
</template>

<style scoped>
.work {
  border: 0;
  padding: 0;
  margin: 0.6rem 0;
}
.work label {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  margin-right: 1.2rem;
  min-height: 2.75rem;
}
.open-list li {
  border-left: 3px solid var(--out);
  padding-left: 0.5rem;
  margin-bottom: 0.3rem;
}
</style>
