<script setup lang="ts">
import { InputError } from '@moray/core/checks/input-error'
import { endpoints } from '@moray/contract/endpoints'
import type { DriveEntry } from '@moray/contract/replies'
import type { ImportSheet } from '@moray/contract/requests/sheets'
import { FAMILIES } from '@moray/core/drives/sheet'
import Button from 'primevue/button'
import { ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import SectionDrawing from '../drawing/SectionDrawing.vue'
import ConfirmDialog from '../ui/ConfirmDialog.vue'
import LoadState from '../ui/LoadState.vue'
import SaveCsv from '../ui/SaveCsv.vue'
import { keys, useDrives, useQueryClient } from '../wire/queries.ts'
import { useWrite } from '../writing/use-write.ts'
import { waitingText } from './waiting-text.ts'
import NewDriveDialog from './NewDriveDialog.vue'

const store = useDrives()
const columns = [
  { name: 'name', of: (d: DriveEntry) => d.name },
  { name: 'family', of: (d: DriveEntry) => FAMILIES[d.family] },
  { name: 'version', of: (d: DriveEntry) => d.edition },
  { name: 'being typed', of: (d: DriveEntry) => d.drafted },
  { name: 'figures that wait', of: (d: DriveEntry) => d.waiting },
  { name: 'demo', of: (d: DriveEntry) => d.demo },
]
const router = useRouter()
const client = useQueryClient()
const write = useWrite()
const route = useRoute()
/** Whoever comes from a job that has no drive to choose from is asked for one at once. */
const adding = ref(route.query.new !== undefined)
/** A file that came in while a draft of the same sheet is open. */
const held = ref<ImportSheet['sheet'] | null>(null)
const unreadable = ref('')

async function take(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  unreadable.value = ''
  if (file.size > 2_000_000) {
    unreadable.value = `${file.name} has ${Math.round(file.size / 1e6)} MB; a sheet has far less than 2. It is another file.`
    return
  }
  try {
    // a file of the form of before is brought up before it is looked at
    const { raised } = await import('@moray/contract/sheet/raised')
    await bring(raised(JSON.parse(await file.text())) as ImportSheet['sheet'])
  } catch (e) {
    unreadable.value =
      e instanceof InputError
        ? `${file.name}: ${e.message}`
        : `${file.name} cannot be read as a sheet: it is not JSON. Take the file that "Save as a file" has written.`
  }
}
async function bring(sheet: ImportSheet['sheet'], anew = false) {
  const draft = await write.send(endpoints.importSheet, {}, { sheet, ...(anew ? { anew } : {}) })
  held.value = !draft && write.error.value?.code === 'draft-open' ? sheet : null
  if (!draft) return
  client.setQueryData(keys.draft(draft.body.id), draft)
  void client.invalidateQueries({ queryKey: keys.drives })
  void router.push(`/drives/${draft.body.id}/draft`)
}
</script>

<template>
  <div class="page-head">
    <h1>Drives</h1>
    <p class="small soft">
      Sheets that ship are invented, to learn with; make your own from your own manual.
    </p>
    <div class="acts">
      <label class="texty">
        Bring a sheet in
        <input type="file" accept=".json,application/json" class="sr-only" @change="take" />
      </label>
      <SaveCsv
        v-if="store.sheets?.length"
        name="drives"
        :columns="columns"
        :rows="() => store.sheets ?? []"
      />
      <Button label="A drive of your own" class="lamp" @click="adding = true" />
    </div>
  </div>
  <p v-if="unreadable" class="fault" role="alert">{{ unreadable }}</p>
  <div v-else-if="write.error.value && !held" class="fault" role="alert">
    <p>The sheet was not taken in.</p>
    <ul>
      <li v-for="f in write.error.value.fields.slice(0, 12)" :key="f.path + f.message">
        <strong>{{ f.path }}</strong> {{ f.message }}
      </li>
    </ul>
    <p v-if="!write.error.value.fields.length">{{ write.error.value.message }}</p>
  </div>
  <LoadState v-if="!store.sheets" what="the drive sheets" :error="store.error" @again="store.load" />
  <p v-else-if="!store.sheets.length" class="soft">
    No drive is known here yet. Begin with a name and what it is; half a minute later a job can be opened on
    it.
  </p>
  <ul v-else class="sheets">
    <li v-for="s in store.sheets" :key="s.id">
      <RouterLink :to="s.edition === undefined ? `/drives/${s.id}/draft` : `/drives/${s.id}`">
        <SectionDrawing :sheet="s" :max-height="190" plain inert />
        <strong>{{ s.name }}</strong>
        <span class="small">{{ FAMILIES[s.family] }}</span>
        <span class="small soft"
          >{{
            s.demo
              ? s.summary
              : s.edition === undefined
                ? `Draft, ${s.lacks?.length ?? 0} figures to come`
                : `Version ${s.edition}${s.drafted ? `, ${waitingText(s.waiting)}` : ''}`
          }}
        </span>
      </RouterLink>
    </li>
  </ul>
  <NewDriveDialog v-if="adding" @close="adding = false" />
  <ConfirmDialog
    :open="held !== null"
    title="A draft of this sheet is open here"
    action="Take the new one"
    :busy="write.busy.value"
    @update:open="(o: boolean) => !o && (held = null)"
    @yes="held && bring(held, true)"
  >
    <p>The one that comes in would take its place; what was typed in the draft would be gone.</p>
  </ConfirmDialog>
</template>

<style scoped>
.acts {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
}
.acts label {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}
.acts label:focus-within {
  outline: 3px solid var(--focus);
}
.sheets {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 18rem), 1fr));
  gap: 1.2rem;
}
.sheets a {
  display: grid;
  gap: 0.15rem;
  text-decoration: none;
  border-top: 2px solid var(--ink);
  padding-top: 0.5rem;
  height: 100%;
  align-content: start;
}
.sheets a:hover {
  background: var(--lamp-soft);
}
@media (max-width: 600px) {
  .acts {
    margin-left: 0;
  }
}
</style>
