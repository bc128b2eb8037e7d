<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { inTheAir } from '@moray/core/drives/graph/check-graph'
import { filled } from '@moray/core/drives/own/fill'
import { settingMeasures } from '@moray/core/setting/measures'
import { computed, ref } from 'vue'
import type { RowForm } from '../forms/column.ts'
import { rowsOfForm, useShownRows, type ShownRow } from '../show-rows.ts'
import ListSection from './ListSection.vue'
import RowDialog from './RowDialog.vue'
import TableFile from './TableFile.vue'
import { useDraftWrite } from './use-draft-write.ts'

/** Lists of rows: what this drive has not is struck out, what it has besides is added. */
const props = defineProps<{ draft: SheetDraft; forms: readonly RowForm[] }>()
const table = useDraftWrite()
const settings = computed(() => {
  return new Map(settingMeasures(filled(props.draft.body)).map((m) => [m.id, m.label]))
})
const { titleOf, aboutOf } = useShownRows(
  () => props.draft.body,
  (id) => settings.value.get(id) ?? id,
)
const open = ref<{ form: RowForm; row?: ShownRow } | null>(null)
const loose = computed(() => new Set(inTheAir(props.draft.body).map((r) => `${r.list} ${r.id}`)))
</script>

<template>
  <div>
    <ListSection
      v-for="form in forms"
      :key="form.list"
      :title="form.title"
      :action="`Add ${form.one}`"
      @act="open = { form }"
    >
      <TableFile
        v-if="form.table"
        :href="`/api/drives/${draft.body.id}/lists/${form.table}`"
        :what="form.title.toLowerCase()"
        :busy="table.busy.value"
        :error="table.error.value"
        @table="(csv) => table.table(draft.body.id, form.table!, csv)"
      />
      <p v-if="!rowsOfForm(draft.body, form).length" class="small soft">{{ form.empty }}</p>
      <ul v-else class="rows">
        <li v-for="row in rowsOfForm(draft.body, form)" :key="row.id">
          <button type="button" class="row" @click="open = { form, row }">
            <span
              >{{ titleOf(form, row) }}
              <span v-if="row.hand === 'left'" class="left">left-hand</span>
              <span v-if="row.assumed" class="small soft">nobody has confirmed it</span>
              <span v-if="loose.has(`${form.list} ${row.id}`)" class="small soft"
                >nothing leads to it yet</span
              ></span
            >
            <span class="small soft">{{ aboutOf(form, row) }}</span>
          </button>
        </li>
      </ul>
    </ListSection>
    <slot />
    <RowDialog v-if="open" :draft="draft" :form="open.form" :row="open.row" @close="open = null" />
  </div>
</template>

<style scoped>
.left {
  color: var(--stop);
}
.row {
  display: grid;
  width: 100%;
  min-height: 44px;
  padding: 0.25rem 0.3rem;
  text-align: left;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
.row:hover {
  background: var(--lamp-soft);
}
</style>
