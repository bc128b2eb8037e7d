<script setup lang="ts">
import { InputError } from '@moray/core/checks/input-error'
import { FLANK_CORNERS, squareUp, type PicturePoint } from '@moray/core/contact/photo'
import { computed, ref, useTemplateRef } from 'vue'
import { DrawnLine } from '../../drawing/drawn-line.ts'

/** A picture of the flank: its four corners are tapped, then the patch is drawn round on the picture itself. */
const props = defineProps<{
  src: string
  /** Height of the tooth at the toe over that at the heel. */
  toeShare: number
  /** The line as it lies on the flank, to be shown on the picture. */
  outline?: [number, number][] | undefined
}>()
/** What was drawn, along and up in turn. */
const emit = defineEmits<{ drawing: [flat: number[]] }>()
/** Corners in pixels of the picture, as far as they are tapped. */
const corners = defineModel<PicturePoint[]>('corners', { required: true })

const size = ref<[number, number]>([0, 0])
const picture = useTemplateRef<HTMLElement>('picture')
function loaded(e: Event) {
  const img = e.target as HTMLElement & { naturalWidth: number; naturalHeight: number }
  size.value = [img.naturalWidth, img.naturalHeight]
}
const squared = computed(() => {
  if (corners.value.length < 4) return { why: '' }
  try {
    return { up: squareUp(corners.value, props.toeShare), why: '' }
  } catch (e) {
    if (e instanceof InputError) return { why: e.fields[0]!.message }
    throw e
  }
})
const said = computed(() => {
  const n = corners.value.length
  if (n < 4) return `Tap the corner ${n + 1} of 4: ${FLANK_CORNERS[n]}.`
  return squared.value.why
    ? `The corners ${squared.value.why}.`
    : 'Now draw round the patch on the picture. A corner can be moved still.'
})
interface Pointed {
  clientX: number
  clientY: number
  pointerId: number
}
function at(e: Pointed): PicturePoint {
  const box = picture.value!.getBoundingClientRect()
  return [
    ((e.clientX - box.left) / box.width) * size.value[0],
    ((e.clientY - box.top) / box.height) * size.value[1],
  ]
}
/** So near to a corner, as a share of the picture's width, it is the corner that is meant. */
const GRAB = 0.03
const holding = ref(-1)
const line = new DrawnLine()
let drawing = false
function down(e: Pointed) {
  const p = at(e)
  picture.value!.setPointerCapture(e.pointerId)
  const near = corners.value.findIndex(([x, y]) => Math.hypot(x - p[0], y - p[1]) < GRAB * size.value[0])
  if (near >= 0) holding.value = near
  else if (corners.value.length < 4) corners.value = [...corners.value, p]
  else if (squared.value.up) {
    drawing = true
    line.begin()
    point(p)
  }
}
function move(e: Pointed) {
  if (holding.value >= 0) corners.value = corners.value.map((c, i) => (i === holding.value ? at(e) : c))
  else if (drawing) point(at(e))
}
function up() {
  holding.value = -1
  drawing = false
}
const point = (p: PicturePoint) => emit('drawing', line.add(squared.value.up!.toFlank(p)))
/** With the keyboard a corner goes a pixel in a hundred at a time. */
const STEP = 0.01
const WAYS: Record<string, PicturePoint> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
function nudge(i: number, e: KeyboardEvent) {
  const way = WAYS[e.key]
  if (!way) return
  e.preventDefault()
  const by = STEP * size.value[0] * (e.shiftKey ? 0.2 : 1)
  corners.value = corners.value.map((c, k) => (k === i ? [c[0] + way[0] * by, c[1] + way[1] * by] : c))
}
const text = (points: readonly PicturePoint[]) =>
  points.map((p) => p.map((v) => v.toFixed(1)).join(',')).join(' ')
const seen = computed(() => {
  const { up: map } = squared.value
  return map && props.outline?.length ? text(props.outline.map(map.toPicture)) : ''
})
const r = computed(() => Math.max(4, size.value[0] / 80))
</script>

<template>
  <figure class="photo">
    <p role="status" class="said">{{ said }}</p>
    <div
      ref="picture"
      class="frame"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
    >
      <img :src="src" alt="The flank as it was photographed" draggable="false" @load="loaded" />
      <svg v-if="size[0]" :viewBox="`0 0 ${size[0]} ${size[1]}`">
        <polygon v-if="corners.length > 1" :points="text(corners)" class="quad" :stroke-width="r / 4" />
        <polygon v-if="seen" :points="seen" class="patch" :stroke-width="r / 3" />
        <g
          v-for="(c, i) in corners"
          :key="i"
          tabindex="0"
          role="button"
          :aria-label="`Corner ${FLANK_CORNERS[i]}: arrow keys move it`"
          @keydown="nudge(i, $event)"
        >
          <circle :cx="c[0]" :cy="c[1]" :r="r" :stroke-width="r / 3" class="corner" />
          <text :x="c[0] + 1.4 * r" :y="c[1]" :font-size="2.2 * r">{{ i + 1 }}</text>
        </g>
      </svg>
    </div>
    <button v-if="corners.length" type="button" class="texty small" @click="corners = []">
      Tap the corners anew
    </button>
  </figure>
</template>

<style scoped>
.photo {
  margin: 0.4rem 0;
}
.said {
  font-weight: 700;
  margin-bottom: 0.3rem;
}
.frame {
  position: relative;
  touch-action: none;
  user-select: none;
  cursor: crosshair;
  border: 1px solid var(--line-strong);
}
img {
  display: block;
  width: 100%;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.quad {
  fill: none;
  stroke: var(--lamp);
}
.patch {
  fill: var(--lamp);
  fill-opacity: 0.35;
  stroke: var(--ink);
}
.corner {
  fill: var(--sheet);
  fill-opacity: 0.6;
  stroke: var(--ink);
  cursor: grab;
}
g:focus-visible .corner {
  stroke: var(--focus);
  fill-opacity: 1;
}
text {
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 3;
  dominant-baseline: middle;
}
</style>
