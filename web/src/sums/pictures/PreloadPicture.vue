<script setup lang="ts">
import type { Preload, PreloadInput } from '@moray/core/bearings/preload'
import { computed } from 'vue'
import ChartFrame from '../../charts/ChartFrame.vue'
import { axis, useInk } from '../../charts/ink.ts'

/** Rolling torque against stack: trials, the line, the window with the seals' drag on it, the stack to fit. */
const props = defineProps<{ input: PreloadInput; result: Preload }>()
const ink = useInk()
const option = computed(() => {
  const { trials, sealNm, window } = props.input
  const middle = sealNm + (window.min + window.max) / 2
  const line = (mm: number) => [mm, middle + props.result.slopeNmPerMm * (mm - props.result.stackMm)]
  const stacks = [...trials.map((t) => t.stackMm), props.result.stackMm]
  return {
    animation: false,
    grid: { left: 52, right: 16, top: 14, bottom: 44 },
    xAxis: axis(ink.value, 'stack, mm'),
    yAxis: axis(ink.value, 'rolling torque with seals, Nm', { nameGap: 38 }),
    series: [
      {
        type: 'line' as const,
        data: [line(Math.min(...stacks)), line(Math.max(...stacks))],
        showSymbol: false,
        lineStyle: {
          color: ink.value.ink,
          type: props.result.guess ? ('dashed' as const) : ('solid' as const),
        },
        markArea: {
          silent: true,
          itemStyle: { color: ink.value.in, opacity: 0.18 },
          data: [[{ yAxis: sealNm + window.min }, { yAxis: sealNm + window.max }]] as [
            { yAxis: number },
            { yAxis: number },
          ][],
        },
      },
      {
        type: 'scatter' as const,
        data: trials.map((t) => [t.stackMm, t.torqueNm]),
        symbolSize: 11,
        itemStyle: { color: ink.value.ink },
      },
      {
        type: 'scatter' as const,
        data: [[props.result.stackMm, middle]],
        symbolSize: 17,
        itemStyle: { color: ink.value.lamp, borderColor: ink.value.ink, borderWidth: 2 },
      },
    ],
  }
})
</script>

<template>
  <ChartFrame
    :option="option"
    :height="250"
    :label="`Rolling torque against stack; fit ${result.stackMm.toFixed(3)} mm for the middle of the window`"
  />
  <p class="small soft">Lamp mark: the stack to fit. Band: the window with the seals' drag on it.</p>
</template>
