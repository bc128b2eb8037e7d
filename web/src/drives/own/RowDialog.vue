<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { settingMeasures } from '@moray/core/setting/measures'
import { filled } from '@moray/core/drives/own/fill'
import type { Piece } from '@moray/core/drives/graph/rows'
import MultiSelect from 'primevue/multiselect'
import { computed, ref } from 'vue'
import { useOwn } from '../../stores/own.ts'
import FormDialog from '../../ui/FormDialog.vue'
import { problemAt } from '../../wire/client.ts'
import type { Column, RowForm } from '../forms/column.ts'
import { optionsOf, shownName, rowsOfForm, useShownRows, type ShownRow } from '../show-rows.ts'
import PiecesField from './PiecesField.vue'
import { asTyped, readTyped, type Typed } from './typed-row.ts'
import { freeId, useDraftWrite } from './use-draft-write.ts'

/** One row of a list, typed. What stands there when it is kept counts as said, edges that were only assumed too. */
const props = defineProps<{ draft: SheetDraft; form: RowForm; row?: ShownRow }>()
const emit = defineEmits<{ close: [] }>()
const own = useOwn()
const write = useDraftWrite()
const body = computed(() => props.draft.body)
const rows = computed(() => rowsOfForm(body.value, props.form))
const settings = computed(() => {
  return settingMeasures(filled(body.value)).map(({ id, label }) => ({ id, label }))
})
const { shown } = useShownRows(
  () => body.value,
  (id) => settings.value.find((s) => s.id === id)?.label ?? id,
)
const typed = ref<Record<string, Typed>>(
  Object.fromEntries(props.form.columns.map((c) => [c.key, asTyped(c, props.row)])),
)
const at = ref('')
const tried = ref(false)
const understood = computed(() =>
  Object.fromEntries(
    props.form.columns.map((c) => [c.key, readTyped(c, typed.value[c.key], own.first, props.row)]),
  ),
)
/** Missing names are said once he tried to keep the row, figures at once. */
const whyNot = (c: Column) =>
  ((tried.value || typed.value[c.key]) && understood.value[c.key]?.why) ||
  problemAt(write.error.value, `now.${props.form.list}[0].${c.key}`)
const hasAssumed = computed(() =>
  props.form.columns.some(
    (c) => c.is === 'edges' && Object.values((props.row?.[c.key] ?? {}) as object).includes('assumed'),
  ),
)

async function send() {
  tried.value = true
  const read = Object.entries(understood.value)
  if (read.some(([, r]) => r.why)) return
  const kept = Object.fromEntries(
    read.flatMap(([key, r]) =>
      r.value === undefined ? [] : [[key, r.value] as const, ...Object.entries(r.also ?? {})],
    ),
  )
  // what the form does not show stays as it is
  const mine = new Set(
    props.form.columns.flatMap((c) => (c.is === 'torque' ? [c.key, 'torqueUnit'] : [c.key])),
  )
  const rest = Object.entries(props.row ?? {}).filter(
    ([k]) => !mine.has(k) && k !== 'assumed' && k !== 'said',
  )
  const id = String(
    props.row?.id ?? kept.id ?? freeId(String(Object.values(kept)[0] ?? props.form.one), taken.value),
  )
  const now = { [props.form.list]: [{ ...Object.fromEntries(rest), ...kept, id }] }
  const place = at.value ? rows.value.findIndex((r) => r.id === at.value) + 1 : undefined
  const row = { list: props.form.list, id, now, ...(place ? { at: place } : {}) }
  if (await write.put(body.value.id, row, props.row)) emit('close')
}
/** Parts, pieces and groups lie in one row and share their ids. */
const taken = computed(() =>
  props.form.list === 'parts' || props.form.list === 'groups'
    ? [
        ...body.value.parts,
        ...(body.value.groups ?? []),
        ...(body.value.groups ?? []).flatMap((g) => g.pieces ?? []),
      ]
    : rows.value,
)
async function remove() {
  if (await write.put(body.value.id, { list: props.form.list, id: props.row!.id }, props.row)) emit('close')
}
function addPiece(key: string) {
  const pieces = typed.value[key] as Piece[]
  const id = freeId(`${String(typed.value.name || 'fastener')} piece`, [...taken.value, ...pieces])
  typed.value[key] = [...pieces, { id, name: '' }]
}
</script>

