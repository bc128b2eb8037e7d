<script setup lang="ts">
import type { Verdict } from '@moray/core/measuring/judge'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { HoldMark } from './hold-marks.ts'
import { placeTags, type Box } from './labels.ts'
import { housing, shaftEnds } from './housing.ts'
import {
  boxOf,
  layOut,
  type Section,
  SHIM_FACTOR,
  TRAVEL_FACTOR,
  type Point,
  type SectionState,
  type Shape,
} from './section.ts'

export interface DrawingTag {
  /** Place on the drawing: `stack:pinion`, `measure:depth` … */
  id: string
  name: string
  value: string
  below?: string
  verdict?: Verdict | 'no-window'
}

const props = defineProps<{
  sheet: DriveSheet
  state?: SectionState
  tags?: DrawingTag[]
  /** The place that is due now. */
  lit?: string
  maxHeight?: number
  /** What places come to: outlined, filled or dashed. With it every place can be picked. */
  marks?: Record<string, 'off' | 'new' | 'wanted'>
  /** What is held, loaded and rocked while something is read. */
  hold?: HoldMark[]
  /** Without the note on scale factors (small pictures in lists). */
  plain?: boolean
}>()
const emit = defineEmits<{ pick: [place: string] }>()

const frame = useTemplateRef<HTMLElement>('frame')
const { width: measured } = useElementSize(frame)
const MARGIN = 14
/** What a tag may lie over: it is only there to say what kind of drive this is. */
const BEHIND = new Set<Shape['kind']>(['case', 'ghost', 'hull', 'flange', 'blade', 'nut', 'spline'])
/** Thickness of the wall on paper, mm. */
const WALL_MM = 5
/** A tag is as wide as its figures, which are the larger line: a window in inches has more of them. */
const TAG = { width: 122, height: 52, character: 9.6 }
const sizeOf = (tag: DrawingTag) => ({
  width: Math.max(TAG.width, 12 + TAG.character * tag.value.length),
  height: TAG.height,
})

const train = computed(() => layOut(props.sheet, props.state ?? {}))
/** The train within its case: the case behind it, nuts and splines on it. */
const around = computed(() => ({ before: housing(props.sheet), after: shaftEnds(props.sheet) }))
const within = (t: Section) => {
  const shapes = [...around.value.before, ...t.shapes, ...around.value.after]
  return { ...t, shapes }
}
/** The drive as its sheet begins: frame and tags stand still by it while gears move. */
const still = computed(() => {
  const t = within(layOut(props.sheet, {}))
  return { ...t, box: boxOf(t.shapes, t.centrelines) }
})
const section = computed(() => within(train.value))
const width = computed(() => Math.max(280, measured.value || 560))
const scale = computed(() => {
  const { box } = still.value
  const byWidth = (width.value - 2 * MARGIN) / box.width
  return Math.min(byWidth, ((props.maxHeight ?? 400) - 2 * MARGIN) / box.height, 2.2)
})
const height = computed(() => Math.round(still.value.box.height * scale.value + 2 * MARGIN))
const offsetX = computed(() => (width.value - still.value.box.width * scale.value) / 2)

function toScreen([x, y]: Point): Point {
  const { box } = still.value
  return [offsetX.value + (x - box.x) * scale.value, MARGIN + (y - box.y) * scale.value]
}
const path = (s: Shape) =>
  s.points
    .map((p) =>
      toScreen(p)
        .map((v) => v.toFixed(1))
        .join(','),
    )
    .join(' ')

