<script setup lang="ts">
/** A stack behind a gear that meshes, and where a thicker one pushes it: into its mate, or away. */
defineProps<{ into: boolean }>()
</script>

<template>
  <svg viewBox="0 0 74 34" width="74" height="34" aria-hidden="true">
    <path d="M4 30 L20 8 L28 14 L12 33 Z" class="mate" />
    <path v-if="into" d="M34 6 L48 6 L48 28 L30 28 Z" class="gear" />
    <path v-else d="M34 6 L48 6 L48 28 L30 28 Z" class="gear" />
    <path v-if="into" d="M50 6 h4 v22 h-4 Z M55 6 h4 v22 h-4 Z" class="shim" />
    <path v-else d="M24 2 h3 v6 h-3 Z M28 2 h3 v6 h-3 Z" class="shim" />
    <path :d="into ? 'M72 17 H62 M66 12 L61 17 L66 22' : 'M56 17 H70 M65 12 L71 17 L65 22'" class="arrow" />
  </svg>
</template>

<style scoped>
.mate,
.gear {
  fill: var(--gear);
  stroke: var(--ink);
}
.shim {
  fill: var(--lamp);
  stroke: var(--ink);
  stroke-width: 0.8;
}
.arrow {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}
</style>
