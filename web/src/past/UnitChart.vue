<script setup lang="ts">
import type { PastJob } from '@moray/contract/found'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { MM_PER_INCH } from '@moray/core/units/factors'
import { computed } from 'vue'
import ChartFrame from '../charts/ChartFrame.vue'
import { useInk } from '../charts/ink.ts'
import { useUnits } from '../ui/units.ts'
import { figuresOf } from './past-words.ts'

/** Stacks of one unit over the years: a drift is seen where single records show only numbers. */
const props = defineProps<{ jobs: PastJob[]; sheet: DriveSheet }>()
const units = useUnits()
const ink = useInk()
const shown = (mm: number) => Number((units.imperial.value ? mm / MM_PER_INCH : mm).toFixed(4))
const option = computed(() => ({
  animation: false,
  color: [ink.value.ink, ink.value.lamp, ink.value.in, ink.value.out],
  textStyle: { fontFamily: ink.value.font },
  grid: { left: 60, right: 20, top: 52, bottom: 30 },
  legend: { top: 0, type: 'scroll' as const, textStyle: { color: ink.value.ink } },
  tooltip: { trigger: 'axis' as const, renderMode: 'richText' as const },
  xAxis: { type: 'time' as const, axisLabel: { color: ink.value.ink } },
  yAxis: {
    type: 'value' as const,
    scale: true,
    name: units.lengthUnit.value,
    nameTextStyle: { color: ink.value.ink },
    axisLabel: { color: ink.value.ink },
    splitLine: { lineStyle: { color: ink.value.line } },
  },
  series: figuresOf(props.sheet)
    .filter((f) => f.id.startsWith('stack '))
    .map((f) => ({
      name: f.label,
      type: 'line' as const,
      symbolSize: 9,
      data: [...props.jobs]
        .reverse()
        .flatMap((j) => (f.of(j) === undefined ? [] : [[j.acceptedAt ?? j.openedAt, shown(f.of(j)!)]])),
    })),
}))
</script>

<template>
  <ChartFrame
    :option="option"
    :height="230"
    label="Stacks of this unit over the years; the table below has the figures"
  />
</template>