const obstacles = computed((): Box[] => [
  ...signs.value.map(({ box }) => box),
  ...still.value.shapes
    .filter((s) => !BEHIND.has(s.kind))
    .map((s) => {
      const points = s.points.map(toScreen)
      const xs = points.map((p) => p[0])
      const ys = points.map((p) => p[1])
      const pad = s.kind === 'ball' ? (s.radius ?? 4) * scale.value : 0
      const [x, y] = [Math.min(...xs) - pad, Math.min(...ys) - pad]
      return { x, y, width: Math.max(...xs) + pad - x, height: Math.max(...ys) + pad - y }
    }),
])
/** Where a tag goes is asked anew only when its size or the frame changes: a figure that runs must not move its tag, nor cost a search. */
const sizes = computed(() => JSON.stringify((props.tags ?? []).map((t) => [t.id, sizeOf(t).width])))
const spots = computed(() => {
  const wanted = (JSON.parse(sizes.value) as [string, number][]).flatMap(([id, tagWidth]) => {
    const place = still.value.places.find((p) => p.id === id)
    return place ? [{ id, at: toScreen(place.at), out: place.out, width: tagWidth, height: TAG.height }] : []
  })
  const found = placeTags(wanted, { width: width.value, height: height.value }, obstacles.value)
  return new Map(wanted.map((w, i) => [w.id, found[i]!]))
})
const placed = computed(() =>
  (props.tags ?? []).flatMap((tag) => {
    const place = section.value.places.find((p) => p.id === tag.id)
    const spot = spots.value.get(tag.id)
    return place && spot ? [{ ...spot, ...sizeOf(tag), tag, id: tag.id, at: toScreen(place.at) }] : []
  }),
)
/** Where the leader line ends: the nearest point of the tag's edge. */
function leader(t: (typeof placed.value)[number]): Point {
  const clamp = (v: number, low: number, high: number) => Math.max(low, Math.min(high, v))
  return [clamp(t.at[0], t.x, t.x + t.width), clamp(t.at[1], t.y, t.y + t.height)]
}
const markOf = (place: string | undefined) => {
  const mark = place === undefined ? undefined : props.marks?.[place]
  return mark && `mark-${mark}`
}
const isLit = (place: string | undefined) => place !== undefined && place === props.lit
const moved = computed(() => section.value.shapes.some((s) => s.kind === 'ghost'))
const ARROW = 7
/** Two strokes of an arrow head at the end of a line on the screen. */
function head(from: Point, to: Point): string {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0])
  const stroke = (turn: number) =>
    `M${to[0].toFixed(1)},${to[1].toFixed(1)} l${(-ARROW * Math.cos(angle + turn)).toFixed(1)},${(-ARROW * Math.sin(angle + turn)).toFixed(1)}`
  return `${stroke(0.5)} ${stroke(-0.5)}`
}
const arrow = (a: Point, b: Point) =>
  `M${a[0].toFixed(1)},${a[1].toFixed(1)} L${b[0].toFixed(1)},${b[1].toFixed(1)} ${head(a, b)}`
/** Width of a letter of a sign's word. */
const LETTER = 8
/** The signs of holding as lines and words on the screen, and the room that they take. */
const signs = computed(() =>
  drawnSigns.value.map((s) => {
    const left = s.leftward || s.at[0] > width.value - 90
    const room = 11 + LETTER * s.words.length
    const xs = [...s.points.map(([x]) => x), s.at[0] + (left ? -room : room), s.at[0] - 8, s.at[0] + 8]
    const ys = [...s.points.map(([, y]) => y), s.at[1] - 10, s.at[1] + 10]
    const [x, y] = [Math.min(...xs), Math.min(...ys)]
    return { ...s, left, box: { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y } }
  }),
)
interface Sign {
  kind: HoldMark['kind']
  at: Point
  words: string
  path: string
  points: Point[]
  leftward?: boolean
}
const drawnSigns = computed(() =>
  (props.hold ?? []).map((m): Sign => {
    if (m.kind === 'held') {
      const [x, y] = toScreen(m.at)
      return { kind: m.kind, at: [x, y], words: 'held', path: '', points: [] }
    }
    if (m.kind === 'load') {
      const [from, to] = [toScreen(m.from), toScreen(m.to)]
      return {
        kind: m.kind,
        at: to,
        words: 'pushed',
        path: arrow(from, to),
        points: [from],
        leftward: to[0] < from[0],
      }
    }
    if (m.kind === 'rocked') {
      const [at, across] = [toScreen(m.at), toScreen(m.across)]
      const back: Point = [2 * at[0] - across[0], 2 * at[1] - across[1]]
      return {
        kind: m.kind,
        at: across,
        words: 'rocked',
        path: `${arrow(at, across)} ${arrow(at, back)}`,
        points: [back],
      }
    }
    const [axis, at] = [toScreen(m.axis), toScreen(m.at)]
    return {
      kind: m.kind,
      at,
      words: 'indicator',
      path: `M${axis[0].toFixed(1)},${axis[1].toFixed(1)} L${at[0].toFixed(1)},${at[1].toFixed(1)}`,
      points: [axis],
      leftward: at[0] < axis[0],
    }
  }),
)
/** Every place of the drawing on the screen, for what is laid over it. */
const screenPlaces = computed(() => new Map(section.value.places.map((p) => [p.id, toScreen(p.at)])))
const litPlace = computed(() => section.value.places.find((p) => p.id === props.lit))
</script>

