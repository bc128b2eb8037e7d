<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { TORQUE_UNITS, type TorqueUnit } from '@moray/core/units/torque-unit'
import { confirmed } from '@moray/core/drives/own/hanging'
import { useStorage } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { useOwn } from '../../stores/own.ts'
import type { Column, RowForm } from '../forms/column.ts'
import { rowsOfForm, shownName, type ShownRow } from '../show-rows.ts'
import RowDialog from '../own/RowDialog.vue'
import { useDraftWrite } from '../own/use-draft-write.ts'
import TableFile from '../own/TableFile.vue'
import { useTypedFrom } from '../own/use-typed-from.ts'
import ListTable from './ListTable.vue'
import PasteDialog from './PasteDialog.vue'
import type { useSheetOptions } from './sheet-options.ts'
import StrikeDialog from './StrikeDialog.vue'

/** One list of a draft with everything that is done to it as a whole, and to the line that the hand is in. */
const props = defineProps<{
  draft: SheetDraft
  form: RowForm
  sheet: ReturnType<typeof useSheetOptions>
  loose: ReadonlySet<string>
  /** Shut until it is opened, where several lists stand on one page and this one is empty. */
  folded?: boolean
}>()
const emit = defineEmits<{ at: [id: string | null, column: Column | null] }>()
const own = useOwn()
const write = useDraftWrite()
const table = useTemplateRef<InstanceType<typeof ListTable>>('table')
const { from, page } = useTypedFrom(props.draft.body.id)
const source = computed(() => ({
  source: from.value === 'usual' ? ('manual' as const) : from.value,
  ...(page.value.trim() ? { where: page.value.trim() } : {}),
}))
const rows = computed(() => rowsOfForm(props.draft.body, props.form))
const open = ref(!props.folded || rows.value.length > 0)
const all = useStorage(`moray.columns.${props.form.list}`, false)
const columns = computed(() =>
  all.value ? props.form.columns : props.form.shown.map((k) => props.form.columns.find((c) => c.key === k)!),
)
const hasTorque = computed(() => props.form.columns.some((c) => c.is === 'torque'))
const torqueUnit = useStorage<TorqueUnit>(
  `moray.torque.${props.draft.body.id}`,
  own.first === 'imperial' ? 'ftlb' : 'Nm',
)
const hand = computed(() => (hasTorque.value ? { torqueUnit: torqueUnit.value } : {}))

const at = ref<{ key: string; column: Column } | null>(null)
const row = computed(() => rows.value.find((r) => r.id === at.value?.key))
function onAt(key: string | null, column: Column | null) {
  at.value = key === null ? null : { key, column: column! }
  emit('at', key, column)
}
const pasted = ref<{ text: string; columns: readonly Column[] } | null>(null)
const whole = ref<ShownRow | null>(null)
const struck = ref<ShownRow | null>(null)
const isAssumed = computed(() => {
  const r = row.value
  return r !== undefined && JSON.stringify(r) !== JSON.stringify(confirmed(props.form.list as never, r))
})
const move = (id: string, before: string) =>
  write.move(props.draft.body.id, { list: props.form.list, id, before })
function step(way: 1 | -1) {
  const ids = rows.value.map((r) => r.id)
  const i = ids.indexOf(row.value!.id)
  if (i + way >= 0 && i + way < ids.length)
    void move(row.value!.id, (way < 0 ? ids[i - 1] : ids[i + 2]) ?? '')
}
const confirmRow = (r: ShownRow) =>
  write.putAll(props.draft.body.id, {
    list: props.form.list,
    now: { [props.form.list]: [confirmed(props.form.list as never, r)] },
    seen: [{ id: r.id, was: JSON.stringify(r) }],
  })
