<script setup lang="ts">
import type { Fastener } from '@moray/core/drives/fasteners'
import type { Further } from '@moray/core/drives/further'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { ROW_FORMS, type RowForm } from './further-columns.ts'
import { useDrives } from '../wire/queries.ts'
import { useShownRows, type FurtherRow } from './show-further.ts'

/** What a sheet says besides its figures, list by list; what it does not say is not there. */
const props = defineProps<{ further: Further; fasteners?: readonly Fastener[] }>()
const { titleOf, aboutOf } = useShownRows(() => props.fasteners)
const rowsOf = (form: RowForm) => (props.further[form.list] ?? []) as unknown as FurtherRow[]
const drives = useDrives()
const partner = computed(
  () => drives.sheets?.find((d) => d.id === props.further.partner)?.name ?? props.further.partner,
)
const lists = computed(() => ROW_FORMS.filter((form) => rowsOf(form).length))
</script>

<template>
  <div class="further">
    <p v-if="further.plateAt || further.stampsAt || further.trimTab || further.partner" class="small">
      <template v-if="further.plateAt">Plate: {{ further.plateAt }}. </template>
      <template v-if="further.stampsAt">Stamps: {{ further.stampsAt }}. </template>
      <template v-if="further.trimTab">Trim tab: {{ further.trimTab }}. </template>
      <template v-if="further.partner"
        >Its other half: <RouterLink :to="`/drives/${further.partner}`">{{ partner }}</RouterLink></template
      >
    </p>
    <section v-for="form in lists" :key="form.list" :aria-label="form.title">
      <h2>{{ form.title }}</h2>
      <ul class="small">
        <li v-for="row in rowsOf(form)" :key="row.id">
          {{ titleOf(form, row)
          }}<span v-if="aboutOf(form, row)" class="soft">: {{ aboutOf(form, row) }}</span>
        </li>
      </ul>
    </section>
    <section v-if="further.cautions?.length" aria-label="Cautions">
      <h2>Cautions</h2>
      <ul class="small">
        <li v-for="(c, i) in further.cautions" :key="i">{{ c }}</li>
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
