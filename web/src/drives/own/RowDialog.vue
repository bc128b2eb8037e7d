<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import type { Piece } from '@moray/core/drives/graph/rows'
import { confirmed } from '@moray/core/drives/own/hanging'
import { computed, ref, useId } from 'vue'
import { useOwn } from '../../stores/own.ts'
import FormDialog from '../../ui/FormDialog.vue'
import { problemAt } from '../../wire/client.ts'
import { isFigure, type Column, type RowForm } from '../forms/column.ts'
import CellInput from '../lists/CellInput.vue'
import type { useSheetOptions } from '../lists/sheet-options.ts'
import { shownName, useShownRows, type ShownRow } from '../show-rows.ts'
import PiecesField from './PiecesField.vue'
import { asTyped, readRow, readTyped, type Typed } from './typed-row.ts'
import { freeId, useDraftWrite } from './use-draft-write.ts'

/** One row of a list, whole. What stands there when it is kept counts as said, edges that were only assumed too. */
const props = defineProps<{
  draft: SheetDraft
  form: RowForm
  row: ShownRow
  sheet: ReturnType<typeof useSheetOptions>
}>()
const emit = defineEmits<{ close: [] }>()
const own = useOwn()
const write = useDraftWrite()
const base = useId()
const { shown } = useShownRows(
  () => props.draft.body,
  (id) => props.sheet.settingName(id),
  (id) => props.sheet.placeName(id),
)
/** Only what was typed here is read again: a figure that stays keeps all its digits. */
const typed = ref<Record<string, Typed>>({})
const valueOf = (c: Column): Typed => typed.value[c.key] ?? asTyped(c, props.row, own.first)
const set = (c: Column, value: Typed) => (typed.value = { ...typed.value, [c.key]: value })
const read = computed(() => readRow(props.form, props.row, typed.value, { first: own.first }))
const whyNot = (c: Column) =>
  read.value.problems[c.key] ?? problemAt(write.error.value, `now.${props.form.list}[0].${c.key}`)
const understood = (c: Column) => {
  if (!isFigure(c)) return ''
  const value = readTyped(c, valueOf(c), { first: own.first }).value
  return value === undefined ? '' : shown(c, value)
}
const isAssumed = computed(
  () => JSON.stringify(confirmed(props.form.list as never, props.row)) !== JSON.stringify(props.row),
)

async function send() {
  if (Object.keys(read.value.problems).length) return
  const { said: _said, ...kept } = confirmed(props.form.list as never, read.value.row as ShownRow)
  const row = { list: props.form.list, id: props.row.id, now: { [props.form.list]: [kept] } }
  if (await write.put(props.draft.body.id, row, props.row)) emit('close')
}
function addPiece(c: Column) {
  const pieces = valueOf(c) as Piece[]
  const taken = new Set([...props.sheet.lying.value, ...pieces.map((p) => p.id)])
  set(c, [...pieces, { id: freeId(`${shownName(props.row)} piece`, taken), name: '' }])
}
</script>

<template>
  <FormDialog
    :header="form.list === 'settings' ? sheet.settingName(row.id) : shownName(row)"
    action="Keep it"
    :busy="write.busy.value"
    @send="send"
    @close="emit('close')"
  >
    <p v-if="isAssumed" class="small soft wide">
      What is only assumed counts as confirmed once you keep this.
    </p>
    <template v-for="c in form.columns" :key="c.key">
      <div v-if="c.is === 'pieces'" class="wide field">
        <span>{{ c.label }}</span>
        <PiecesField
          :model-value="valueOf(c) as Piece[]"
          @update:model-value="(v: Piece[]) => set(c, v)"
          @add="addPiece(c)"
        />
        <span v-if="whyNot(c)" class="bad" role="alert">{{ whyNot(c) }}</span>
      </div>
      <div v-else class="field" :class="{ wide: c.wide || c.is === 'edges', check: c.is === 'flag' }">
        <label :for="`${base}-${c.key}`">{{ c.label }}</label>
        <CellInput
          :id="`${base}-${c.key}`"
          :column="c"
          :label="c.label"
          :model-value="valueOf(c)"
          :options="sheet.optionsFor(form, c, row)"
          :taken="sheet.lying.value"
          :disabled="c.is === 'setting'"
          :invalid="!!whyNot(c)"
          @update:model-value="(v: Typed) => set(c, v)"
        />
        <span v-if="whyNot(c)" class="bad" role="alert">{{ whyNot(c) }}</span>
        <span v-else-if="understood(c)" class="mono small">{{ understood(c) }}</span>
      </div>
    </template>
    <p v-if="write.error.value" class="fault wide" role="alert">{{ write.error.value.message }}</p>
  </FormDialog>
</template>

<style scoped>
.field {
  display: grid;
  gap: 0.3rem;
  min-width: 0;
  grid-template-columns: minmax(0, 1fr);
}
.check {
  display: flex;
  flex-direction: row-reverse;
  justify-content: flex-end;
  min-height: 44px;
  align-items: center;
}
:deep(.p-multiselect) {
  min-width: 0;
  max-width: 100%;
  min-height: 44px;
  align-items: center;
}
</style>
