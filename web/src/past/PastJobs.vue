<script setup lang="ts">
import type { PastJob } from '@moray/contract/found'
import { isOver } from '@moray/core/job/record'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { showDate } from '../ui/times.ts'
import { useUnits } from '../ui/units.ts'
import { figuresOf, testText } from './past-words.ts'

/** Jobs side by side: the stacks and readings that each left with, and its tests. */
const props = defineProps<{
  jobs: PastJob[]
  sheet: DriveSheet
  /** Jobs of several units: the serial number stands with each. */
  several?: boolean
}>()
const units = useUnits()
const figures = computed(() =>
  figuresOf(props.sheet).filter((f) => props.jobs.some((j) => f.of(j) !== undefined)),
)
const to = (j: PastJob) => `/jobs/${j.id}/${isOver(j.state) ? 'record' : 'route'}`
</script>

<template>
  <div class="wide" tabindex="0" role="region" aria-label="Jobs side by side">
    <table class="ledger fine">
      <thead>
        <tr>
          <th scope="col">Job</th>
          <th v-for="f in figures" :key="f.id" scope="col">
            {{ f.label }}, {{ f.unit === 'mm' ? units.lengthUnit.value : units.of('Nm').unit }}
          </th>
          <th scope="col">Tests</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="j in jobs" :key="j.id">
          <th scope="row">
            <RouterLink :to="to(j)"><span class="mono">{{ j.number }}</span></RouterLink>
            <span class="small soft block"
              >{{ showDate(j.openedAt) }}<template v-if="several">, {{ j.serial }}, {{ j.boat }}</template
              ><template v-if="!j.acceptedAt">, not accepted</template></span
            >
            <span v-if="j.complaint" class="small block words">{{ j.complaint }}</span>
          </th>
          <td v-for="f in figures" :key="f.id" class="mono">
            <template v-if="f.of(j) !== undefined"
              >{{ units.of(f.unit).digits(f.of(j)!, 3) }}
              <span class="small soft block">{{ units.of(f.unit).other(f.of(j)!, 3) }}</span></template
            ><template v-else>—</template>
          </td>
          <td>
            <span v-for="(t, i) in j.tests" :key="i" class="small block">{{ testText(t, units) }}</span>
            <template v-if="!j.tests.length">—</template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
th[scope='row'] {
  text-align: left;
  font-weight: 400;
  min-width: 11rem;
}
.block {
  display: block;
}
.words {
  max-width: 18rem;
}
</style>
