<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import type { PutRow } from '@moray/contract/requests/sheets'
import { computed, reactive, ref } from 'vue'
import FormDialog from '../../ui/FormDialog.vue'
import { serialsOf } from './show-figure.ts'
import { freeId, useDraftWrite } from './use-draft-write.ts'

/** What the drive is made of: stacks, settings of bearings, measures. What it has not is struck out, what it has besides is added. */
const props = defineProps<{ draft: SheetDraft }>()
const write = useDraftWrite()
const body = computed(() => props.draft.body)
const gear = (id: string | undefined) => body.value.gears.find((g) => g.id === id)?.label.toLowerCase()
const axis = (id: string) => body.value.axes.find((a) => a.id === id)?.label.toLowerCase() ?? id
const pair = (id: string) => body.value.meshes.find((m) => m.id === id)?.label.toLowerCase() ?? id

const lists = computed(() => [
  {
    list: 'adjusters' as const,
    title: 'Stacks and carriers',
    rows: body.value.adjusters.map((a) => ({
      id: a.id,
      label: a.label,
      about: a.moves ? `moves the ${gear(a.moves)}` : 'sets a bearing',
    })),
  },
  {
    list: 'measures' as const,
    title: 'What is measured',
    rows: body.value.measures.map((m) => ({
      id: m.id,
      label: m.label,
      about:
        m.kind === 'backlash'
          ? pair(m.mesh)
          : m.kind === 'depth'
            ? `the ${gear(m.gear)}`
            : `the ${axis(m.axis)}`,
    })),
  },
  {
    list: 'bearings' as const,
    title: 'Bearings',
    rows: body.value.bearings.map((b) => ({
      id: b.id,
      label: b.label,
      about: b.setting
        ? b.setting.kind === 'crush'
          ? 'set by crush'
          : b.setting.sleeve
            ? 'set by rolling torque, over a crush sleeve'
            : 'set by rolling torque'
        : `on the ${axis(b.axis)}`,
    })),
  },
])
const variants = computed(() => body.value.variants ?? [])
const idsOf = (rows: readonly { id: string }[]) => new Set(rows.map((r) => r.id))
const early = reactive({ open: false, label: '', from: '', to: '' })
async function addVariant() {
  if (!early.label.trim()) return
  const id = freeId(early.label, idsOf(variants.value))
  const row: Omit<PutRow, 'was'> = {
    list: 'variants',
    id,
    now: {
      variants: [
        {
          id,
          label: early.label.trim(),
          ...(early.from.trim() ? { fromSerial: early.from.trim() } : {}),
          ...(early.to.trim() ? { toSerial: early.to.trim() } : {}),
          patch: {},
        },
      ],
    },
  }
  if (await write.put(body.value.id, row)) Object.assign(early, { open: false, label: '', from: '', to: '' })
}
type List = 'adjusters' | 'measures' | 'bearings' | 'variants'
const remove = (list: List, id: string) =>
  write.put(
    body.value.id,
    { list, id },
    ((body.value[list] ?? []) as { id: string }[]).find((r) => r.id === id),
  )

const adding = ref<'adjusters' | 'measures' | 'bearings' | null>(null)
const form = reactive({ label: '', on: '', kind: '', setting: '' })
function begin(list: 'adjusters' | 'measures' | 'bearings') {
  write.clear()
  Object.assign(form, {
    label: '',
    on: '',
    kind: list === 'measures' ? 'backlash' : list === 'bearings' ? 'taper' : 'shim',
    setting: '',
  })
  adding.value = list
}
/** What a new row can sit on, by list and kind. */
const places = computed(() => {
  // a stack moves a gear, or sets the preload or the crush of a bearing that is set so
  if (adding.value === 'adjusters')
    return [
      ...body.value.gears.map((g) => ({ id: g.id, label: `moves the ${g.label.toLowerCase()}` })),
      ...(form.kind === 'shim' ? body.value.bearings : []).flatMap((b) =>
        b.setting
          ? [
              {
                id: `bearing:${b.id}`,
                label: `sets the ${b.setting.kind === 'crush' ? 'crush' : 'preload'}: ${b.label.toLowerCase()}`,
              },
            ]
          : [],
      ),
    ]
  if (adding.value === 'bearings') return body.value.axes
  return form.kind === 'backlash'
    ? body.value.meshes
    : form.kind === 'depth'
      ? body.value.gears
      : body.value.axes
})
async function add() {
  const b = body.value
  const on = form.on || places.value[0]?.id
  if (!form.label.trim() || !on || !adding.value) return
  const id = freeId(form.label, idsOf(b[adding.value]))
  const label = form.label.trim()
  const set = on.startsWith('bearing:') ? b.bearings.find((x) => `bearing:${x.id}` === on) : undefined
  const axisOf = (gearId: string) => b.gears.find((g) => g.id === gearId)!.axis
  const row: Omit<PutRow, 'was'> =
    adding.value === 'adjusters'
      ? {
          list: 'adjusters',
          id,
          now: {
            adjusters: [
              set
                ? {
                    id,
                    label,
                    kind: 'shim',
                    axis: set.axis,
                    setBy: set.setting!.kind === 'crush' ? 'crush' : 'preload',
                  }
                : { id, label, kind: form.kind as 'shim', axis: axisOf(on), moves: on },
            ],
          },
        }
      : adding.value === 'bearings'
        ? {
            list: 'bearings',
            id,
            now: {
              bearings: [
                {
                  id,
                  label,
                  kind: form.kind as 'taper',
                  axis: on,
                  ...(form.setting === 'sleeve'
                    ? { setting: { kind: 'rolling-torque' as const, sleeve: true } }
                    : form.setting
                      ? { setting: { kind: form.setting as 'crush' } }
                      : {}),
                },
              ],
            },
          }
        : {
            list: 'measures',
            id,
            now: {
              measures: [
                {
                  id,
                  label,
                  kind: form.kind as 'backlash',
                  ...(form.kind === 'backlash'
                    ? { mesh: on }
                    : form.kind === 'depth'
                      ? { gear: on }
                      : { axis: on }),
                },
              ],
            },
          }
  if (!(await write.put(b.id, row))) return
  // the bearing knows its stack from now on
  if (set) {
    const bearing = { ...set, setting: { ...set.setting!, by: id } }
    if (!(await write.put(b.id, { list: 'bearings', id: set.id, now: { bearings: [bearing] } }, set))) return
  }
  adding.value = null
}
</script>

