<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { SheetDraft } from '@moray/contract/replies'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import { filled } from '@moray/core/drives/own/fill'
import { meantByFeeler } from '@moray/core/drives/own/feeler-window'
import type { FigureField } from '@moray/core/drives/own/figure-field'
import { sourceOf } from '@moray/core/drives/own/source'
import type { Variant } from '@moray/core/drives/own/variant'
import type { BodyFindings } from '@moray/core/route/check-body'
import { computed, nextTick, ref } from 'vue'
import SectionDrawing, { type DrawingTag } from '../../drawing/SectionDrawing.vue'
import { useOwn } from '../../stores/own.ts'
import { keys, useQueryClient } from '../../wire/queries.ts'
import { useWrite } from '../../writing/use-write.ts'
import FigureInput from './FigureInput.vue'
import SourceLine from './SourceLine.vue'
import { figureText, figureUnit, rangeAsTyped } from './show-figure.ts'
import { useTypedFrom } from './use-typed-from.ts'

/** A group of figures, typed beside the live drawing. */
const props = defineProps<{
  draft: SheetDraft
  /** The sheet, or the sheet as it is of the variant that is typed for. */
  body: SheetBody
  variant?: Variant | undefined
  /** Every figure that the sheet can hold. */
  all: readonly FigureField[]
  fields: readonly FigureField[]
  findings: BodyFindings
  label: string
}>()
const emit = defineEmits<{ changed: []; go: [path: string] }>()
const own = useOwn()
const client = useQueryClient()
const write = useWrite()
const id = props.draft.body.id
const sheet = computed(() => filled(props.body))
const { from, page } = useTypedFrom(id)
const at = ref('')
const lit = computed(() => props.all.find((f) => f.path === at.value)?.place ?? '')
const refused = ref<{ path: string; why: string } | null>(null)

/** The source of a figure; of a variant its own, where it has one. */
const sourceAt = (path: string) => {
  const all = props.draft.body.sources
  return (props.variant && sourceOf(all, `variants.${props.variant.id}.${path}`)) ?? sourceOf(all, path)
}
async function set(field: FigureField, text: string, assumed = false) {
  const source = assumed ? 'assumed' : from.value === 'usual' ? field.usual : from.value
  const unit = figureUnit(field, own.first)
  const was = figureAt(props.body, field.path)
  const reply = await write.send(
    endpoints.setFigure,
    { id },
    {
      path: field.path,
      text,
      source,
      was: was === undefined ? '' : JSON.stringify(was),
      ...(props.variant ? { variant: props.variant.id } : {}),
      ...(unit === undefined ? {} : { unit }),
      ...(page.value.trim() && source === 'manual' ? { where: page.value.trim() } : {}),
    },
  )
  // what is wrong with another figure stays in its place: a line that goes would move the button under the hand
  if (reply && refused.value?.path !== field.path) return client.setQueryData(keys.draft(id), reply)
  refused.value = reply
    ? null
    : { path: field.path, why: write.error.value?.fields[0]?.message ?? write.error.value?.message ?? '' }
  if (reply) client.setQueryData(keys.draft(id), reply)
  else if (write.error.value?.code === 'changed-meanwhile') emit('changed')
}
async function check(paths: string[]) {
  const reply = await write.send(endpoints.checkFigures, { id }, { paths })
  if (reply) client.setQueryData(keys.draft(id), reply)
}
const waiting = (mark: 'unchecked' | 'atBench') =>
  computed(() => props.fields.map((f) => f.path).filter((p) => sourceOf(props.body.sources, p)?.[mark]))
const unchecked = waiting('unchecked')
const atBench = waiting('atBench')

/** What a window of the depth means that can only be the feeler's: offered as what it is. */
function meantBy(field: FigureField): { text: string; label: string } | undefined {
  const meant = meantByFeeler(props.body, field.path)
  if (!meant) return undefined
  const text = rangeAsTyped(meant, own.first)
  return { text, label: `It is the feeler's: the depth is then ${text}` }
}
const wrongAt = (path: string) =>
  (refused.value?.path === path ? refused.value.why : undefined) ??
  props.findings.wrong.find((w) => w.path === path)?.message ??
  props.findings.doubtful.find((w) => w.path === path)?.message