<template>
  <div ref="frame" class="drawing" :style="{ height: `${height}px` }">
    <svg
      :width="width"
      :height="height"
      role="img"
      :aria-label="`Section of ${sheet.name}, drawn from its gear train`"
    >
      <defs>
        <pattern id="hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="5" class="hatch" />
        </pattern>
        <pattern
          id="hatch-fine"
          width="3.5"
          height="3.5"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(-45)"
        >
          <line x1="0" y1="0" x2="0" y2="3.5" class="hatch" />
        </pattern>
      </defs>
      <template v-for="(s, i) in section.shapes" :key="i">
        <circle
          v-if="s.kind === 'ball'"
          :cx="toScreen(s.points[0]!)[0]"
          :cy="toScreen(s.points[0]!)[1]"
          :r="(s.radius ?? 4) * scale"
          class="ball"
        />
        <template v-else-if="s.kind === 'hull'">
          <polygon :points="path(s)" class="hull-edge" :style="{ strokeWidth: WALL_MM * scale + 2.2 }" />
          <polygon :points="path(s)" class="hull-wall" :style="{ strokeWidth: WALL_MM * scale }" />
        </template>
        <polyline v-else-if="s.kind === 'spline'" :points="path(s)" class="spline" />
        <template v-else>
          <polygon
            :points="path(s)"
            :class="[s.kind, markOf(s.place), { lit: isLit(s.place), pick: marks && s.place }]"
            @click="marks && s.place && emit('pick', s.place)"
          />
          <polygon v-if="s.kind === 'gear-body'" :points="path(s)" class="overlay" fill="url(#hatch)" />
          <polygon v-if="s.kind === 'case'" :points="path(s)" class="overlay" fill="url(#hatch-fine)" />
        </template>
      </template>
      <line
        v-for="(c, i) in section.centrelines"
        :key="`c${i}`"
        :x1="toScreen(c[0])[0]"
        :y1="toScreen(c[0])[1]"
        :x2="toScreen(c[1])[0]"
        :y2="toScreen(c[1])[1]"
        class="centre"
      />
      <g v-for="(h, i) in signs" :key="`h${i}`" :class="['sign', h.kind]">
        <path v-if="h.path" :d="h.path" />
        <rect
          v-if="h.kind === 'held'"
          :x="h.at[0] - 8"
          :y="h.at[1] - 8"
          width="16"
          height="16"
          fill="url(#hatch)"
        />
        <circle v-if="h.kind === 'dial'" :cx="h.at[0]" :cy="h.at[1]" r="7" />
        <text :x="h.at[0] + (h.left ? -11 : 11)" :y="h.at[1] + 4" :text-anchor="h.left ? 'end' : 'start'">
          {{ h.words }}
        </text>
      </g>
      <circle
        v-if="litPlace"
        :cx="toScreen(litPlace.at)[0]"
        :cy="toScreen(litPlace.at)[1]"
        r="9"
        class="beacon"
      />
      <slot name="over" :places="screenPlaces" :width="width" :height="height" />
      <g v-for="t in placed" :key="t.id">
        <line :x1="t.at[0]" :y1="t.at[1]" :x2="leader(t)[0]" :y2="leader(t)[1]" class="leader" />
        <circle :cx="t.at[0]" :cy="t.at[1]" r="2.6" class="dot" />
      </g>
    </svg>
    <button
      v-for="t in placed"
      :key="t.id"
      type="button"
      class="tag"
      :class="{ lit: isLit(t.id) }"
      :style="{ left: `${t.x}px`, top: `${t.y}px`, width: `${t.width}px`, height: `${t.height}px` }"
      @click="emit('pick', t.id)"
    >
      <span class="name">{{ t.tag.name }}</span>
      <span class="value mono" :class="t.tag.verdict">{{ t.tag.value }}</span>
      <span v-if="t.tag.below" class="below mono">{{ t.tag.below }}</span>
    </button>
    <p v-if="!plain" class="factors small soft">
      shims ×{{ SHIM_FACTOR
      }}<template v-if="moved">, gear travel ×{{ TRAVEL_FACTOR }} from the dashed outline</template>
    </p>
  </div>
