<script setup lang="ts">
import type { LeakTest, LeakTestInput } from '@moray/core/leak/leak-test'
import { temperatureBand } from '@moray/core/leak/temperature-band'
import { computed } from 'vue'
import ChartFrame from '../../charts/ChartFrame.vue'
import { axis, useInk } from '../../charts/ink.ts'

/** The gauge over time, with the band in which temperature alone would have put it. */
const props = defineProps<{ input: LeakTestInput; result: LeakTest }>()
const ink = useInk()
const band = computed(() => temperatureBand(props.input))

const option = computed(() => {
  const minute = (s: number) => (s - props.input.readings[0]!.s) / 60
  const time = props.input.readings.map((r) => minute(r.s))
  const pairs = (values: number[]) => values.map((v, i) => [time[i]!, v])
  const plain = { animation: false, showSymbol: false, type: 'line' as const }
  return {
    animation: false,
    grid: { left: 58, right: 14, top: 12, bottom: 44 },
    xAxis: axis(ink.value, 'minutes', { scale: false }),
    yAxis: axis(ink.value, 'kPa on the gauge', { nameGap: 44 }),
    series: [
      ...(band.value
        ? [
            // a band is drawn as an empty line with a filled one stacked on it
            { ...plain, data: pairs(band.value.low), stack: 'band', lineStyle: { opacity: 0 } },
            {
              ...plain,
              data: pairs(band.value.high.map((h, i) => h - band.value!.low[i]!)),
              stack: 'band',
              lineStyle: { opacity: 0 },
              areaStyle: { color: ink.value.lamp, opacity: 0.45 },
            },
          ]
        : []),
      {
        ...plain,
        data: props.input.readings.map((r) => [minute(r.s), r.gaugeKpa]),
        showSymbol: props.input.readings.length <= 60,
        symbolSize: 8,
        itemStyle: { color: ink.value.ink },
        lineStyle: { color: ink.value.ink, width: 2 },
        ...(props.result.settledAfterS > 0
          ? {
              markLine: {
                silent: true,
                symbol: 'none',
                label: { formatter: 'settled', color: ink.value.soft, fontFamily: ink.value.font },
                lineStyle: { color: ink.value.soft },
                data: [{ xAxis: props.result.settledAfterS / 60 }],
              },
            }
          : {}),
      },
    ],
  }
})
</script>

<template>
  <ChartFrame :option="option" :height="270" :label="`Gauge pressure over time, verdict ${result.verdict}`" />
  <p class="small soft">
    <template v-if="band"
      >Lamp band: where temperature alone would have put the gauge, ± 1 K and a step of the gauge.</template
    >
    <template v-else
      >No thermometer: a cooling of {{ result.temperatureExplainsC.toFixed(1) }} K would explain the whole
      drop.</template
    >
  </p>
</template>
