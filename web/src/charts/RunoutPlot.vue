<script setup lang="ts">
import type { Runout, RunoutInput } from '@moray/core/measuring/runout'
import { computed } from 'vue'
import ChartFrame from './ChartFrame.vue'
import { useInk } from './ink.ts'
import { useUnits } from '../ui/units.ts'

/** Readings round the shaft, with the sine that a bend alone would give; blips are crossed. */
const props = defineProps<{ input: RunoutInput; result: Runout }>()
const ink = useInk()
const units = useUnits()

const option = computed(() => {
  const y = props.input.readingsMm
  const mean = y.reduce((a, b) => a + b, 0) / y.length
  // a polar radius cannot be negative: the smallest stands at the rim of the inner circle
  const span = Math.max(props.result.tirMm, 1e-6)
  const base = Math.min(...y, mean - props.result.eccentricityMm) - span
  const sine = Array.from({ length: 73 }, (_, i) => {
    const value =
      mean + props.result.eccentricityMm * Math.cos(((5 * i - props.result.highAtDeg) * Math.PI) / 180)
    return [value - base, 5 * i]
  })
  const at = (i: number) => [y[i]! - base, (360 * i) / y.length]
  const counted = y.map((_, i) => i).filter((i) => !props.result.blips.includes(i))
  const text = { color: ink.value.soft, fontFamily: ink.value.font }
  return {
    animation: false,
    polar: { radius: '74%' },
    angleAxis: {
      type: 'value' as const,
      min: 0,
      max: 360,
      interval: 45,
      startAngle: 90,
      axisLabel: text,
      splitLine: { lineStyle: { color: ink.value.line } },
      axisLine: { lineStyle: { color: ink.value.ink } },
    },
    radiusAxis: {
      min: 0,
      max: 2.4 * span,
      axisLabel: { show: false },
      axisTick: { show: false },
      axisLine: { show: false },
      splitLine: { lineStyle: { color: ink.value.line } },
    },
    series: [
      {
        type: 'line' as const,
        coordinateSystem: 'polar' as const,
        data: sine,
        showSymbol: false,
        lineStyle: { color: ink.value.ink, width: 2, type: 'dashed' as const },
      },
      {
        type: 'scatter' as const,
        coordinateSystem: 'polar' as const,
        data: counted.map(at),
        symbolSize: 11,
        itemStyle: { color: ink.value.ink },
      },
      {
        type: 'scatter' as const,
        coordinateSystem: 'polar' as const,
        data: props.result.blips.map(at),
        symbol: 'path://M0,0 L10,10 M10,0 L0,10',
        symbolSize: 14,
        itemStyle: { color: 'none', borderColor: ink.value.out, borderWidth: 3 },
      },
      {
        type: 'line' as const,
        coordinateSystem: 'polar' as const,
        data: [
          [0, props.result.highAtDeg],
          [2.3 * span, props.result.highAtDeg],
        ],
        showSymbol: false,
        lineStyle: { color: ink.value.lamp, width: 4 },
      },
    ],
  }
})
</script>

<template>
  <ChartFrame
    :option="option"
    :height="300"
    :label="`Readings round the shaft; highest at ${Math.round(result.highAtDeg)} degrees, total ${units.both(result.tirMm, 3)}`"
  />
  <p class="small soft">
    Dots: readings from 0° in reading order. Dashed: the bend alone, {{ units.both(result.sineTirMm, 3) }}.
    Lamp line: the high side, mark it there.
  </p>
</template>