<template>
  <FormDialog
    :header="row ? shownName(row) : `Add ${form.one}`"
    action="Keep it"
    :busy="write.busy.value"
    @send="send"
    @close="emit('close')"
  >
    <p v-if="hasAssumed" class="small soft wide">
      What is only assumed counts as confirmed once you keep this.
    </p>
    <template v-for="(c, i) in form.columns" :key="c.key">
      <label v-if="c.is === 'flag'" class="check"
        ><input v-model="typed[c.key] as boolean" type="checkbox" /> {{ c.label }}</label
      >
      <div v-else-if="c.is === 'pieces'" class="wide field">
        <span>{{ c.label }}</span>
        <PiecesField v-model="typed[c.key] as Piece[]" @add="addPiece(c.key)" />
        <span v-if="whyNot(c)" class="bad" role="alert">{{ whyNot(c) }}</span>
      </div>
      <label v-else :class="{ wide: c.wide }">
        {{ c.label }}
        <MultiSelect
          v-if="c.is === 'edges' || c.is === 'choices'"
          v-model="typed[c.key] as string[]"
          :options="
            c.is === 'edges'
              ? optionsOf(body, form, c, row)
              : Object.entries(c.choices!).map(([id, label]) => ({ id, label }))
          "
          option-label="label"
          option-value="id"
          :aria-label="c.label"
          :filter="c.is === 'edges'"
          :show-toggle-all="false"
          :selection-limit="c.one ? 1 : undefined"
          :max-selected-labels="4"
          placeholder="not said"
          empty-message="nothing in the list yet"
        />
        <select
          v-else-if="['choice', 'seal', 'setting'].includes(c.is)"
          v-model="typed[c.key] as string"
          :disabled="c.is === 'setting' && !!row"
        >
          <option value="">{{ c.needed ? 'choose' : 'not said' }}</option>
          <template v-if="c.is === 'seal'">
            <option v-for="s in body.seals" :key="s.id" :value="s.id">{{ s.label }}</option>
          </template>
          <template v-if="c.is === 'setting'">
            <option v-for="s in settings" :key="s.id" :value="s.id">{{ s.label }}</option>
          </template>
          <option v-for="(label, id) in c.choices" :key="id" :value="id">{{ label }}</option>
        </select>
        <textarea v-else-if="c.is === 'lines'" v-model="typed[c.key] as string" rows="3" maxlength="800" />
        <input
          v-else
          v-model="typed[c.key] as string"
          :autofocus="i === 0"
          :maxlength="c.is === 'text' ? c.most : 60"
          :placeholder="
            c.is === 'torque' ? (own.first === 'imperial' ? '30 to 35 ftlb' : '40 to 48 Nm') : c.placeholder
          "
          :inputmode="c.is === 'count' ? 'numeric' : c.is === 'number' ? 'decimal' : 'text'"
          autocomplete="off"
        />
        <span v-if="whyNot(c)" class="bad" role="alert">{{ whyNot(c) }}</span>
        <span
          v-else-if="['torque', 'length', 'window'].includes(c.is) && understood[c.key]?.value !== undefined"
          class="mono small"
          >{{ shown(c, understood[c.key]!.value) }}</span
        >
      </label>
    </template>
    <label v-if="form.ordered && !row" class="wide">
      In the list after
      <select v-model="at">
        <option value="">the last one</option>
        <option v-for="r in rows" :key="r.id" :value="r.id">{{ shownName(r) }}</option>
      </select>
    </label>
    <p v-if="write.error.value" class="fault wide" role="alert">{{ write.error.value.message }}</p>
    <template #below>
      <button v-if="row" type="button" class="texty wide" @click="remove">
        {{ form.strike ?? 'Take it out of the sheet' }}
      </button>
    </template>
  </FormDialog>
</template>

<style scoped>
label,
.field {
  min-width: 0;
  grid-template-columns: minmax(0, 1fr);
}
.check {
  display: flex !important;
  min-height: 40px;
  align-items: center;
  gap: 0.5rem;
}
:deep(.p-multiselect) {
  min-width: 0;
  max-width: 100%;
  min-height: 44px;
  align-items: center;
}
.field {
  display: grid;
  gap: 0.3rem;
}
</style>
