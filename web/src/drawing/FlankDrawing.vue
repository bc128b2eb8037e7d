<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { DrawnLine } from './drawn-line.ts'

/** One flank of the gear laid flat: toe left, heel right, root below, top above, in words; the patch on it. */
const props = defineProps<{
  title: string
  /** Closed line round the patch, [along −1…1, up −1…1]. */
  outline?: [number, number][]
  centre?: [number, number]
  /** The patch that it is held against, as a dashed line. */
  before?: [number, number][]
  /** One that is kept from a good build, as a dotted line. */
  reference?: [number, number][]
  /** Small, beside others. */
  compact?: boolean
  /** A line can be drawn on it with the finger, the pen or the mouse. */
  drawable?: boolean
}>()
/** What is drawn so far, along and up in turn. */
const emit = defineEmits<{ drawing: [flat: number[]] }>()

const [WIDTH, HEIGHT, EDGE, RIM] = props.compact ? [176, 96, 18, 16] : [340, 150, 34, 34]
/** The tooth is lower at the toe, as it is on a bevel gear; 0.72 is about the share of an inner to an outer tooth. */
const TOE = 0.72
function place([along, up]: [number, number]): [number, number] {
  const share = (along + 1) / 2
  const height = (HEIGHT - 2 * RIM) * (TOE + (1 - TOE) * share)
  return [EDGE + share * (WIDTH - 2 * EDGE), HEIGHT / 2 - (up * height) / 2]
}
/** The other way round: where on the flank a point of the picture lies. */
function flankAt(x: number, y: number): [number, number] {
  const share = Math.max(0, Math.min(1, (x - EDGE) / (WIDTH - 2 * EDGE)))
  const height = (HEIGHT - 2 * RIM) * (TOE + (1 - TOE) * share)
  const onto = (v: number) => Math.max(-1, Math.min(1, v))
  return [2 * share - 1, onto(((HEIGHT / 2 - y) * 2) / height)]
}
/** What of a pointer's event is looked at. */
interface Pointed {
  clientX: number
  clientY: number
  pointerId: number
}
const picture = useTemplateRef<HTMLElement>('picture')
const line = new DrawnLine()
let down = false
function point(e: Pointed) {
  const box = picture.value!.getBoundingClientRect()
  const [along, up] = flankAt(
    ((e.clientX - box.left) / box.width) * WIDTH,
    ((e.clientY - box.top) / box.height) * HEIGHT,
  )
  emit('drawing', line.add([along, up]))
}
function begin(e: Pointed) {
  if (!props.drawable) return
  down = true
  line.begin()
  picture.value!.setPointerCapture(e.pointerId)
  point(e)
}
function go(e: Pointed) {
  if (down) point(e)
}
function end() {
  if (!down) return
  down = false
}
const text = (points: [number, number][]) =>
  points
    .map((p) =>
      place(p)
        .map((v) => v.toFixed(1))
        .join(','),
    )
    .join(' ')
const flank = text([
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
])
const patch = computed(() => (props.outline?.length ? text(props.outline) : ''))
const beside = computed(() => (props.before?.length ? text(props.before) : ''))
const kept = computed(() => (props.reference?.length ? text(props.reference) : ''))
const middle = computed(() => (props.centre ? place(props.centre) : null))
const words = computed(() => {
  if (!props.centre) return props.drawable ? 'not marked yet' : ''
  const [along, up] = props.centre
  const part = (v: number, low: string, high: string) =>
    Math.abs(v) < 0.08 ? 'in the middle' : `${Math.abs(v).toFixed(2)} toward the ${v < 0 ? low : high}`
  return `centre ${part(along, 'toe', 'heel')}, ${part(up, 'root', 'top')}`
})
</script>

<template>
  <figure>
    <figcaption class="small">{{ title }}</figcaption>
    <svg
      ref="picture"
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      role="img"
      :aria-label="`${title}: ${words}`"
      :class="{ drawable }"
      @pointerdown="begin"
      @pointermove="go"
      @pointerup="end"
      @pointercancel="end"
    >
      <polygon :points="flank" class="flank" />
      <line
        :x1="place([0, -1])[0]"
        :y1="place([0, -1])[1]"
        :x2="place([0, 1])[0]"
        :y2="place([0, 1])[1]"
        class="mid"
      />
      <line
        :x1="place([-1, 0])[0]"
        :y1="place([-1, 0])[1]"
        :x2="place([1, 0])[0]"
        :y2="place([1, 0])[1]"
        class="mid"
      />
      <polygon v-if="patch" :points="patch" class="patch" />
      <polygon v-if="kept" :points="kept" class="reference" />
      <polygon v-if="beside" :points="beside" class="before" />
      <g v-if="middle">
        <line :x1="middle[0] - 9" :x2="middle[0] + 9" :y1="middle[1]" :y2="middle[1]" class="cross" />
        <line :x1="middle[0]" :x2="middle[0]" :y1="middle[1] - 9" :y2="middle[1] + 9" class="cross" />
      </g>
      <template v-if="compact">
        <text x="0" y="11">toe</text>
        <text :x="WIDTH" y="11" text-anchor="end">heel</text>
        <text :x="WIDTH / 2" y="11" text-anchor="middle">top</text>
        <text :x="WIDTH / 2" :y="HEIGHT - 2" text-anchor="middle">root</text>
      </template>
      <template v-else>
        <text x="4" :y="HEIGHT / 2 + 4">toe</text>
        <text :x="WIDTH - 30" :y="HEIGHT / 2 + 4">heel</text>
        <text :x="WIDTH / 2" y="22" text-anchor="middle">top</text>
        <text :x="WIDTH / 2" :y="HEIGHT - 8" text-anchor="middle">root</text>
      </template>
    </svg>
    <p v-if="!compact" class="small soft">{{ words }}</p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0 0 0.5rem;
}
svg {
  width: 100%;
  max-width: 30rem;
  display: block;
}
.drawable {
  cursor: crosshair;
  touch-action: none;
  user-select: none;
}
.flank {
  fill: var(--gear);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.mid {
  stroke: var(--ink-soft);
  stroke-dasharray: 6 4;
  stroke-width: 0.7;
}
.patch {
  fill: var(--lamp);
  stroke: var(--ink);
  stroke-width: 1;
}
.before {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 4 3;
}
.reference {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
  stroke-linecap: round;
  stroke-dasharray: 0.1 6;
}
.cross {
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font-family: var(--font);
  font-size: 12px;
  fill: var(--ink);
}
</style>
