<script setup lang="ts">
import { learnFrom } from '@moray/core/setting/learned'
import { findMeasured } from '@moray/core/setting/measured'
import { unitOf } from '@moray/core/setting/measures'
import { computed } from 'vue'
import { useUnits } from '../../../ui/units.ts'
import type { ShownBuild, ShownJob } from '../../shown-job.ts'
import SuspectList from '../SuspectList.vue'

/** Builds that read as no shim could make them: worth more than any plan. */
const props = defineProps<{ job: ShownJob; build: ShownBuild }>()

const units = useUnits()
const warnings = computed(() => {
  const builds = props.job.builds.filter((b) => b.number <= props.build.number).map((b) => b.state)
  return (learnFrom(props.job.sheet, builds)?.warnings ?? []).map(({ quantity, trial, off }) => {
    const measure = findMeasured(props.job.sheet, quantity)
    const by = units.of(measure ? unitOf(measure) : 'mm').both(Math.abs(off), 3)
    return { trial, label: measure?.label ?? quantity, by, above: off > 0 }
  })
})
</script>

<template>
  <div v-if="warnings.length" class="fault warned" role="alert">
    <p v-for="w in warnings" :key="`${w.trial} ${w.label}`">
      <strong>{{ w.label }}</strong>, trial {{ w.trial }}: reads <span class="mono">{{ w.by }}</span>
      {{ w.above ? 'above' : 'below' }} what the builds before lead to expect.
    </p>
    <SuspectList :job="job" :build="build" />
  </div>
</template>
