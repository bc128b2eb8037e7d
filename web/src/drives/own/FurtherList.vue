<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { InputError } from '@moray/core/checks/input-error'
import { readFigure } from '@moray/core/drives/own/read-figure'
import { plainNumber } from '@moray/core/units/plain-number'
import { computed, ref } from 'vue'
import { useOwn } from '../../stores/own.ts'
import FormDialog from '../../ui/FormDialog.vue'
import { problemAt } from '../../wire/client.ts'
import { ROW_FORMS, SHAPES, type Column, type RowForm } from '../further-columns.ts'
import { useShownRows, type FurtherRow } from '../show-further.ts'
import RemarksForm from './RemarksForm.vue'
import { figureUnit, torqueAsTyped } from './show-figure.ts'
import { freeId, useDraftWrite } from './use-draft-write.ts'

/** Seals, joints, propellers, tools and the like: what the job says and nobody computes with. Each list is free. */
const props = defineProps<{ draft: SheetDraft }>()
const own = useOwn()
const write = useDraftWrite()
const { shown, titleOf, aboutOf } = useShownRows(() => props.draft.body.fasteners)
const rowsOf = (form: RowForm) => (props.draft.body.further?.[form.list] ?? []) as unknown as FurtherRow[]

const open = ref<{ form: RowForm; row: FurtherRow | undefined } | null>(null)
const typed = ref<Record<string, string | boolean | string[]>>({})
const tried = ref(false)
/** As it may be typed again. */
function asTyped(c: Column, value: unknown): string | boolean | string[] {
  if (c.is === 'flag') return value === true
  if (c.is === 'fasteners') return (value as string[] | undefined) ?? []
  if (value === undefined) return ''
  if (c.is === 'lines') return (value as string[]).join('\n')
  if (c.is === 'length') return `${String(value)} mm`
  if (c.is === 'torque') return torqueAsTyped(value as { min?: number; max?: number })
  return String(value)
}
function edit(form: RowForm, row?: FurtherRow) {
  write.clear()
  tried.value = false
  typed.value = Object.fromEntries(form.columns.map((c) => [c.key, asTyped(c, row?.[c.key])]))
  open.value = { form, row }
}

/** What was typed for a column, understood; or why it was not. */
function read(c: Column): { value?: unknown; why?: string } {
  const given = typed.value[c.key]
  if (c.is === 'flag') return given ? { value: true } : {}
  if (c.is === 'fasteners') return (given as string[]).length ? { value: given } : {}
  const text = String(given ?? '').trim()
  if (!text) return c.needed ? { why: 'is needed' } : {}
  switch (c.is) {
    case 'lines':
      return {
        value: text
          .split('\n')
          .map((l) => l.trim())
          .filter(Boolean),
      }
    case 'count': {
      const n = plainNumber(text)
      return n !== undefined && Number.isInteger(n) && n >= 1 && n <= c.most!
        ? { value: n }
        : { why: `is "${text}"; a whole number from 1 to ${c.most}` }
    }
    case 'torque':
    case 'length':
      try {
        const field = { shape: SHAPES[c.is], group: 'torque' as const }
        return { value: readFigure(field, text, figureUnit(field as never, own.first)).value }
      } catch (e) {
        if (e instanceof InputError) return { why: e.fields[0]?.message ?? e.message }
        throw e
      }
    default:
      return { value: text }
  }
}
const understood = computed(() =>
  Object.fromEntries((open.value?.form.columns ?? []).map((c) => [c.key, read(c)])),
)
/** Missing names are said once he tried to keep the row, figures at once. */
const whyNot = (c: Column) =>
  ((tried.value || typed.value[c.key]) && understood.value[c.key]?.why) ||
  problemAt(write.error.value, `now.${open.value!.form.list}[0].${c.key}`)