<template>
  <div>
    <p class="small soft">
      Taken over from what is usual in the family. Strike what this drive has not; add what it has besides.
    </p>
    <section v-for="l in lists" :key="l.list">
      <h3>{{ l.title }}</h3>
      <ul>
        <li v-for="r in l.rows" :key="r.id">
          <span>{{ r.label }} <span class="small soft">{{ r.about }}</span></span>
          <button
            type="button"
            class="texty small"
            :disabled="write.busy.value"
            @click="remove(l.list, r.id)"
          >
            has not got it
          </button>
        </li>
      </ul>
      <button type="button" class="texty" @click="begin(l.list)">Add one</button>
    </section>
    <section>
      <h3>Variants</h3>
      <p v-if="!variants.length" class="small soft">
        Early and late ones that differ in a few figures: give them a name and their serial numbers, then type
        what differs for each.
      </p>
      <ul>
        <li v-for="v in variants" :key="v.id">
          <span>{{ v.label }} <span class="small soft">{{ serialsOf(v) }}</span></span>
          <button
            type="button"
            class="texty small"
            :disabled="write.busy.value"
            @click="remove('variants', v.id)"
          >
            take it out
          </button>
        </li>
      </ul>
      <button type="button" class="texty" @click="early.open = true">Add one</button>
    </section>
    <FormDialog
      v-if="early.open"
      header="A variant"
      action="Add it"
      :busy="write.busy.value"
      @send="addVariant"
      @close="early.open = false"
    >
      <label class="wide"
        >What you call it <input v-model="early.label" maxlength="60" autofocus autocomplete="off"
      /></label>
      <label>First serial number <input v-model="early.from" maxlength="60" autocomplete="off" /></label>
      <label>Last serial number <input v-model="early.to" maxlength="60" autocomplete="off" /></label>
      <p v-if="write.error.value" class="fault wide" role="alert">{{ write.error.value.message }}</p>
    </FormDialog>
    <p v-if="write.error.value && !adding && !early.open" class="fault" role="alert">
      {{ write.error.value.message }}
    </p>
    <FormDialog
      v-if="adding"
      :header="adding === 'adjusters' ? 'A stack' : adding === 'measures' ? 'A measure' : 'A bearing'"
      action="Add it"
      :busy="write.busy.value"
      @send="add"
      @close="adding = null"
    >
      <label class="wide"
        >Name <input v-model="form.label" maxlength="80" autofocus autocomplete="off"
      /></label>
      <label>
        Kind
        <select v-model="form.kind">
          <template v-if="adding === 'adjusters'">
            <option value="shim">shims</option>
            <option value="threaded">threaded carrier</option>
          </template>
          <template v-else-if="adding === 'measures'">
            <option value="backlash">backlash</option>
            <option value="end-play">end play</option>
            <option value="depth">depth</option>
          </template>
          <template v-else>
            <option value="taper">taper</option>
            <option value="ball">ball</option>
            <option value="needle">needle</option>
            <option value="thrust">thrust</option>
          </template>
        </select>
      </label>
      <label>
        {{ adding === 'adjusters' ? 'What it does' : adding === 'measures' ? 'Of' : 'On' }}
        <select v-model="form.on">
          <option v-for="p in places" :key="p.id" :value="p.id">{{ p.label }}</option>
        </select>
      </label>
      <label v-if="adding === 'bearings'">
        Set by
        <select v-model="form.setting">
          <option value="">nothing</option>
          <option value="rolling-torque">rolling torque</option>
          <option value="sleeve">rolling torque, over a crush sleeve</option>
          <option value="crush">crush</option>
        </select>
      </label>
      <p v-if="write.error.value" class="fault wide" role="alert">{{ write.error.value.message }}</p>
    </FormDialog>
  </div>
</template>

<style scoped>
section {
  margin-top: 0.8rem;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
}
</style>
