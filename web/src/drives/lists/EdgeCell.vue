<script setup lang="ts">
import AutoComplete, { type AutoCompleteCompleteEvent } from 'primevue/autocomplete'
import { computed, ref, useTemplateRef } from 'vue'
import { edgeId, NOT_KNOWN } from '../own/typed-row.ts'
import { matching, type Option } from './matching.ts'

/** Rows that a row leads to: typed by three letters and Enter, or picked on the drawing. A question mark behind the letters marks what nobody knows. */
const props = defineProps<{ label: string; options: readonly Option[]; one?: boolean; id: string }>()
const model = defineModel<string[]>({ required: true })

const found = ref<Option[]>([])
const nameOf = (id: string) => props.options.find((o) => o.id === id)?.label ?? id
const picked = computed({
  get: () =>
    model.value.map((t) => ({
      id: t,
      label: nameOf(edgeId(t)) + (t.endsWith(NOT_KNOWN) ? ` ${NOT_KNOWN}` : ''),
    })),
  set: (now: Option[]) => (model.value = now.map((o) => o.id)),
})
/** What fits the letters; with a question mark behind them, as something that nobody knows. */
function fitting(text: string): Option[] {
  const taken = new Set(model.value.map(edgeId))
  const mark = text.trim().endsWith(NOT_KNOWN) ? NOT_KNOWN : ''
  return matching(text.replace(NOT_KNOWN, ''), props.options)
    .filter((o) => !taken.has(o.id))
    .map((o) => (mark ? { id: o.id + mark, label: `${o.label} ${mark}` } : o))
}
function search({ query }: AutoCompleteCompleteEvent) {
  found.value = fitting(query)
  // the letters may have been taken before the list came
  if (field()?.value.trim() !== query.trim()) setTimeout(() => list.value?.hide())
}

const list = useTemplateRef<{ hide: () => void }>('list')
const wrapper = useTemplateRef<HTMLElement>('wrapper')
const field = () => wrapper.value?.querySelector<HTMLInputElement>('[role="combobox"]')
/**
 * Enter and Tab take the first row that fits, or the one that the arrows have led to, however fast they come after the letters. The table has these keys
 * as soon as no letters are left.
 */
function onKey(e: KeyboardEvent) {
  const input = field()
  if (!input || e.target !== input) return
  if (e.key === 'Enter' || e.key === 'Tab') {
    if (!input.value.trim()) return
    const led = Number(/_(\d+)$/.exec(input.getAttribute('aria-activedescendant') ?? '')?.[1] ?? 0)
    const fits = fitting(input.value)
    const taken = fits[led] ?? fits[0]
    if (e.key === 'Enter') {
      e.preventDefault()
      e.stopPropagation()
    }
    if (!taken) return
    model.value = props.one ? [taken.id] : [...model.value, taken.id]
    input.value = ''
    list.value?.hide()
  } else if (['Escape', 'ArrowUp', 'ArrowDown'].includes(e.key)) {
    open = input.getAttribute('aria-expanded') === 'true'
  }
}
let open = false
/** The arrows and Escape are for the list while it is open. */
const keep = (e: KeyboardEvent) => {
  if (open && ['Escape', 'ArrowUp', 'ArrowDown'].includes(e.key)) e.stopPropagation()
}
</script>

<template>
  <div ref="wrapper" class="edges" @keydown.capture="onKey" @keydown="keep">
    <AutoComplete
      ref="list"
      v-model="picked"
      multiple
      :input-id="id"
      :suggestions="found"
      option-label="label"
      data-key="id"
      :delay="0"
      :min-length="1"
      :aria-label="label"
      empty-search-message="nothing like that in its lists"
      @complete="search"
    />
  </div>
</template>

<style scoped>
.edges :deep(.p-autocomplete) {
  width: 100%;
}
.edges :deep(.p-autocomplete-input-multiple) {
  width: 100%;
  min-width: 7rem;
  min-height: 40px;
  gap: 0.2rem;
  padding: 0.15rem 0.25rem;
}
.edges :deep(.p-chip) {
  background: var(--paper);
  border: 1px solid var(--line-strong);
  font-size: var(--t-small);
  border-radius: 2px;
  padding: 0.05rem 0.3rem;
}
</style>
