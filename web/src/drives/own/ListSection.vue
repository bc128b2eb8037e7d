<script setup lang="ts">
/** A part of a draft that is entered in a dialog: its title, and the button that opens it. */
defineProps<{ title: string; action: string }>()
const emit = defineEmits<{ act: [] }>()
</script>

<template>
  <section :aria-label="title">
    <header>
      <h3>{{ title }}</h3>
      <button type="button" class="texty" @click="emit('act')">{{ action }}</button>
    </header>
    <slot />
  </section>
</template>

<style scoped>
section {
  padding: 0.7rem 0 0;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 1rem;
  border-bottom: 1px solid var(--line);
}
h3 {
  margin: 0;
}
</style>
