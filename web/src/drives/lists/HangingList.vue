<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import type { PutRows } from '@moray/contract/requests/sheets'
import { listName } from '@moray/core/drives/graph/list-names'
import { enteredAtBench } from '@moray/core/drives/own/from-bench'
import { confirmed, hanging, type Hanging, type Hangs } from '@moray/core/drives/own/hanging'
import { computed } from 'vue'
import { rowsOfForm, type ShownRow } from '../show-rows.ts'
import { ROW_FORMS } from '../row-forms.ts'
import { useDraftWrite } from '../own/use-draft-write.ts'

/** Loose ends of a sheet: rows that nothing leads to, what nobody has confirmed, joints without a test. None of it stands in the way of anything. */
const props = defineProps<{ draft: SheetDraft }>()
const emit = defineEmits<{ go: [list: string, id: string, field: string | undefined] }>()
const write = useDraftWrite()

const WHY: Record<Hangs, { title: string; says: string }> = {
  alone: {
    title: 'Nothing leads to them',
    says: 'The work does not know when these come off, or what they belong to.',
  },
  assumed: {
    title: 'Taken over from the family',
    says: 'Usual for drives of this kind. Look at them and confirm, or correct what is different here.',
  },
  unknown: {
    title: 'Asked at the bench',
    says: 'You marked these as not known. The first job that touches them asks once.',
  },
  'no-test': {
    title: 'Joints without a test',
    says: 'Nothing says how these are proved tight, or why they are not.',
  },
  'no-holder': { title: 'Preloads without a nut', says: 'Nothing says which nut holds this preload.' },
}
/** What jobs work with already, and nobody has looked at since. */
const bench = computed(() => enteredAtBench(props.draft.body))
const found = computed(() => hanging(props.draft.body))
const groups = computed(() =>
  (Object.keys(WHY) as Hangs[])
    .map((why) => ({ why, ...WHY[why], rows: found.value.filter((h) => h.why === why) }))
    .filter((g) => g.rows.length),
)
/** The same rows, list by list. */
const byList = (rows: readonly Hanging[]) =>
  [...new Set(rows.map((r) => r.list))].map((list) => ({
    list,
    rows: rows.filter((r) => r.list === list),
  }))
const formOf = (list: string) => ROW_FORMS.find((f) => f.list === list)
async function confirm(list: string, rows: readonly Hanging[]) {
  const form = formOf(list)
  if (!form) return
  const ids = new Set(rows.map((r) => r.id))
  const before = rowsOfForm(props.draft.body, form).filter((r) => ids.has(r.id))
  const now = { [list]: before.map((r: ShownRow) => confirmed(form.list as never, r)) }
  await write.putAll(props.draft.body.id, {
    list: form.list,
    now,
    seen: before.map((r) => ({ id: r.id, was: JSON.stringify(r) })),
  } as PutRows)
}
</script>

<template>
  <div>
    <p v-if="!groups.length && !bench.length" class="soft">No loose ends: every row is known to the work.</p>
    <p v-else class="small soft">
      None of this stops a job. What is open is asked when the work comes to it.
    </p>
    <section v-if="bench.length" aria-label="Entered at the bench">
      <h3>Entered at the bench <span class="mono small">{{ bench.length }}</span></h3>
      <div class="head">
        <span class="small soft">Jobs work with these already. Check them against your manual.</span>
        <button
          type="button"
          class="texty small"
          :disabled="write.busy.value"
          @click="
            write.check(
              draft.body.id,
              bench.map((b) => b.path),
            )
          "
        >
          {{ bench.length === 1 ? 'Confirm it' : `Confirm all ${bench.length}` }}
        </button>
      </div>
      <p v-for="b in bench" :key="b.path" class="small">{{ b.label }} <strong>{{ b.as }}</strong></p>
    </section>
    <section v-for="g in groups" :key="g.why" :aria-label="g.title">
      <h3>{{ g.title }} <span class="mono small">{{ g.rows.length }}</span></h3>
      <p class="small soft">{{ g.says }}</p>
      <div v-for="l in byList(g.rows)" :key="l.list" class="list">
        <div class="head">
          <span class="small">In {{ listName(l.list) }}</span>
          <button
            v-if="g.why === 'assumed' && formOf(l.list)"
            type="button"
            class="texty small"
            :disabled="write.busy.value"
            @click="confirm(l.list, l.rows)"
          >
            {{ l.rows.length === 1 ? 'Confirm it' : `Confirm all ${l.rows.length}` }}
          </button>
        </div>
        <ul>
          <li v-for="h in l.rows" :key="h.id">
            <button type="button" class="jump" @click="emit('go', h.list, h.id, h.field)">
              {{ h.name }}
            </button>
            <button
              v-if="g.why === 'assumed' && l.rows.length > 1 && formOf(l.list)"
              type="button"
              class="texty small"
              :disabled="write.busy.value"
              :aria-label="`Confirm ${h.name}`"
              @click="confirm(l.list, [h])"
            >
              confirm
            </button>
          </li>
        </ul>
      </div>
    </section>
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
  </div>
</template>

<style scoped>
section {
  margin-top: 0.8rem;
}
h3 {
  margin: 0;
  border-bottom: 1px solid var(--line);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 44px;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 0 1rem;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.jump {
  flex: 1;
  min-height: 44px;
  text-align: left;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  cursor: pointer;
}
.jump:hover {
  background: var(--lamp-soft);
}
</style>