/** The first figure of a place on the drawing. */
const pick = (place: string) => {
  const field = props.all.find((f) => f.place === place)
  if (field) emit('go', field.path)
}
const tags = computed((): DrawingTag[] => {
  const { body } = props
  const brief = (path: string) => {
    const field = props.all.find((f) => f.path === path)
    const value = figureAt(body, path)
    const text = sourceOf(body.sources, path)?.as
    return value === undefined || !field
      ? '—'
      : (text ?? figureText(field, value, own.first).split(' · ')[0]!)
  }
  return [
    ...body.adjusters.map((a) => ({
      id: `stack:${a.id}`,
      name: a.label,
      value: brief(`adjusters.${a.id}.startMm`),
    })),
    ...body.measures.map((m) => ({
      id: `measure:${m.id}`,
      name: m.label,
      value: brief(`measures.${m.id}.window`),
    })),
  ]
})
async function focus(path: string) {
  at.value = path
  await nextTick()
  const row = document.querySelector<HTMLElement>(`[data-path="${CSS.escape(path)}"]`)
  row?.scrollIntoView({ block: 'center' })
  row?.querySelector<HTMLElement>('[data-figure]')?.focus()
}
defineExpose({ focus })
</script>

<template>
  <div class="pane">
    <section class="picture" aria-label="Section">
      <SectionDrawing :sheet="sheet" :tags="tags" :lit="lit" :max-height="470" @pick="pick" />
      <p v-if="findings.wrong.length" class="fault small">
        {{ findings.wrong.length }} figures cannot be as they stand:
        <button
          v-for="w in findings.wrong.slice(0, 3)"
          :key="w.path + w.message"
          type="button"
          class="texty small"
          @click="emit('go', w.path)"
        >
          {{ w.message }}
        </button>
      </p>
    </section>
    <section class="fields" :aria-label="label">
      <p v-if="variant" class="caution">
        Typed for {{ variant.label }} only; what is taken out holds as for all of them.
      </p>
      <SourceLine :id="id" class="from" />
      <p v-if="unchecked.length" class="caution">
        {{ unchecked.length }} figures here came with somebody else's sheet.
        <button type="button" class="texty small" @click="check(unchecked)">
          All of them stand so in my manual
        </button>
      </p>
      <p v-if="atBench.length" class="caution">
        {{ atBench.length }} {{ atBench.length === 1 ? 'figure was' : 'figures were' }} entered at the bench.
        Jobs work with {{ atBench.length === 1 ? 'it' : 'them' }} already.
        <button type="button" class="texty small" @click="check(atBench)">Confirm</button>
      </p>
      <div v-for="f in fields" :key="f.path" :data-path="f.path">
        <FigureInput
          :field="f"
          :value="figureAt(body, f.path)"
          :source="sourceAt(f.path)"
          :first="own.first"
          :problem="wrongAt(f.path)"
          :meant="meantBy(f)"
          @set="(text) => set(f, text)"
          @assume="(text) => set(f, text, true)"
          @check="check([f.path])"
          @at="at = f.path"
        />
      </div>
      <p v-if="write.error.value && !refused" class="fault" role="alert">{{ write.error.value.message }}</p>
    </section>
  </div>
</template>

<style scoped>
.pane {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(22rem, 27rem);
  gap: 1.2rem;
  align-items: start;
}
.fields,
.picture {
  min-width: 0;
}
.fields {
  max-height: calc(100vh - 11rem);
  overflow-y: auto;
  border-top: 2px solid var(--ink);
}
.from {
  padding: 0.5rem 0;
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
@media (max-width: 1100px) {
  .pane {
    grid-template-columns: minmax(0, 1fr);
  }
  .fields {
    max-height: none;
  }
}
@media (max-width: 760px) {
  .fields {
    grid-row: 1;
  }
}
</style>
