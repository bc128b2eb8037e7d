<script setup lang="ts">
import { computed } from 'vue'

/** State of a step: shape and word first, the lamp only for what is due. */
const props = defineProps<{
  state: 'done' | 'open' | 'waiting' | 'blocked' | 'departed' | 'due'
  bare?: boolean
}>()
const word = computed(
  () =>
    ({
      done: 'done',
      open: 'can go on now',
      waiting: 'waits for time',
      blocked: 'shut',
      departed: 'departed from',
      due: 'due now',
    })[props.state],
)
</script>

<template>
  <span class="mark" :class="state">
    <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
      <path v-if="state === 'done'" d="M3 10 L8 16 L17 4" class="thick" />
      <template v-else-if="state === 'departed'">
        <path d="M3 10 L8 16 L17 4" class="thick" />
        <path d="M3 4 L17 17" />
      </template>
      <template v-else-if="state === 'blocked'">
        <path d="M4 3 V17 M16 3 V17 M4 7 H16 M4 13 H16" />
      </template>
      <template v-else-if="state === 'waiting'">
        <circle cx="10" cy="10" r="7" />
        <path d="M10 5 V10 L14 12" />
      </template>
      <circle v-else-if="state === 'due'" cx="10" cy="10" r="7" class="lamp" />
      <circle v-else cx="10" cy="10" r="4" />
    </svg>
    <span :class="{ 'sr-only': bare }">{{ word }}</span>
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
  flex: none;
}
svg {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.7;
}
.thick {
  stroke-width: 2.6;
}
.lamp {
  fill: var(--lamp);
}
.open svg,
.blocked svg {
  stroke: var(--ink-soft);
}
</style>
