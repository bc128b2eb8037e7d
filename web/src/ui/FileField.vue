<script setup lang="ts">
/** Chooses a file; the same one can be chosen again after something went wrong with it. */
defineProps<{ accept: string; busy?: boolean }>()
const emit = defineEmits<{ choose: [file: File] }>()
function take(e: Event) {
  const field = e.target as HTMLInputElement
  const [file] = field.files ?? []
  field.value = ''
  if (file) emit('choose', file)
}
</script>

<template>
  <label class="file">
    <slot />
    <input type="file" :accept="accept" :disabled="busy" @change="take" />
  </label>
</template>

<style scoped>
.file {
  display: grid;
  gap: 0.3rem;
  margin-top: 0.6rem;
  max-width: 30rem;
}
.file input {
  min-height: 44px;
  font: inherit;
}
</style>