async function send() {
  tried.value = true
  const { form, row } = open.value!
  if (Object.values(understood.value).some((r) => r.why)) return
  const kept = Object.fromEntries(
    Object.entries(understood.value).flatMap(([key, r]) => (r.value === undefined ? [] : [[key, r.value]])),
  )
  const id = row?.id ?? freeId(String(Object.values(kept)[0] ?? form.one), rowsOf(form))
  const now = { [form.list]: [{ id, ...kept }] }
  await put(form, id, row, now)
}
const remove = () => put(open.value!.form, open.value!.row!.id, open.value!.row)
async function put(form: RowForm, id: string, row: FurtherRow | undefined, now?: object) {
  if (await write.further(props.draft.body.id, { list: form.list, id, ...(now ? { now } : {}) }, row))
    open.value = null
}
function tick(key: string, id: string, on: boolean) {
  const before = typed.value[key] as string[]
  typed.value[key] = on ? [...before, id] : before.filter((x) => x !== id)
}
</script>

<template>
  <div>
    <p class="small soft">
      What the job says at the right moment and nobody computes with. Each list may stay empty.
    </p>
    <section v-for="form in ROW_FORMS" :key="form.list" :aria-label="form.title">
      <header>
        <h3>{{ form.title }}</h3>
        <button type="button" class="texty" @click="edit(form)">Add {{ form.one }}</button>
      </header>
      <p v-if="!rowsOf(form).length" class="small soft">{{ form.empty }}</p>
      <ul v-else class="rows">
        <li v-for="row in rowsOf(form)" :key="row.id">
          <button type="button" class="row" @click="edit(form, row)">
            <span>{{ titleOf(form, row) }}</span>
            <span class="small soft">{{ aboutOf(form, row) }}</span>
          </button>
        </li>
      </ul>
    </section>
    <RemarksForm :draft="draft" />
    <FormDialog
      v-if="open"
      :header="open.row ? titleOf(open.form, open.row) : `Add ${open.form.one}`"
      action="Keep it"
      :busy="write.busy.value"
      @send="send"
      @close="open = null"
    >
      <template v-for="(c, i) in open.form.columns" :key="c.key">
        <label v-if="c.is === 'flag'" class="check"
          ><input v-model="typed[c.key] as boolean" type="checkbox" /> {{ c.label }}</label
        >
        <fieldset v-else-if="c.is === 'fasteners'" class="wide">
          <legend>{{ c.label }}</legend>
          <p v-if="!draft.body.fasteners?.length" class="small soft">No fastener is listed yet.</p>
          <label v-for="f in draft.body.fasteners" :key="f.id" class="check"
            ><input
              type="checkbox"
              :checked="(typed[c.key] as string[]).includes(f.id)"
              @change="tick(c.key, f.id, ($event.target as HTMLInputElement).checked)"
            />
            {{ f.name }}</label
          >
        </fieldset>
        <label v-else :class="{ wide: c.wide }">
          {{ c.label }}
          <select v-if="c.is === 'choice' || c.is === 'seal'" v-model="typed[c.key] as string">
            <option value="">{{ c.needed ? 'choose' : 'not said' }}</option>
            <template v-if="c.is === 'seal'">
              <option v-for="s in draft.body.seals" :key="s.id" :value="s.id">{{ s.label }}</option>
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
            :inputmode="c.is === 'count' ? 'numeric' : 'text'"
            autocomplete="off"
          />
          <span v-if="whyNot(c)" class="bad" role="alert">{{ whyNot(c) }}</span>
          <span
            v-else-if="(c.is === 'torque' || c.is === 'length') && understood[c.key]?.value !== undefined"
            class="mono small"
            >{{ shown(c, understood[c.key]!.value) }}</span
          >
        </label>
      </template>
      <p v-if="write.error.value" class="fault wide" role="alert">{{ write.error.value.message }}</p>
      <template #below>
        <button v-if="open.row" type="button" class="texty wide" @click="remove">
          Take it out of the sheet
        </button>
      </template>
    </FormDialog>
  </div>
</template>

<style scoped>
section {
  padding: 0.7rem 0 0;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 1rem;
  border-bottom: 1px solid var(--line);
}
h3 {
  margin: 0;
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
fieldset {
  border: 1px solid var(--line);
  margin: 0;
  padding: 0.3rem 0.6rem;
  min-width: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
}
.check {
  display: flex !important;
  min-height: 40px;
  align-items: center;
  gap: 0.5rem;
}
</style>
