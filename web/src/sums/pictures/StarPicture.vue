<script setup lang="ts">
import type { TorqueOrder, TorqueOrderInput } from '@moray/core/torque/order'
import { computed } from 'vue'

/** The fasteners where they sit, numbered in the order of tightening. */
const props = defineProps<{ input: TorqueOrderInput; result: TorqueOrder }>()
const SIZE = 240
const places = computed(() => {
  const n = props.result.order.length
  const raw =
    props.input.positions ??
    Array.from({ length: n }, (_, i) => {
      const a = (2 * Math.PI * i) / n - Math.PI / 2
      return { x: Math.cos(a), y: Math.sin(a) }
    })
  const [xs, ys] = [raw.map((p) => p.x), raw.map((p) => p.y)]
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)]
  const span = Math.max(Math.max(...xs) - x0, Math.max(...ys) - y0, 1e-9)
  return raw.map((p) => ({
    x: 26 + ((p.x - x0) / span) * (SIZE - 52),
    y: 26 + ((p.y - y0) / span) * (SIZE - 52),
  }))
})
const path = computed(() =>
  props.result.order.map((i) => `${places.value[i]!.x},${places.value[i]!.y}`).join(' '),
)
const rank = (i: number) => props.result.order.indexOf(i) + 1
</script>

<template>
  <svg
    :viewBox="`0 0 ${SIZE} ${SIZE}`"
    role="img"
    :aria-label="`Order: ${result.order.map((i) => i + 1).join(', ')}`"
  >
    <polyline :points="path" class="way" />
    <g v-for="(p, i) in places" :key="i">
      <circle :cx="p.x" :cy="p.y" r="15" class="head" :class="{ first: rank(i) === 1 }" />
      <text :x="p.x" :y="p.y + 5" text-anchor="middle">{{ rank(i) }}</text>
    </g>
  </svg>
  <p class="small soft">
    Numbers: which comes when. All started by hand first; a check pass round at the end.
  </p>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 17rem;
  display: block;
}
.way {
  fill: none;
  stroke: var(--line-strong);
  stroke-dasharray: 5 4;
}
.head {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.first {
  fill: var(--lamp);
}
text {
  font-family: var(--font);
  font-size: 14px;
  font-weight: 700;
  fill: var(--ink);
}
.first + text {
  fill: var(--lamp-ink);
}
</style>
