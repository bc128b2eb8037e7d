<script setup lang="ts">
import Button from 'primevue/button'
import type { WireError } from '../wire/client.ts'

/** What stands where a list or a page will be: loading by name, or why it is not there and a way to try again; the slot holds other ways on. */
defineProps<{ what: string; error?: WireError | null }>()
defineEmits<{ again: [] }>()
</script>

<template>
  <div class="state" role="status">
    <template v-if="error">
      <p class="fault">Could not load {{ what }}. {{ error.message }}</p>
      <Button label="Try again" class="quiet" @click="$emit('again')" />
      <slot />
    </template>
    <p v-else class="soft">Loading {{ what }} …</p>
  </div>
</template>

<style scoped>
.state {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
  padding: 1.5rem 0;
}
</style>
