<script setup lang="ts">
import type { DriveSheet } from '@moray/core/drives/sheet'
import { settingMeasures } from '@moray/core/setting/measures'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { useDrives } from '../wire/queries.ts'
import { ROW_TABS } from './row-forms.ts'
import { rowsOfForm, useShownRows } from './show-rows.ts'

/** What a sheet says besides its figures, parts and fasteners, list by list; what it does not say is not there. */
const props = defineProps<{ sheet: DriveSheet }>()
const settings = computed(() => new Map(settingMeasures(props.sheet).map((m) => [m.id, m.label])))
const { titleOf, aboutOf } = useShownRows(
  () => props.sheet.graph,
  (id) => settings.value.get(id) ?? id,
)
const drives = useDrives()
const unit = computed(() => props.sheet.graph.unit ?? {})
const partner = computed(
  () => drives.sheets?.find((d) => d.id === unit.value.partner)?.name ?? unit.value.partner,
)
const lists = computed(() =>
  [...ROW_TABS.joints, ...ROW_TABS.others].filter((form) => rowsOfForm(props.sheet.graph, form).length),
)
</script>

<template>
  <div class="further">
    <p v-if="unit.plateAt || unit.stampsAt || unit.trimTab || unit.partner" class="small">
      <template v-if="unit.plateAt">Plate: {{ unit.plateAt }}. </template>
      <template v-if="unit.stampsAt">Stamps: {{ unit.stampsAt }}. </template>
      <template v-if="unit.trimTab">Trim tab: {{ unit.trimTab }}. </template>
      <template v-if="unit.partner"
        >Its other half: <RouterLink :to="`/drives/${unit.partner}`">{{ partner }}</RouterLink></template
      >
    </p>
    <section v-for="form in lists" :key="form.list" :aria-label="form.title">
      <h2>{{ form.title }}</h2>
      <ul class="small">
        <li v-for="row in rowsOfForm(sheet.graph, form)" :key="row.id">
          {{ titleOf(form, row)
          }}<span v-if="aboutOf(form, row)" class="soft">: {{ aboutOf(form, row) }}</span>
        </li>
      </ul>
    </section>
    <section v-if="unit.cautions?.length" aria-label="Cautions">
      <h2>Cautions</h2>
      <ul class="small">
        <li v-for="(c, i) in unit.cautions" :key="i">{{ c }}</li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.further {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 22rem), 1fr));
  gap: 0.8rem 1.6rem;
  margin-top: 1.2rem;
}
section {
  border-top: 1px solid var(--line);
  padding-top: 0.4rem;
}
.further > p {
  grid-column: 1 / -1;
}
</style>
