<script setup lang="ts">
import type { Turn } from '@moray/core/torque/thread-turn'

/** Which way the tool turns, seen from where it goes on. Always beside the word. */
defineProps<{ turn: Turn }>()
</script>

<template>
  <svg class="turn" width="72" height="72" viewBox="0 0 72 72" aria-hidden="true">
    <g :transform="turn === 'clockwise' ? '' : 'translate(72 0) scale(-1 1)'">
      <path d="M14 50 A26 26 0 1 1 58 50" class="way" />
      <path d="M50 44 L60 54 L66 40 Z" class="tip" />
    </g>
    <path d="M36 27 l8 4.6 v9.2 l-8 4.6 l-8 -4.6 v-9.2 Z" class="nut" />
  </svg>
</template>

<style scoped>
.turn {
  flex: none;
}
.way {
  fill: none;
  stroke: var(--ink);
  stroke-width: 5;
}
.tip {
  fill: var(--ink);
}
.nut {
  fill: var(--steel);
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