</template>

<style scoped>
.sign path,
.sign circle,
.sign rect {
  stroke: var(--ink);
  stroke-width: 2.4;
  stroke-linecap: round;
}
.sign path {
  fill: none;
}
.sign circle {
  fill: var(--paper);
}
.sign.dial path {
  stroke-dasharray: 5 4;
  stroke-width: 1.6;
}
.sign text {
  font-size: 13px;
  font-weight: 700;
  fill: var(--ink);
  stroke: var(--paper);
  stroke-width: 4;
  paint-order: stroke;
}
.drawing {
  position: relative;
  width: 100%;
  overflow: hidden;
}
svg {
  display: block;
  position: absolute;
  inset: 0;
}
polygon,
.ball {
  stroke: var(--ink);
  stroke-width: 1.1;
  stroke-linejoin: round;
}
.shaft,
.tube {
  fill: var(--sheet);
}
.hull-edge {
  fill: none;
  stroke: var(--ink-soft);
}
.hull-wall {
  fill: var(--hollow);
  stroke: var(--steel);
}
.flange,
.nut {
  fill: var(--steel);
}
.blade {
  fill: var(--paper);
  stroke: var(--ink-soft);
}
.spline {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 0.8;
}
.gear-body {
  fill: var(--gear);
}
.teeth {
  fill: var(--sheet);
}
.ring {
  fill: var(--sheet);
}
.roller,
.ball {
  fill: var(--steel-dark);
}
.lip {
  fill: var(--ink);
}
.plate {
  fill: var(--steel-dark);
}
.plate.lit,
.lip.lit,
.lit.ring,
.lit.roller,
.lit.gear-body {
  fill: var(--lamp);
}
.belt {
  fill: var(--steel);
}
.pick {
  cursor: pointer;
}
.pick:hover {
  stroke-width: 2.4;
}
polygon.mark-wanted {
  fill: var(--lamp);
  stroke-width: 2;
}
polygon.mark-new {
  fill: var(--lamp-soft);
}
polygon.mark-off {
  fill: var(--paper);
  stroke-dasharray: 4 3;
}
.case {
  fill: none;
  stroke: none;
}
.overlay {
  stroke: none;
  pointer-events: none;
  opacity: 0.55;
}
.hatch {
  stroke: var(--ink);
  stroke-width: 0.8;
}
.ghost {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1;
  stroke-dasharray: 4 3;
}
.centre {
  stroke: var(--ink-soft);
  stroke-width: 0.8;
  stroke-dasharray: 14 4 3 4;
}
.leader {
  stroke: var(--ink);
  stroke-width: 0.8;
}
.dot {
  fill: var(--ink);
}
.beacon {
  fill: var(--lamp);
  stroke: var(--ink);
  stroke-width: 1;
}
.tag {
  position: absolute;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 0;
  padding: 1px 5px;
  text-align: left;
  font-family: var(--font);
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line-strong);
  cursor: pointer;
  line-height: 1.15;
}
.tag:hover {
  border-color: var(--ink);
}
.tag.lit {
  background: var(--lamp);
  color: var(--lamp-ink);
  border-color: var(--lamp-ink);
}
.name {
  font-size: 0.6875rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.value {
  font-size: 1rem;
  font-weight: 700;
}
.below {
  font-size: 0.6875rem;
}
.value.out {
  color: var(--out);
}
.value.in {
  color: var(--in);
}
.value.too-close {
  color: var(--close);
}
.tag.lit .value {
  color: inherit;
}
.factors {
  position: absolute;
  left: 0;
  top: 0;
  pointer-events: none;
}
</style>
