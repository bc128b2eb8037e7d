<script setup lang="ts">
import type { EChartsOption } from 'echarts'
import { LineChart, ScatterChart } from 'echarts/charts'
import {
  GridComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
  PolarComponent,
  TooltipComponent,
} from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'

/** One chart of the house: a named box of a fixed height, so that it never collapses, and words for who cannot see it. */
defineProps<{ option: EChartsOption; height: number; label: string }>()

use([
  LineChart,
  ScatterChart,
  GridComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
  PolarComponent,
  TooltipComponent,
  CanvasRenderer,
])
</script>

<template>
  <figure role="img" :aria-label="label" :style="{ height: `${height}px` }">
    <VChart :option="option" autoresize />
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  width: 100%;
  min-width: 0;
}
</style>
