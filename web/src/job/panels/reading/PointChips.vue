<script setup lang="ts">
/** What has been read so far of something that takes several points: each can be struck again. */
defineProps<{
  points: readonly string[]
  /** What one of them is called. */
  what: string
}>()
defineEmits<{ strike: [index: number] }>()
</script>

<template>
  <ol v-if="points.length" class="points mono">
    <li v-for="(p, i) in points" :key="i">
      {{ p }}
      <button
        type="button"
        class="texty small"
        :aria-label="`Strike ${what} ${i + 1}`"
        @click="$emit('strike', i)"
      >
        ×
      </button>
    </li>
  </ol>
</template>

<style scoped>
.points {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.6rem;
}
li {
  border: 1px solid var(--line-strong);
  padding: 0 0.1rem 0 0.5rem;
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
}
button {
  min-width: 32px;
  min-height: 32px;
}
</style>
