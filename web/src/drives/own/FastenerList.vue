<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { LOCK_KINDS, type Fastener, type LockKind } from '@moray/core/drives/fasteners'
import { FASTENER_TORQUE } from '@moray/core/drives/own/figures'
import { readFigure } from '@moray/core/drives/own/read-figure'
import { torqueUnitIn, type TorqueUnit } from '@moray/core/units/torque-unit'
import { InputError } from '@moray/core/checks/input-error'
import Button from 'primevue/button'
import { computed, reactive, ref } from 'vue'
import { useOwn } from '../../stores/own.ts'
import FormDialog from '../../ui/FormDialog.vue'
import { problemAt } from '../../wire/client.ts'
import { rangeInBoth } from '../../ui/both-units.ts'
import { torqueAsTyped } from './show-figure.ts'
import TableFile from './TableFile.vue'
import { freeId, useDraftWrite } from './use-draft-write.ts'

/** Groups of equal fasteners with all that a wrench has to know of them. */
const props = defineProps<{ draft: SheetDraft }>()
const own = useOwn()
const write = useDraftWrite()
const table = useDraftWrite()
const rows = computed(() => props.draft.body.fasteners ?? [])
const TORQUE = { shape: FASTENER_TORQUE }
const torque = (f: Fastener) => (f.torqueNm ? rangeInBoth(f.torqueNm, 'Nm', own.first, f.torqueUnit) : '')
const bare = computed((): TorqueUnit => (own.first === 'imperial' ? 'ftlb' : 'Nm'))

const open = ref<Fastener | 'new' | null>(null)
const form = reactive({
  name: '',
  count: '1',
  where: '',
  thread: '',
  left: false,
  torque: '',
  treatment: '',
  order: '',
  lock: 'none' as LockKind,
  tabs: '',
  hidden: false,
  captiveUntil: '',
  useOnce: false,
})
const tried = ref(false)
function edit(f: Fastener | 'new') {
  write.clear()
  tried.value = false
  const x: Partial<Fastener> = f === 'new' ? {} : f
  Object.assign(form, {
    name: x.name ?? '',
    count: String(x.count ?? 1),
    where: x.where ?? '',
    thread: x.thread ?? '',
    left: x.hand === 'left',
    torque: x.torqueNm ? torqueAsTyped(x.torqueNm, x.torqueUnit) : '',
    treatment: x.treatment ?? '',
    order: x.order ?? '',
    lock: x.lock ?? 'none',
    tabs: x.tabs === undefined ? '' : String(x.tabs),
    hidden: x.hidden ?? false,
    captiveUntil: x.captiveUntil ?? '',
    useOnce: x.useOnce ?? false,
  })
  open.value = f
}
const read = computed((): { value?: { min?: number; max?: number }; why?: string } => {
  if (!form.torque.trim()) return {}
  try {
    return { value: readFigure(TORQUE, form.torque, bare.value).value as { min?: number; max?: number } }
  } catch (e) {
    if (e instanceof InputError) return { why: e.fields[0]?.message ?? e.message }
    throw e
  }
})
const text = (name: 'where' | 'thread' | 'treatment' | 'order' | 'captiveUntil') =>
  form[name].trim() ? { [name]: form[name].trim() } : {}
/** The fasteners as they were when the form was opened. */
const seen = () => (open.value && open.value !== 'new' ? open.value : undefined)
async function send() {
  tried.value = true
  if (!form.name.trim() || read.value.why) return
  const before: Partial<Fastener> = seen() ?? {}
  const id = before.id ?? freeId(form.name, rows.value)
  const {
    where: _w,
    thread: _t,
    treatment: _tr,
    order: _o,
    captiveUntil: _c,
    tabs: _tabs,
    hand: _h,
    torqueNm: _nm,
    torqueUnit: _unit,
    hidden: _hi,
    useOnce: _u,
    ...rest
  } = before
  const fastener = {
    ...rest,
    id,
    name: form.name.trim(),
    count: Number(form.count),
    ...text('where'),
    ...text('thread'),
    ...text('treatment'),
    ...text('order'),
    ...text('captiveUntil'),
    ...(form.left ? { hand: 'left' as const } : {}),
    ...(read.value.value
      ? { torqueNm: read.value.value, torqueUnit: torqueUnitIn(form.torque) ?? bare.value }
      : {}),
    lock: form.lock,
    ...(form.lock === 'tab-washer' && form.tabs.trim() ? { tabs: Number(form.tabs) } : {}),
    ...(form.hidden ? { hidden: true } : {}),
    ...(form.useOnce ? { useOnce: true } : {}),
  }
  if (await write.put(props.draft.body.id, { list: 'fasteners', id, fastener }, seen())) open.value = null
}
const remove = async (id: string) => {
  if (await write.put(props.draft.body.id, { list: 'fasteners', id, remove: true }, seen())) open.value = null
}
const said = (field: string) => problemAt(write.error.value, `fastener.${field}`)
</script>

