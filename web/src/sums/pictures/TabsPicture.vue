<script setup lang="ts">
import { phaseOf, type LockAlignment, type LockAlignmentInput } from '@moray/core/torque/lock-alignment'
import { threadTurn, type Hand } from '@moray/core/torque/thread-turn'
import { computed } from 'vue'
import TurnArrow from '../../ui/TurnArrow.vue'

/** The nut's tabs over the slots, now and after the further turn, as they stand under the eye. */
const props = defineProps<{ input: LockAlignmentInput & { hand?: Hand }; result: LockAlignment }>()
const turn = computed(() => threadTurn(props.input.hand ?? 'right', 'tightens'))
/** A left-hand thread is drawn as it turns: mirrored. */
const mirror = computed(() => (props.input.hand === 'left' ? -1 : 1))
const [R, C] = [78, 100]
const TOLERANCE = 1e-6
const point = (deg: number, r: number): [number, number] => {
  const a = ((mirror.value * deg - 90) * Math.PI) / 180
  return [C + r * Math.cos(a), C + r * Math.sin(a)]
}
const slots = computed(() =>
  Array.from({ length: props.input.slots }, (_, j) => (360 * j) / props.input.slots),
)
const tabsAt = (turn: number) =>
  Array.from({ length: props.input.tabs }, (_, i) => {
    const deg = (360 * i) / props.input.tabs + turn - phaseOf(props.input)
    const off = Math.min(
      ...slots.value.map((s) => {
        const d = (((deg - s) % 360) + 360) % 360
        return Math.min(d, 360 - d)
      }),
    )
    return { deg, meets: off <= (props.input.toleranceDeg ?? 0) + TOLERANCE }
  })
const dials = computed(() => [
  { name: 'At torque', tabs: tabsAt(0), turn: 0 },
  ...(props.result.possible
    ? [
        {
          name: `Turned ${props.result.advanceDeg!.toFixed(1)}° further`,
          tabs: tabsAt(props.result.advanceDeg!),
          turn: props.result.advanceDeg!,
        },
      ]
    : []),
])
const wedge = (deg: number, half: number, inner: number, outer: number) =>
  [point(deg - half, inner), point(deg - half, outer), point(deg + half, outer), point(deg + half, inner)]
    .map((p) => p.map((v) => v.toFixed(1)).join(','))
    .join(' ')
</script>

<template>
  <div class="dials">
    <figure v-for="d in dials" :key="d.name">
      <svg
        viewBox="0 0 200 200"
        role="img"
        :aria-label="`${d.name}: ${d.tabs.filter((t) => t.meets).length} tabs meet a slot`"
      >
        <circle :cx="C" :cy="C" :r="R" class="ring" />
        <polygon v-for="s in slots" :key="s" :points="wedge(s, 3.2, R, R + 16)" class="slot" />
        <polygon
          v-for="(t, i) in d.tabs"
          :key="i"
          :points="wedge(t.deg, 2.4, R - 22, R + (t.meets ? 12 : 0))"
          :class="['tab', { meets: t.meets }]"
        />
        <text :x="C" :y="C - 2" text-anchor="middle" class="big">
          {{ d.tabs.filter((t) => t.meets).length }}
        </text>
        <text :x="C" :y="C + 18" text-anchor="middle">meet</text>
      </svg>
      <figcaption class="small">{{ d.name }}</figcaption>
    </figure>
  </div>
  <p v-if="!result.possible" class="fault">
    No further turn brings enough together: another washer, or the low end of the window.
  </p>
  <p v-else class="turning">
    <TurnArrow :turn="turn" />
    <span>
      {{ input.hand === 'left' ? 'Left-hand thread: anticlockwise' : 'Right-hand thread: clockwise' }}
      tightens. Never back.
    </span>
  </p>
</template>

<style scoped>
.turning {
  display: flex;
  gap: 0.8rem;
  align-items: center;
}
.dials {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
}
figure {
  margin: 0;
  flex: 1 1 11rem;
  max-width: 15rem;
}
.ring {
  fill: var(--gear);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.slot {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1;
}
.tab {
  fill: var(--steel-dark);
  stroke: var(--ink);
  stroke-width: 1;
}
.tab.meets {
  fill: var(--lamp);
}
text {
  font-family: var(--font);
  font-size: 12px;
  fill: var(--ink);
}
.big {
  font-size: 26px;
  font-weight: 700;
}
</style>
