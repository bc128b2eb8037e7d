<script setup lang="ts">
import type { Verdict } from '@moray/core/measuring/judge'
import { computed } from 'vue'

/** Shape and word first, colour second: a dot and where it stands to the two limit bars. */
const props = defineProps<{ verdict?: Verdict | 'superseded' | 'no-window' | undefined; bare?: boolean }>()

const WORDS = {
  in: 'inside',
  out: 'outside',
  'too-close': 'too close to call',
  superseded: 'set aside',
  none: 'not measured',
  'no-window': 'no window yet',
} as const
const kind = computed(() => props.verdict ?? 'none')
const word = computed(() => WORDS[kind.value])
</script>

<template>
  <span class="mark" :class="kind">
    <svg width="34" height="18" viewBox="0 0 34 18" aria-hidden="true">
      <template v-if="kind !== 'superseded'">
        <line x1="8" y1="1" x2="8" y2="17" />
        <line x1="26" y1="1" x2="26" y2="17" />
      </template>
      <circle v-if="kind === 'in'" cx="17" cy="9" r="5" class="full" />
      <template v-else-if="kind === 'out'">
        <path d="M28 4 L33 9 L28 14" />
        <line x1="10" y1="9" x2="32" y2="9" />
      </template>
      <template v-else-if="kind === 'too-close'">
        <circle cx="26" cy="9" r="5" />
        <path d="M26 4 A5 5 0 0 0 26 14 Z" class="full" />
      </template>
      <template v-else-if="kind === 'superseded'">
        <circle cx="17" cy="9" r="5" />
        <line x1="6" y1="9" x2="28" y2="9" />
      </template>
      <circle v-else cx="17" cy="9" r="4" class="dashed" />
    </svg>
    <span :class="{ 'sr-only': bare }">{{ word }}</span>
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
  font-weight: 700;
  white-space: nowrap;
}
svg {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  flex: none;
}
.full {
  fill: currentColor;
}
.dashed {
  stroke-dasharray: 2.5 2.5;
  stroke-width: 1.5;
}
.in {
  color: var(--in);
}
.out {
  color: var(--out);
}
.too-close {
  color: var(--close);
}
.none,
.superseded {
  color: var(--ink-soft);
  font-weight: 400;
}
</style>
