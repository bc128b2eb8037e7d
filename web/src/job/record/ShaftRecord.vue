<script setup lang="ts">
import { shaftsOf } from '@moray/core/setting/shaft-stations'
import { computed } from 'vue'
import VerdictMark from '../../ui/VerdictMark.vue'
import { useUnits } from '../../ui/units.ts'
import { buildName } from '../setting-view.ts'
import type { ShownJob } from '../shown-job.ts'

/** Runout of the shafts as it was read round them, build by build; nothing where none was read. */
const props = defineProps<{ job: ShownJob }>()
const units = useUnits()
const rows = computed(() =>
  props.job.builds.flatMap((b) =>
    shaftsOf(props.job.sheet, b.state).flatMap(({ stations }) =>
      stations.flatMap((s) => (s.result ? [{ build: b, ...s, result: s.result }] : [])),
    ),
  ),
)
</script>

<template>
  <section v-if="rows.length" aria-label="Runout of shafts">
    <h2>Runout of shafts</h2>
    <table class="ledger fine">
      <thead>
        <tr>
          <th scope="col">Shaft and station</th>
          <th scope="col">Read</th>
          <th scope="col">Total ± U, {{ units.lengthUnit.value }}</th>
          <th scope="col">Limit</th>
          <th scope="col">High at</th>
          <th scope="col">Verdict</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="`${r.build.number} ${r.measure.id}`">
          <td>{{ r.measure.label }}</td>
          <td>{{ buildName(r.build) }}</td>
          <td class="mono">
            {{ units.digits(r.result.tirMm, 3) }} ± {{ units.digits(r.result.U, 3)
            }}<template v-if="r.withoutBlips"
              >; {{ units.digits(r.withoutBlips.tirMm, 3) }} without what stands out</template
            >
          </td>
          <td class="mono">{{ units.digits(r.measure.window.max!, 2) }}</td>
          <td>{{ Math.round(r.result.highAtDeg) }}°</td>
          <td><VerdictMark :verdict="r.result.verdict" /></td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
