<script setup lang="ts">
import type { Sure } from '@moray/core/drives/graph/edges'
import { isFigure, type Column } from '../forms/column.ts'

/** What a cell says while nobody types in it: a figure in both systems, one below the other; where its edges lead, and how sure that is. */
defineProps<{ column: Column; text: string; edges: readonly { id: string; name: string; sure: Sure }[] }>()
</script>

<template>
  <template v-if="column.is === 'edges'">
    <span v-for="(e, k) in edges" :key="e.id" class="small"
      ><template v-if="k">, </template
      ><span :class="{ guessed: e.sure !== true }"
        >{{ e.name }}{{ e.sure === 'unknown' ? ' ?' : ''
        }}<span v-if="e.sure === 'assumed'" class="sr-only"> (assumed)</span></span
      ></span
    >
  </template>
  <template v-else-if="isFigure(column)">
    <span v-for="(half, k) in text.split(' · ')" :key="k" class="half" :class="{ 'small soft': k > 0 }">{{
      half
    }}</span>
  </template>
  <template v-else>{{ text }}</template>
</template>

<style scoped>
.guessed {
  color: var(--ink-soft);
  text-decoration: underline dashed 1px;
  text-underline-offset: 3px;
}
.half {
  display: block;
  white-space: nowrap;
}
</style>