async function paste(text: string, from: readonly Column[]) {
  open.value = true
  await nextTick()
  write.clear()
  pasted.value = { text, columns: from }
}
async function add() {
  open.value = true
  await nextTick()
  const t = table.value!
  void t.go(t.edits.fresh.value.at(-1)!, columns.value[0]!.key)
}
async function look(id: string, field?: string) {
  open.value = true
  if (field && !columns.value.some((c) => c.key === field)) all.value = true
  await nextTick()
  // a preload that nothing holds has no row yet
  if (!rows.value.some((r) => r.id === id)) return add()
  await table.value!.go(id, field ?? columns.value[0]!.key)
  document.activeElement?.scrollIntoView({ block: 'center', inline: 'nearest' })
}
defineExpose({
  list: props.form.list,
  pick: (id: string) => table.value?.pick(id) ?? false,
  leave: () => table.value?.leaveIfIn(),
  look,
})
</script>

<template>
  <section :aria-label="form.title">
    <header>
      <h3>{{ form.title }} <span class="mono small">{{ rows.length }}</span></h3>
      <div class="acts">
        <button v-if="!open" type="button" class="texty small" @click="open = true">Show</button>
        <button type="button" class="texty small" @click="add">Add {{ form.one }}</button>
        <button type="button" class="texty small" @click="paste('', columns)">Paste a table</button>
        <button
          v-if="open && form.shown.length < form.columns.length"
          type="button"
          class="texty small"
          :aria-pressed="all"
          @click="all = !all"
        >
          {{ all ? 'Fewer columns' : 'All columns' }}
        </button>
        <label v-if="hasTorque && open" class="small unit"
          >Bare torques in
          <select v-model="torqueUnit">
            <option v-for="u in TORQUE_UNITS" :key="u" :value="u">
              {{ { Nm: 'Nm', ftlb: 'ft-lb', inlb: 'in-lb' }[u] }}
            </option>
          </select></label
        >
      </div>
    </header>
    <p v-if="!rows.length" class="small soft">{{ form.empty }}</p>
    <template v-if="open">
      <ListTable
        ref="table"
        :draft="draft"
        :form="form"
        :columns="columns"
        :sheet="sheet"
        :from="source"
        :hand="hand"
        :loose="loose"
        @at="onAt"
        @paste="paste"
        @order="move"
      />
      <div v-if="row" class="line small" role="toolbar" :aria-label="`${shownName(row)}: line`">
        <strong>{{ form.list === 'settings' ? sheet.settingName(row.id) : shownName(row) }}</strong>
        <button type="button" class="texty small" @click="whole = row">Whole row</button>
        <template v-if="form.list !== 'settings'">
          <button type="button" class="texty small" @click="step(-1)">Move up</button>
          <button type="button" class="texty small" @click="step(1)">Move down</button>
        </template>
        <button v-if="isAssumed" type="button" class="texty small" @click="confirmRow(row)">
          Confirm what is assumed
        </button>
        <button type="button" class="texty small" @click="struck = row">Strike out</button>
      </div>
      <TableFile
        v-if="form.table"
        :href="`/api/drives/${draft.body.id}/lists/${form.table}`"
        :what="form.title.toLowerCase()"
        :busy="write.busy.value"
        :error="write.error.value"
        @table="(csv) => write.table(draft.body.id, form.table!, csv)"
      />
      <p v-else-if="write.error.value" class="fault small" role="alert">{{ write.error.value.message }}</p>
    </template>
    <PasteDialog
      v-if="pasted && table"
      :draft="draft"
      :form="form"
      :text="pasted.text"
      :columns="pasted.columns"
      :sheet="sheet"
      :edits="table.edits"
      @close="pasted = null"
    />
    <RowDialog v-if="whole" :draft="draft" :form="form" :row="whole" :sheet="sheet" @close="whole = null" />
    <StrikeDialog v-if="struck" :draft="draft" :form="form" :row="struck" @close="struck = null" />
  </section>
</template>

<style scoped>
section {
  padding: 0.5rem 0 0.8rem;
}
header {
  position: sticky;
  left: 0;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0 1rem;
}
h3 {
  margin: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 0.9rem;
}
.acts > * {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.unit {
  gap: 0.4rem;
}
.unit select {
  min-height: 36px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
.line {
  position: sticky;
  bottom: 0;
  left: 0;
  z-index: 2;
  border: 1px solid var(--line-strong);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 0.9rem;
  min-height: 44px;
  padding: 0 0.4rem;
  background: var(--lamp-soft);
}
.line button {
  min-height: 44px;
}
</style>
