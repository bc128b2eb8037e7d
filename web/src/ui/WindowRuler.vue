<script setup lang="ts">
import type { Verdict } from '@moray/core/measuring/judge'
import type { Window } from '@moray/core/checks/window'
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { rulerSpan } from './ruler.ts'
import { useUnits } from './units.ts'

/** The one way in which a window is drawn: limits, target, reading with its U bar, prediction as a hollow mark. */
const props = defineProps<{
  window: Window
  target?: number | undefined
  reading?: { value: number; U: number; verdict: Verdict } | undefined
  prediction?: { value: number; U: number } | undefined
  /** What other plans would read, each by its rank. */
  others?: { rank: number; value: number }[] | undefined
  /** Single readings behind the mean. */
  dots?: number[] | undefined
  decimals?: number
  /** Canonical unit of its figures. @default 'mm' */
  unit?: 'mm' | 'Nm'
  label: string
}>()

const frame = useTemplateRef<HTMLElement>('frame')
const { width: measured } = useElementSize(frame)
const width = computed(() => Math.max(160, measured.value || 300))
const span = computed(() =>
  rulerSpan(props.window, [
    ...(props.reading ? [props.reading] : []),
    ...(props.prediction ? [props.prediction] : []),
    ...(props.dots ?? []).map((value) => ({ value, U: 0 })),
    ...(props.others ?? []).map(({ value }) => ({ value, U: 0 })),
  ]),
)
const x = (v: number) => 6 + ((v - span.value.from) / (span.value.to - span.value.from)) * (width.value - 12)
const LINE = 24
const bounds = computed(() => [
  props.window.min === undefined ? 6 : x(props.window.min),
  props.window.max === undefined ? width.value - 6 : x(props.window.max),
])
const all = useUnits()
const units = computed(() => all.of(props.unit ?? 'mm'))
const show = (v: number) => units.value.digits(v, props.decimals ?? 2)
const other = (v: number) => units.value.other(v, props.decimals ?? 2)
/** Plans that read nearly alike share one number line: side by side they would lie over each other. */
const APART = 12
const otherMarks = computed(() => {
  const marks: { x: number; ranks: number[] }[] = []
  for (const o of [...(props.others ?? [])].sort((a, b) => a.value - b.value)) {
    const last = marks.at(-1)
    if (last && x(o.value) - last.x < APART) last.ranks.push(o.rank)
    else marks.push({ x: x(o.value), ranks: [o.rank] })
  }
  return marks.map((m) => ({ x: m.x, words: m.ranks.sort((a, b) => a - b).join(' ') }))
})
const limits = computed(() =>
  [props.window.min, props.window.max].filter((v) => v !== undefined).map((v) => ({ v, x: x(v) })),
)
const tooTight = computed(() => limits.value.length === 2 && limits.value[1]!.x - limits.value[0]!.x < 100)
function anchor(i: number): 'start' | 'middle' | 'end' {
  if (!tooTight.value) return 'middle'
  return i === 0 ? 'end' : 'start'
}
const words = computed(() => {
  const { min, max } = props.window
  const parts = [
    `${props.label}: window ${min === undefined ? 'up to' : `${show(min)} to`} ${max === undefined ? 'any' : show(max)} ${units.value.unit}`,
  ]
  if (props.reading)
    parts.push(`reading ${show(props.reading.value)} ± ${show(props.reading.U)} ${units.value.unit}`)
  if (props.prediction)
    parts.push(`predicted ${show(props.prediction.value)} ± ${show(props.prediction.U)} ${units.value.unit}`)
  for (const o of props.others ?? []) parts.push(`plan ${o.rank} ${show(o.value)} ${units.value.unit}`)
  return parts.join(', ')
})
</script>

<template>
  <div ref="frame" class="ruler">
    <svg :width="width" height="62" role="img" :aria-label="words">
      <rect
        :x="bounds[0]"
        :y="LINE - 11"
        :width="Math.max(0, bounds[1]! - bounds[0]!)"
        height="22"
        class="window"
      />
      <line x1="0" :y1="LINE" :x2="width" :y2="LINE" class="line" />
      <g v-for="(l, i) in limits" :key="i">
        <line :x1="l.x" :y1="LINE - 14" :x2="l.x" :y2="LINE + 14" class="limit" />
        <text :x="l.x" :y="LINE + 26" :text-anchor="anchor(i)">{{ show(l.v) }}</text>
        <text :x="l.x" :y="LINE + 37" :text-anchor="anchor(i)" class="thou">{{ other(l.v) }}</text>
      </g>
      <path
        v-if="target !== undefined"
        :d="`M${x(target) - 5} ${LINE + 17} L${x(target) + 5} ${LINE + 17} L${x(target)} ${LINE + 10} Z`"
        class="target"
      />
      <line
        v-for="(d, i) in dots ?? []"
        :key="`d${i}`"
        :x1="x(d)"
        :y1="LINE - 20"
        :x2="x(d)"
        :y2="LINE - 13"
        class="tick"
      />
      <g v-for="o in otherMarks" :key="`o${o.words}`" class="other">
        <path :d="`M${o.x} ${LINE - 5} l5 5 l-5 5 l-5 -5 Z`" />
        <text :x="o.x" :y="LINE - 13" text-anchor="middle">{{ o.words }}</text>
      </g>
      <g v-if="prediction" class="prediction">
        <line
          :x1="x(prediction.value - prediction.U)"
          :y1="LINE"
          :x2="x(prediction.value + prediction.U)"
          :y2="LINE"
        />
        <path :d="`M${x(prediction.value)} ${LINE - 8} l8 8 l-8 8 l-8 -8 Z`" />
      </g>
      <g v-if="reading" :class="reading.verdict">
        <line
          :x1="x(reading.value - reading.U)"
          :y1="LINE"
          :x2="x(reading.value + reading.U)"
          :y2="LINE"
          class="bar"
        />
        <line
          :x1="x(reading.value - reading.U)"
          :y1="LINE - 6"
          :x2="x(reading.value - reading.U)"
          :y2="LINE + 6"
          class="end"
        />
        <line
          :x1="x(reading.value + reading.U)"
          :y1="LINE - 6"
          :x2="x(reading.value + reading.U)"
          :y2="LINE + 6"
          class="end"
        />
        <circle :cx="x(reading.value)" :cy="LINE" r="6" class="reading" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.other path {
  fill: var(--paper);
  stroke: var(--ink-soft);
  stroke-width: 1.2;
}
.other text {
  font-size: 11px;
}
.ruler {
  width: 100%;
  min-width: 0;
  height: 62px;
}
svg {
  display: block;
}
.window {
  fill: var(--steel);
}
.line {
  stroke: var(--line-strong);
}
.limit {
  stroke: var(--ink);
  stroke-width: 2;
}
.target {
  fill: var(--ink);
}
.tick {
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
text {
  font-family: var(--font);
  font-size: 11px;
  fill: var(--ink);
}
.thou {
  fill: var(--ink-soft);
  font-size: 10px;
}
.prediction line {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 3 2;
}
.prediction path {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.bar {
  stroke: currentColor;
  stroke-width: 3;
}
.end {
  stroke: currentColor;
  stroke-width: 2;
}
.reading {
  fill: currentColor;
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
</style>
