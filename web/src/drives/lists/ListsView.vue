<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { inTheAir } from '@moray/core/drives/graph/check-graph'
import { rowPlaces } from '@moray/core/drives/graph/row-places'
import { filled } from '@moray/core/drives/own/fill'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { layOut } from '../../drawing/section.ts'
import SectionDrawing from '../../drawing/SectionDrawing.vue'
import type { Column, RowForm } from '../forms/column.ts'
import { rowsOfForm, shownName } from '../show-rows.ts'
import ListBlock from './ListBlock.vue'
import RowDots, { type DottedRow } from './RowDots.vue'
import { useSheetOptions } from './sheet-options.ts'

/** Lists of a draft beside the section of the drive: a row lights its place, and what is tapped on the drawing is picked, or looked at in its list. */
const props = defineProps<{
  draft: SheetDraft
  forms: readonly RowForm[]
  /** The row to begin with. */
  at?: { list: string; id: string; field?: string | undefined } | undefined
}>()
const emit = defineEmits<{ go: [list: string, id: string] }>()
const sheet = useSheetOptions(() => props.draft.body)
const blocks = useTemplateRef<InstanceType<typeof ListBlock>[]>('blocks')
const root = useTemplateRef<HTMLElement>('root')

const drawn = computed(() => filled(props.draft.body))
const fixed = computed(() => new Set(layOut(drawn.value, {}).places.map((p) => p.id)))
const places = computed(
  () => new Map(rowPlaces(props.draft.body, fixed.value).map((p) => [`${p.list} ${p.id}`, p])),
)
/** The row that the hand is in, and the column whose edges it types. */
const hand = ref<{ list: string; id: string; column: Column | null } | null>(null)
const wantedLists = computed(() => (hand.value?.column?.is === 'edges' ? (hand.value.column.to ?? []) : []))
const shownLists = computed(() => [
  ...new Set([...props.forms.map((f) => f.list as string), ...wantedLists.value]),
])
const dots = computed((): DottedRow[] =>
  [...places.value.values()]
    .filter((p) => shownLists.value.includes(p.list))
    .map((p) => {
      const key = `${p.list} ${p.id}`
      const row = rowsOfForm(props.draft.body, { list: p.list } as RowForm).find((r) => r.id === p.id)
      return {
        key,
        name: row ? (p.list === 'settings' ? sheet.settingName(p.id) : shownName(row)) : p.id,
        place: p.place,
        own: p.steps === 0,
        lit: hand.value !== null && key === `${hand.value.list} ${hand.value.id}`,
        wanted: wantedLists.value.includes(p.list),
      }
    }),
)
const loose = computed(() => inTheAir(props.draft.body))
const looseIn = (form: RowForm) => new Set(loose.value.flatMap((r) => (r.list === form.list ? [r.id] : [])))
const litPlace = computed(() => {
  const at = hand.value
  return (at && places.value.get(`${at.list} ${at.id}`)?.place) ?? ''
})

const block = (list: string) => blocks.value?.find((b) => b.list === list)
/** What was tapped on the drawing: taken for the edge that is typed, or looked at. */
function pick(key: string) {
  const [list, id] = key.split(' ') as [string, string]
  if (hand.value && wantedLists.value.includes(list as never) && block(hand.value.list)?.pick(id)) return
  void look(list, id)
}
async function look(list: string, id: string, field?: string) {
  if (!props.forms.some((f) => f.list === list)) return emit('go', list, id)
  await nextTick()
  block(list)?.look(id, field)
}
const begin = () => props.at && void look(props.at.list, props.at.id, props.at.field)
onMounted(begin)
watch(() => props.at, begin)
/** A tap beside the lists leaves the line that is typed, and keeps it. */
useEventListener(document, 'pointerdown', (e) => {
  const target = e.target as HTMLElement
  // the choices of a field lie beside everything else on the page
  if (
    !root.value?.contains(target) &&
    !target.closest('.p-autocomplete-overlay, .p-multiselect-overlay, .p-dialog-mask')
  )
    for (const b of blocks.value ?? []) b.leave()
})
</script>

<template>
  <div ref="root" class="lists">
    <div class="tables">
      <ListBlock
        v-for="form in forms"
        ref="blocks"
        :key="form.list"
        :draft="draft"
        :form="form"
        :sheet="sheet"
        :loose="looseIn(form)"
        :folded="forms.length > 1"
        @at="(id, column) => (hand = id === null ? null : { list: form.list, id, column })"
      />
      <slot />
    </div>
    <aside class="picture" aria-label="Section">
      <SectionDrawing :sheet="drawn" :lit="litPlace" :max-height="440" plain>
        <template #over="over">
          <RowDots
            :rows="dots"
            :places="over.places"
            :width="over.width"
            :height="over.height"
            @pick="pick"
          />
        </template>
      </SectionDrawing>
      <p class="small soft">
        Scheme, not this drive. Solid dots have this place; dashed ones are taken from their neighbours, or
        wait at the lower edge for a place.
      </p>
      <p v-if="wantedLists.length" class="small">Tap a dot to add it to: {{ hand!.column!.label }}.</p>
    </aside>
  </div>
</template>

<style scoped>
.lists {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(14rem, 17.5rem);
  gap: 1rem;
  align-items: start;
}
.tables {
  min-width: 0;
  max-height: calc(100vh - 11rem);
  overflow: auto;
  border-top: 2px solid var(--ink);
}
.picture {
  min-width: 0;
}
@media (max-width: 1100px) {
  .lists {
    grid-template-columns: minmax(0, 1fr);
  }
  .tables {
    max-height: none;
    overflow: auto hidden;
  }
  .picture {
    grid-row: 1;
  }
}
</style>