<template>
  <div>
    <TableFile
      :href="`/api/drives/${draft.body.id}/lists/fasteners`"
      what="fasteners"
      :busy="table.busy.value"
      :error="table.error.value"
      @table="(csv) => table.table(draft.body.id, 'fasteners', csv)"
    />
    <p v-if="!rows.length" class="soft">
      No fastener is listed yet. With them the job knows torques, threads, locks, and what is easily
      overlooked.
    </p>
    <ul v-else class="rows">
      <li v-for="f in rows" :key="f.id">
        <button type="button" class="row" @click="edit(f)">
          <span
            ><strong>{{ f.name }}</strong><template v-if="f.count > 1"> × {{ f.count }}</template>
            <span v-if="f.hand === 'left'" class="left">left-hand</span></span
          >
          <span class="mono">{{ torque(f) || 'no torque yet' }}</span>
          <span class="small soft">{{
            [
              f.where,
              f.thread,
              f.treatment,
              f.lock && f.lock !== 'none' ? LOCK_KINDS[f.lock] : '',
              f.hidden ? 'hidden' : '',
              f.captiveUntil ? `before ${f.captiveUntil}` : '',
              f.useOnce ? 'used once' : '',
            ]
              .filter(Boolean)
              .join(' · ')
          }}</span>
        </button>
      </li>
    </ul>
    <Button label="Add fasteners" class="quiet" @click="edit('new')" />
    <FormDialog
      v-if="open"
      :header="open === 'new' ? 'Fasteners of one kind' : form.name"
      action="Keep it"
      :busy="write.busy.value"
      @send="send"
      @close="open = null"
    >
      <label class="wide">
        What they are
        <input v-model="form.name" maxlength="80" autofocus autocomplete="off" />
        <span v-if="tried && !form.name.trim()" class="bad" role="alert">they need a name</span>
      </label>
      <label>
        How many
        <input v-model="form.count" inputmode="numeric" maxlength="3" />
        <span v-if="said('count')" class="bad" role="alert">{{ said('count') }}</span>
      </label>
      <label>
        Torque
        <input
          v-model="form.torque"
          maxlength="60"
          :placeholder="own.first === 'imperial' ? '30 to 35 ftlb' : '40 to 48 Nm'"
        />
        <span v-if="read.why" class="bad" role="alert">{{ read.why }}</span>
        <span v-else-if="read.value" class="mono small">{{
          rangeInBoth(read.value, 'Nm', own.first, torqueUnitIn(form.torque))
        }}</span>
        <span v-if="said('torqueNm')" class="bad" role="alert">{{ said('torqueNm') }}</span>
      </label>
      <label>Where <input v-model="form.where" maxlength="120" /></label>
      <label>Thread <input v-model="form.thread" maxlength="40" placeholder="M8 × 1.25" /></label>
      <label
        >Thread is
        <select v-model="form.left">
          <option :value="false">right-hand</option>
          <option :value="true">left-hand</option>
        </select></label
      >
      <label
        >Treatment <input v-model="form.treatment" maxlength="80" placeholder="dry, oiled, threadlocker"
      /></label>
      <label>
        Lock
        <select v-model="form.lock">
          <option v-for="(label, id) in LOCK_KINDS" :key="id" :value="id">{{ label }}</option>
        </select>
      </label>
      <label v-if="form.lock === 'tab-washer'"
        >Tabs to bend <input v-model="form.tabs" inputmode="numeric" maxlength="2"
      /></label>
      <label class="wide">Order of tightening <input v-model="form.order" maxlength="120" /></label>
      <label class="wide"
        >Goes in only before … is closed <input v-model="form.captiveUntil" maxlength="120"
      /></label>
      <label class="check"><input v-model="form.hidden" type="checkbox" /> easily overlooked</label>
      <label class="check"><input v-model="form.useOnce" type="checkbox" /> used once</label>
      <p v-if="write.error.value && !write.error.value.fields.length" class="fault wide" role="alert">
        {{ write.error.value.message }}
      </p>
      <template #below>
        <button v-if="open !== 'new'" type="button" class="texty wide" @click="remove((open as Fastener).id)">
          Take it out of the sheet
        </button>
      </template>
    </FormDialog>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.1rem 0.8rem;
  width: 100%;
  min-height: 48px;
  padding: 0.35rem 0.3rem;
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
.row .small {
  grid-column: 1 / -1;
}
.left {
  border: 1px solid var(--ink);
  padding: 0 0.3rem;
  font-size: var(--t-small);
}
.check {
  display: flex !important;
  align-items: center;
  gap: 0.5rem;
}
</style>
