<script setup lang="ts">
import { showDate } from '../ui/times.ts'
import type { Gauge } from '@moray/contract/replies'
import { showThou } from '@moray/core/units/format'
import { formatDistanceToNowStrict } from 'date-fns'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed } from 'vue'
import LoadState from '../ui/LoadState.vue'
import { useUnits } from '../ui/units.ts'
import { useGauges } from '../wire/queries.ts'

const store = useGauges()
const units = useUnits()
const overdue = computed(() => (store.gauges ?? []).filter((g) => g.overdue).length)
/** A property of a gauge in both systems: all its own digits, and thousandths to a hundredth of one. */
function both(g: Gauge, v: number) {
  if (g.unit !== 'mm') return units.value(v, g.unit)
  const pair = [`${v} mm`, showThou(v, 2)]
  return (units.imperial.value ? pair.reverse() : pair).join(' · ')
}
const due = (g: Gauge) => formatDistanceToNowStrict(new Date(g.dueOn), { addSuffix: true })
</script>

<template>
  <div class="page-head">
    <h1>Gauges</h1>
    <p v-if="store.gauges" class="small soft">
      {{ store.gauges.length }} gauges<template v-if="overdue"
        >, {{ overdue }} past the calibration date: still usable, every reading is marked</template
      >
    </p>
  </div>
  <LoadState v-if="!store.gauges" what="the gauges" :error="store.error" @again="store.load" />
  <p v-else-if="!store.gauges.length" class="soft">No gauge is listed yet.</p>
  <DataTable v-else :value="store.gauges" data-key="id" sort-field="type" :sort-order="1" scrollable>
    <Column field="name" header="Gauge" sortable>
      <template #body="{ data }"
        ><strong>{{ data.name }}</strong
        ><br /><span class="small soft">{{ data.type }}</span></template
      >
    </Column>
    <Column field="resolution" header="Resolution">
      <template #body="{ data }"
        ><span class="mono">{{ both(data, data.resolution) }}</span></template
      >
    </Column>
    <Column field="mpe" header="Permissible error">
      <template #body="{ data }"
        ><span class="mono">± {{ both(data, data.mpe) }}</span></template
      >
    </Column>
    <Column header="Dial, masters">
      <template #body="{ data }">
        <span v-if="data.perTurnMm" class="mono">{{ units.both(data.perTurnMm) }} per turn</span>
        <span v-for="m in data.masters" :key="m.id" class="small master"
          >{{ m.label }}: <span class="mono">{{ units.both(m.lengthMm, 3) }}</span></span
        >
        <span v-if="!data.perTurnMm && !data.masters.length" class="soft">—</span>
      </template>
    </Column>
    <Column field="dueOn" header="Calibration due" sortable>
      <template #body="{ data }">
        <span class="mono">{{ showDate(data.dueOn) }}</span><br />
        <span class="small" :class="data.overdue ? 'late' : 'soft'">{{
          data.overdue ? `overdue, ran out ${due(data)}` : due(data)
        }}</span>
      </template>
    </Column>
  </DataTable>
</template>

<style scoped>
.master {
  display: block;
}
.late {
  color: var(--out);
  font-weight: 700;
}
</style>
