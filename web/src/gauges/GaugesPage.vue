<script setup lang="ts">
import { showAgo, showDate } from '../ui/times.ts'
import type { Gauge } from '@moray/contract/replies'
import { kindOfGauge } from '@moray/core/measuring/gauge-kinds'
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed, ref } from 'vue'
import LoadState from '../ui/LoadState.vue'
import { rangeInBoth } from '../ui/both-units.ts'
import { useUnits } from '../ui/units.ts'
import { useGauges } from '../wire/queries.ts'
import SaveCsv from '../ui/SaveCsv.vue'
import GaugeDialog from './GaugeDialog.vue'
import NewGaugeDialog from './NewGaugeDialog.vue'

const store = useGauges()
const units = useUnits()
const inUse = computed(() => (store.gauges ?? []).filter((g) => !g.retired))
/** Those in use first, by kind. */
const rows = computed(() =>
  (store.gauges ?? []).map((g) => ({
    ...g,
    order: `${Number(g.retired)} ${kindOfGauge(g.kind).label} ${g.name}`,
  })),
)
const overdue = computed(() => inUse.value.filter((g) => g.overdue).length)
const columns = [
  { name: 'name', of: (g: Gauge) => g.name },
  { name: 'kind', of: (g: Gauge) => kindOfGauge(g.kind).label },
  { name: 'unit', of: (g: Gauge) => kindOfGauge(g.kind).unit },
  { name: 'resolution', of: (g: Gauge) => g.resolution },
  { name: 'permissible error', of: (g: Gauge) => g.mpe },
  { name: 'repeatability', of: (g: Gauge) => g.repeatability },
  { name: 'calibrated on', of: (g: Gauge) => g.calibratedOn },
  { name: 'due on', of: (g: Gauge) => g.dueOn },
  { name: 'overdue', of: (g: Gauge) => g.overdue },
  { name: 'out of use', of: (g: Gauge) => g.retired },
]
const open = ref<Gauge | null>(null)
const adding = ref(false)
/** A property of a gauge in both systems. */
function both(g: Gauge, v: number) {
  const { unit } = kindOfGauge(g.kind)
  return unit === 'mm' ? units.exact(v) : units.value(v, unit)
}
const due = (g: Gauge) => (g.dueOn === null ? '' : showAgo(g.dueOn))
</script>

<template>
  <div class="page-head">
    <h1>Gauges</h1>
    <p v-if="store.gauges" class="small soft">
      {{ inUse.length }} {{ inUse.length === 1 ? 'gauge' : 'gauges'
      }}<template v-if="overdue"
        >, {{ overdue }} past the calibration date: still usable, every reading is marked</template
      >
    </p>
    <SaveCsv v-if="store.gauges?.length" name="gauges" :columns="columns" :rows="() => store.gauges ?? []" />
    <Button label="Add a gauge" class="lamp add" @click="adding = true" />
  </div>
  <LoadState v-if="!store.gauges" what="the gauges" :error="store.error" @again="store.load" />
  <p v-else-if="!store.gauges.length" class="soft">
    No gauge is listed yet. Add the ones on your bench: every reading says with which it was taken.
  </p>
  <DataTable v-else :value="rows" data-key="id" sort-field="order" :sort-order="1" scrollable>
    <Column field="name" header="Gauge" sortable>
      <template #body="{ data }"
        ><strong>{{ data.name }}</strong><br /><span class="small soft"
          >{{ kindOfGauge(data.kind).label }}{{ data.retired ? ', out of use' : '' }}</span
        ></template
      >
    </Column>
    <Column field="resolution" header="Resolution">
      <template #body="{ data }"><span class="mono">{{ both(data, data.resolution) }}</span></template>
    </Column>
    <Column field="mpe" header="Permissible error">
      <template #body="{ data }"><span class="mono">± {{ both(data, data.mpe) }}</span></template>
    </Column>
    <Column header="Dial, masters, range">
      <template #body="{ data }">
        <span v-if="data.perTurnMm" class="mono">{{ units.both(data.perTurnMm) }} per turn</span>
        <span v-for="m in data.masters" :key="m.id" class="small master"
          >{{ m.label }}: <span class="mono">{{ units.both(m.lengthMm, 3) }}</span></span
        >
        <span v-if="data.wrench" class="small master"
          >{{
            rangeInBoth(
              { min: data.wrench.fromNm, max: data.wrench.toNm },
              'Nm',
              units.imperial.value ? 'imperial' : 'metric',
            )
          }}<template v-if="data.wrench.lengthMm !== undefined"
            >, {{ units.exact(data.wrench.lengthMm) }} long</template
          ></span
        >
        <span v-if="!data.perTurnMm && !data.masters.length && !data.wrench" class="soft">—</span>
      </template>
    </Column>
    <Column field="dueOn" header="Calibration due" sortable>
      <template #body="{ data }">
        <span v-if="data.dueOn === null" class="soft">day not known</span>
        <span v-else class="mono">{{ showDate(data.dueOn) }}</span><br />
        <span
          v-if="!data.retired && data.dueOn !== null"
          class="small"
          :class="data.overdue ? 'late' : 'soft'"
          >{{ data.overdue ? `overdue, ran out ${due(data)}` : due(data) }}</span
        >
      </template>
    </Column>
    <Column header="">
      <template #body="{ data }"
        ><Button
          label="Change"
          class="quiet small-button"
          :aria-label="`Change ${data.name}`"
          @click="open = data"
      /></template>
    </Column>
  </DataTable>
  <GaugeDialog v-if="open" :gauge="open" @close="open = null" />
  <NewGaugeDialog v-if="adding" @close="adding = false" />
</template>

<style scoped>
.add {
  margin-left: auto;
}
.master {
  display: block;
}
.late {
  color: var(--out);
  font-weight: 700;
}
</style>
