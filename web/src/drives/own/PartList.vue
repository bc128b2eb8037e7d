<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { PART_KINDS, type PartKind } from '@moray/core/drives/parts'
import Button from 'primevue/button'
import { computed, reactive, ref } from 'vue'
import FormDialog from '../../ui/FormDialog.vue'
import { plainNumber } from '@moray/core/units/plain-number'
import TableFile from './TableFile.vue'
import { freeId, useDraftWrite } from './use-draft-write.ts'

/** What comes off, in its order: what this drive has not is struck out, what it has besides is added where it comes. */
const props = defineProps<{ draft: SheetDraft }>()
const write = useDraftWrite()
const table = useDraftWrite()
const parts = computed(() => props.draft.body.parts)
type Row = (typeof props.draft.body.parts)[number]
const nameOf = (id: string) => parts.value.find((p) => p.id === id)?.name.toLowerCase() ?? id

const open = ref<Row | 'new' | null>(null)
const form = reactive({
  name: '',
  kind: 'bearing' as PartKind,
  count: '1',
  after: '',
  at: '',
  price: '',
  waitDays: '',
  apart: false,
  water: false,
})
const tried = ref(false)
/** Only what seals holds something back. */
const seals = computed(() => form.kind === 'seal' || form.kind === 'ring')
function edit(p: Row | 'new') {
  write.clear()
  tried.value = false
  const x: Partial<Row> = p === 'new' ? {} : p
  Object.assign(form, {
    name: x.name ?? '',
    kind: x.kind ?? 'bearing',
    count: String(x.count ?? 1),
    after: x.after?.[0] ?? '',
    at: '',
    price: x.price === undefined ? '' : String(x.price),
    waitDays: x.waitDays === undefined ? '' : String(x.waitDays),
    apart: x.apart === true,
    water: x.keeps === 'water',
  })
  open.value = p
}
async function send() {
  tried.value = true
  if (!form.name.trim()) return
  const before: Partial<Row> = seen() ?? {}
  const id = before.id ?? freeId(form.name, parts.value)
  const { price: _p, waitDays: _w, apart: _a, keeps: _k, ...rest } = before
  const after = [...new Set([...(form.after ? [form.after] : []), ...(before.after ?? []).slice(1)])]
  const part = {
    ...rest,
    id,
    name: form.name.trim(),
    kind: form.kind,
    count: Number(form.count),
    after,
    ...(form.price.trim() ? { price: plainNumber(form.price) ?? NaN } : {}),
    ...(form.apart ? { apart: true as const } : {}),
    ...(form.water && seals.value ? { keeps: 'water' as const } : {}),
    ...(form.waitDays.trim() ? { waitDays: plainNumber(form.waitDays) ?? NaN } : {}),
  }
  const at = form.at ? parts.value.findIndex((p) => p.id === form.at) + 1 : undefined
  if (await write.put(props.draft.body.id, { list: 'parts', id, part, ...(at ? { at } : {}) }, seen()))
    open.value = null
}
/** The part as it was when its form was opened. */
const seen = () => (open.value && open.value !== 'new' ? open.value : undefined)
const remove = async (id: string) => {
  if (await write.put(props.draft.body.id, { list: 'parts', id, remove: true }, seen())) open.value = null
}
</script>

<template>
  <div>
    <p class="small soft">
      The usual parts of the family, in the order in which they come off; tap one to change it.
    </p>
    <TableFile
      :href="`/api/drives/${draft.body.id}/lists/parts`"
      what="parts"
      :busy="table.busy.value"
      :error="table.error.value"
      @table="(csv) => table.table(draft.body.id, 'parts', csv)"
    />
    <ol class="rows">
      <li v-for="p in parts" :key="p.id">
        <button type="button" class="row" @click="edit(p)">
          <span>{{ p.name }}<template v-if="(p.count ?? 1) > 1"> × {{ p.count }}</template></span>
          <span class="small soft"
            >{{ PART_KINDS[p.kind]
            }}<template v-if="p.after?.length">, after {{ p.after.map(nameOf).join(', ') }}</template></span
          >
        </button>
      </li>
    </ol>
    <Button label="Add a part" class="quiet" @click="edit('new')" />
    <p v-if="write.error.value && !open" class="fault" role="alert">{{ write.error.value.message }}</p>
    <FormDialog
      v-if="open"
      :header="open === 'new' ? 'A part' : form.name"
      action="Keep it"
      :busy="write.busy.value"
      @send="send"
      @close="open = null"
    >
      <label class="wide">
        What it is
        <input v-model="form.name" maxlength="80" autofocus autocomplete="off" />
        <span v-if="tried && !form.name.trim()" class="bad" role="alert">it needs a name</span>
      </label>
      <label>
        Kind
        <select v-model="form.kind">
          <option v-for="(label, id) in PART_KINDS" :key="id" :value="id">{{ label }}</option>
        </select>
      </label>
      <label>How many <input v-model="form.count" inputmode="numeric" maxlength="3" /></label>
      <label class="wide">
        Cannot come off before
        <select v-model="form.after">
          <option value="">nothing else</option>
          <option v-for="p in parts" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select>
      </label>
      <label v-if="open === 'new'" class="wide">
        In the list after
        <select v-model="form.at">
          <option value="">the last one</option>
          <option v-for="p in parts" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select>
      </label>
      <label class="wide tick">
        <input v-model="form.apart" type="checkbox" /> got at only with the halves apart, or the unit off the
        boat
      </label>
      <label v-if="seals" class="wide tick">
        <input v-model="form.water" type="checkbox" /> holds water back, not oil
      </label>
      <label>Price <input v-model="form.price" inputmode="decimal" maxlength="12" /></label>
      <label>Days until it arrives <input v-model="form.waitDays" inputmode="numeric" maxlength="4" /></label>
      <p v-if="write.error.value" class="fault wide" role="alert">{{ write.error.value.message }}</p>
      <template #below>
        <button v-if="open !== 'new'" type="button" class="texty wide" @click="remove((open as Row).id)">
          This drive has not got it
        </button>
      </template>
    </FormDialog>
  </div>
</template>

<style scoped>
.tick {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 44px;
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
