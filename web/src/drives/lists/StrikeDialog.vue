<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { listName } from '@moray/core/drives/graph/list-names'
import { hangsOn } from '@moray/core/drives/own/hangs-on'
import { computed, ref } from 'vue'
import ConfirmDialog from '../../ui/ConfirmDialog.vue'
import type { RowForm } from '../forms/column.ts'
import { shownName, type ShownRow } from '../show-rows.ts'
import { useDraftWrite } from '../own/use-draft-write.ts'

/** A row is struck out: what hangs on it is said before. It comes back, with all of that, by Undo. */
const props = defineProps<{ draft: SheetDraft; form: RowForm; row: ShownRow }>()
const emit = defineEmits<{ close: [] }>()
const write = useDraftWrite()
const open = ref(true)
const MOST = 8
const hanging = computed(() => hangsOn(props.draft.body, props.form.list, props.row.id))
async function strike() {
  const done = await write.put(props.draft.body.id, { list: props.form.list, id: props.row.id }, props.row)
  if (done) emit('close')
}
</script>

<template>
  <ConfirmDialog
    v-model:open="open"
    :title="`Strike out: ${shownName(row)}`"
    action="Strike it out"
    :busy="write.busy.value"
    :error="write.error.value?.message"
    @yes="strike"
    @update:open="(now: boolean) => now || emit('close')"
  >
    <p v-if="!hanging.length">Nothing else on the sheet leads to it.</p>
    <template v-else>
      <p>
        {{ hanging.length }} {{ hanging.length === 1 ? 'row leads' : 'rows lead' }} to it. They lose that;
        what had to wait for it waits for what it waited for.
      </p>
      <ul>
        <li v-for="h in hanging.slice(0, MOST)" :key="`${h.list} ${h.row} ${h.field}`">
          {{ h.name }} <span class="small soft">in {{ listName(h.list) }}</span>
        </li>
        <li v-if="hanging.length > MOST" class="soft">and {{ hanging.length - MOST }} more</li>
      </ul>
    </template>
    <p class="small soft">Undo brings it back with everything that led to it.</p>
  </ConfirmDialog>
</template>
