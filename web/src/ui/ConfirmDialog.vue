<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'

/** Asks once before something that many later steps stand on. Enter leaves it: the act has to be meant. */
defineProps<{ title: string; action: string; busy?: boolean; error?: string | null | undefined }>()
defineEmits<{ yes: [] }>()
const open = defineModel<boolean>('open', { required: true })
</script>

<template>
  <Dialog v-model:visible="open" modal :header="title" class="confirm">
    <div class="inside">
      <slot />
      <p v-if="error" class="fault" role="alert">{{ error }}</p>
      <div class="actions">
        <Button type="button" label="Leave it" class="quiet" autofocus @click="open = false" />
        <Button type="button" :label="action" class="lamp" :disabled="busy" @click="$emit('yes')" />
      </div>
    </div>
  </Dialog>
</template>

<style scoped>
.inside {
  display: grid;
  gap: 0.8rem;
  width: min(28rem, 80vw);
}
.actions {
  display: flex;
  justify-content: flex-end;
  gap: 0.6rem;
}
</style>
