<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { ref, useId, watch } from 'vue'

/** Asks for a reason before something that stays in the record. */
const props = defineProps<{
  title: string
  explain: string
  action: string
  busy?: boolean
  error?: string | null | undefined
  /** Shortest reason that is accepted. */
  least?: number
}>()
const emit = defineEmits<{ give: [reason: string] }>()
const open = defineModel<boolean>('open', { required: true })
const reason = ref('')
const id = useId()
watch(open, (now) => {
  if (now) reason.value = ''
})
const enough = () => reason.value.trim().length >= (props.least ?? 3)
function give() {
  if (enough()) emit('give', reason.value.trim())
}
</script>

<template>
  <Dialog v-model:visible="open" modal :header="title" class="reason">
    <form @submit.prevent="give">
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
      <div class="actions">
        <Button type="button" label="Leave it" class="quiet" @click="open = false" />
        <Button type="submit" :label="action" class="lamp" :disabled="!enough() || busy" />
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.6rem;
  width: min(28rem, 80vw);
}
label {
  font-weight: 700;
}
textarea {
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  padding: 0.6rem;
  resize: vertical;
}
.actions {
  display: flex;
  justify-content: flex-end;
  gap: 0.6rem;
}
</style>
