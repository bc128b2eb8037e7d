<script setup lang="ts">
import type { DraftChange, SheetDraft } from '@moray/contract/replies'
import { listName } from '@moray/core/drives/graph/list-names'
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'
import { useShop } from '../../stores/shop.ts'
import { useDraftWrite } from '../own/use-draft-write.ts'

/** Takes back what whoever is at this screen changed last in the draft, step by step, and does it again. Others' changes stay. */
const props = defineProps<{ draft: SheetDraft }>()
const shop = useShop()
const write = useDraftWrite()
const mine = computed(() => props.draft.changes.filter((c) => c.by === shop.personId && !c.undone))
const undoable = computed(() => mine.value.find((c) => c.undoes === null || redone(c)))
/** What was undone last, unless something was typed after that. */
const redoable = computed(() => (mine.value[0] && isUndo(mine.value[0]) ? mine.value[0] : undefined))
/** Undoing an undoing is doing it again: that can be undone like a change that was typed. */
function redone(c: DraftChange): boolean {
  const before = props.draft.changes.find((x) => x.id === c.undoes)
  return before !== undefined && before.undoes !== null && !redone(before)
}
const isUndo = (c: DraftChange) => c.undoes !== null && !redone(c)
const DID = { in: 'added', out: 'struck out', changed: 'changed', moved: 'moved' }
function said(c: DraftChange | undefined): string {
  const [row] = c?.rows ?? []
  if (!c || !row) return ''
  return c.count > 1 ? `${c.count} rows, in ${listName(row.list)}` : `${row.name} ${DID[row.did]}`
}
const undo = (c: DraftChange | undefined) => c && void write.undo(props.draft.body.id, c.id)
const inField = (e: KeyboardEvent) =>
  e.target instanceof HTMLElement && e.target.matches('input:not([type="checkbox"]), textarea, select')
useEventListener(document, 'keydown', (e: KeyboardEvent) => {
  // a field takes back its own letters
  if (!(e.ctrlKey || e.metaKey) || e.altKey || inField(e)) return
  const redo = e.key === 'y' || (e.key.toLowerCase() === 'z' && e.shiftKey)
  if (!redo && e.key !== 'z') return
  e.preventDefault()
  undo(redo ? redoable.value : undoable.value)
})
</script>

<template>
  <span class="undo">
    <button
      type="button"
      class="texty"
      :disabled="!undoable || write.busy.value"
      :title="undoable ? `${said(undoable)} (Ctrl+Z)` : 'Nothing to undo'"
      @click="undo(undoable)"
    >
      Undo<span v-if="undoable" class="small soft what">: {{ said(undoable) }}</span>
    </button>
    <button
      v-if="redoable"
      type="button"
      class="texty"
      :disabled="write.busy.value"
      :title="`${said(redoable)} (Ctrl+Y)`"
      @click="undo(redoable)"
    >
      Do it again
    </button>
    <span v-if="write.error.value" class="fault small" role="alert">{{ write.error.value.message }}</span>
  </span>
</template>

<style scoped>
.undo {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: center;
}
button:disabled {
  color: var(--ink-soft);
  text-decoration: none;
  cursor: default;
}
.what {
  display: inline-block;
  max-width: 14rem;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  vertical-align: bottom;
}
</style>
