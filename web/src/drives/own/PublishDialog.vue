<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { SheetDraft } from '@moray/contract/replies'
import { checkBody } from '@moray/core/route/check-body'
import { differences } from '@moray/core/drives/own/differences'
import { readiness, ABILITIES } from '@moray/core/drives/own/readiness'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import FormDialog from '../../ui/FormDialog.vue'
import { keys, useGauges, useQueryClient, useSheetFile } from '../../wire/queries.ts'
import { useWrite } from '../../writing/use-write.ts'
import DifferenceTable from './DifferenceTable.vue'
import { tooFine } from './too-fine.ts'

/** What is wrong, doubtful and missing in a draft, what it changes, and its publication as the next version. */
const props = defineProps<{ draft: SheetDraft }>()
const emit = defineEmits<{ close: []; go: [path: string] }>()
const client = useQueryClient()
const router = useRouter()
const write = useWrite()
const gauges = useGauges()
const note = ref('')
const found = computed(() => checkBody(props.draft.body))
const fine = computed(() => tooFine(props.draft.body, gauges.gauges ?? []))
const ready = computed(() => readiness(props.draft.body).filter((r) => r.state !== 'none'))
const unchecked = computed(() => (props.draft.body.sources ?? []).filter((s) => s.unchecked).length)
const last = useSheetFile(() =>
  props.draft.version === null ? undefined : { id: props.draft.body.id, version: props.draft.version },
)
/** There is nothing to publish: it says what the newest version says. */
const unchanged = computed(() => last.body !== null && !differences(last.body, props.draft.body).length)
async function publish() {
  const { id } = props.draft.body
  const versions = await write.send(
    endpoints.publishSheet,
    { id },
    note.value.trim() ? { note: note.value.trim() } : {},
  )
  if (!versions) return
  emit('close')
  await router.push(`/drives/${id}`)
  client.removeQueries({ queryKey: keys.draft(id) })
  void client.invalidateQueries({ queryKey: keys.drives })
}
function leave(path: string) {
  emit('close')
  emit('go', path)
}
</script>

<template>
  <FormDialog
    :header="`Publish version ${(draft.edition ?? 0) + 1}`"
    action="Publish it"
    :busy="write.busy.value"
    :unready="found.wrong.length > 0 || unchanged"
    :columns="1"
    @send="publish"
    @close="emit('close')"
  >
    <div v-if="found.wrong.length" class="fault" role="alert">
      <p>These cannot be as they stand; a job would be led astray.</p>
      <ul>
        <li v-for="w in found.wrong" :key="w.path + w.message">
          <button type="button" class="texty small" @click="leave(w.path)">{{ w.message }}</button>
        </li>
      </ul>
    </div>
    <ul v-if="found.doubtful.length || fine.length" class="caution">
      <li v-for="w in [...found.doubtful, ...fine]" :key="w.path + w.message">
        <button type="button" class="texty small" @click="leave(w.path)">{{ w.message }}</button>
      </li>
    </ul>
    <p v-if="unchecked" class="caution">
      {{ unchecked }} figures came with somebody else's sheet and are not checked by you.
    </p>
    <p>
      Ready:
      {{
        ready
          .filter((r) => r.state === 'ready')
          .map((r) => ABILITIES[r.ability].toLowerCase())
          .join(', ') || 'nothing yet'
      }}.
      <template v-if="ready.some((r) => r.state !== 'ready')">
        Waiting for figures:
        {{
          ready
            .filter((r) => r.state !== 'ready')
            .map((r) => ABILITIES[r.ability].toLowerCase())
            .join(', ')
        }}.
      </template>
    </p>
    <template v-if="last.body">
      <h3>What changes</h3>
      <DifferenceTable
        :from="last.body"
        :to="draft.body"
        :from-name="`Version ${draft.edition}`"
        :to-name="`Version ${(draft.edition ?? 0) + 1}`"
      />
    </template>
    <label>What has changed, in a line <input v-model="note" maxlength="300" /></label>
    <p class="small soft">
      A version that is published stays as it is; jobs keep the one they were opened with.
    </p>
    <div v-if="write.error.value" class="fault" role="alert">
      <p>{{ write.error.value.message }}</p>
    </div>
  </FormDialog>
</template>
