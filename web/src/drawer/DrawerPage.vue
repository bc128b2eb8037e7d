<script setup lang="ts">
import type { DrawerLine } from '@moray/contract/replies'
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import LoadState from '../ui/LoadState.vue'
import { understand } from '../ui/understand.ts'
import { cutWords } from '../ui/cut-words.ts'
import { useUnits } from '../ui/units.ts'
import { useDrawer } from '../wire/queries.ts'
import { useShop } from '../stores/shop.ts'
import SaveCsv from '../ui/SaveCsv.vue'
import LineDialog from './LineDialog.vue'
import NewLineDialog from './NewLineDialog.vue'

const store = useDrawer()
const shop = useShop()
const units = useUnits()

const search = ref('')
/** Bench notation finds what is near in thickness; other text finds marks and places. */
const found = computed(() => {
  const lines = store.lines ?? []
  const text = search.value.trim().toLowerCase()
  if (!text) return lines
  const meaning = understand(text, shop.unit, 'shim-piece')
  const near =
    meaning.state === 'value' ? lines.filter((l) => Math.abs(l.thicknessMm - meaning.value) <= 0.015) : []
  return near.length ? near : lines.filter((l) => `${l.text} ${l.place}`.toLowerCase().includes(text))
})
const empty = computed(() => (store.lines ?? []).filter((l) => l.count === 0).length)
const pieces = computed(() => (store.lines ?? []).reduce((n, l) => n + l.count, 0))
const most = computed(() => Math.max(1, ...(store.lines ?? []).map((l) => l.count + l.reserved)))
const columns = [
  { name: 'thickness (mm)', of: (l: DrawerLine) => l.thicknessMm },
  { name: 'marked', of: (l: DrawerLine) => l.text },
  { name: 'place', of: (l: DrawerLine) => l.place },
  { name: 'pieces', of: (l: DrawerLine) => l.count },
  { name: 'in open trials', of: (l: DrawerLine) => l.reserved },
  { name: 'last touched', of: (l: DrawerLine) => l.touchedAt },
]
const open = ref<DrawerLine | null>(null)
const adding = ref(false)
</script>

<template>
  <div class="page-head">
    <h1>Drawer</h1>
    <label class="sr-only" for="find-shim">Find a shim</label>
    <InputText id="find-shim" v-model="search" placeholder="Find: 19t, 0.37, B3" autocomplete="off" />
    <p v-if="store.lines" class="small soft">
      {{ store.lines.length }} lines, {{ pieces }} pieces, {{ empty }} lines empty
    </p>
    <SaveCsv v-if="found.length" name="drawer" :columns="columns" :rows="() => found" />
    <Button label="Add a line" class="lamp add" @click="adding = true" />
  </div>
  <LoadState v-if="!store.lines" what="the drawer" :error="store.error" @again="store.load" />
  <p v-else-if="!store.lines.length" class="soft">The drawer is empty. Measure a shim and add its line.</p>
  <p v-else-if="!found.length" class="soft">Nothing like “{{ search }}” in the drawer.</p>
  <DataTable v-else :value="found" data-key="id" sort-field="thicknessMm" :sort-order="1" scrollable>
    <Column field="thicknessMm" header="Measured" sortable>
      <template #body="{ data }">
        <span class="mono thick">{{ units.length(data.thicknessMm, 3) }}</span>
        <span class="mono soft other">{{ units.other(data.thicknessMm, 3) }}</span>
      </template>
    </Column>
    <Column field="text" header="Marked" sortable>
      <template #body="{ data }"
        ><span class="mono">{{ data.text }}</span>
        <span v-if="data.cut" class="small soft cut">{{ cutWords(data.cut, units) }}</span></template
      >
    </Column>
    <Column field="place" header="Tray" sortable />
    <Column field="count" header="In the drawer" sortable>
      <template #body="{ data }">
        <span class="stock">
          <span class="mono number" :class="{ none: data.count === 0 }">{{ data.count }}</span>
          <svg width="120" height="14" aria-hidden="true">
            <rect
              v-for="n in data.count"
              :key="n"
              :x="(n - 1) * (118 / most)"
              y="1"
              :width="118 / most - 2"
              height="12"
              class="have"
            />
            <rect
              v-for="n in data.reserved"
              :key="`r${n}`"
              :x="(data.count + n - 1) * (118 / most) + 0.5"
              y="1.5"
              :width="118 / most - 3"
              height="11"
              class="out"
            />
          </svg>
          <span v-if="data.count === 0" class="small none">empty</span>
        </span>
      </template>
    </Column>
    <Column field="reserved" header="In trials" sortable>
      <template #body="{ data }"><span class="mono">{{ data.reserved || '' }}</span></template>
    </Column>
    <Column header="">
      <template #body="{ data }"
        ><Button
          label="Change"
          class="quiet small-button"
          :aria-label="`Change line ${data.text}, ${units.length(data.thicknessMm, 3)}`"
          @click="open = data"
      /></template>
    </Column>
  </DataTable>
  <LineDialog v-if="open" :line="open" @close="open = null" />
  <NewLineDialog v-if="adding" @close="adding = false" />
</template>

<style scoped>
.add {
  margin-left: auto;
}
.cut {
  display: block;
}
.thick {
  font-size: var(--t-lead);
  font-weight: 700;
}
.other {
  margin-left: 0.8rem;
}
.stock {
  display: inline-flex;
  align-items: center;
  gap: 0.6rem;
}
.number {
  min-width: 1.6rem;
  text-align: right;
  font-size: var(--t-lead);
}
.have {
  fill: var(--ink-soft);
}
.out {
  fill: none;
  stroke: var(--ink-soft);
  stroke-dasharray: 2 2;
}
.none {
  color: var(--out);
  font-weight: 700;
}
</style>
