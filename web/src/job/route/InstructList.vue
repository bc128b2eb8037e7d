<script setup lang="ts">
import type { Instruct } from '@moray/core/route/route'
import TurnArrow from '../../ui/TurnArrow.vue'

/** What to do now, said before the act, a line each. */
defineProps<{ lines: readonly Instruct[] }>()
</script>

<template>
  <ul v-if="lines.length" class="instruct" aria-label="What to do">
    <li v-for="i in lines" :key="i.say">
      <TurnArrow v-if="i.turn" :turn="i.turn.turn" />
      <span>{{ i.say }}</span>
    </li>
  </ul>
</template>

<style scoped>
.instruct {
  display: grid;
  gap: 0.35rem;
  margin: 0.2rem 0 0.7rem;
  font-size: var(--t-lead);
  line-height: 1.3;
}
li {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  border-left: 3px solid var(--ink);
  padding-left: 0.7rem;
}
</style>
