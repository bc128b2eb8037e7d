<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { templateOf } from '@moray/core/drives/own/template'
import { filled } from '@moray/core/drives/own/fill'
import { FAMILIES, type Family } from '@moray/core/drives/sheet'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import SectionDrawing from '../drawing/SectionDrawing.vue'
import FormDialog from '../ui/FormDialog.vue'
import { problemAt } from '../wire/client.ts'
import { useQueryClient, keys } from '../wire/queries.ts'
import { useWrite } from '../writing/use-write.ts'

/** A drive that Moray has never seen: a name and what it is. The sheet grows from there. */
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const client = useQueryClient()
const write = useWrite()
const name = ref('')
const family = ref<Family>('outboard-fnr')
const manual = ref('')
const tried = ref(false)
const drawn = computed(() => filled(templateOf(family.value, 'new', 'New')))
const said = computed(
  () =>
    problemAt(write.error.value, 'name') ??
    (tried.value && name.value.trim().length < 2 ? 'it needs a name' : undefined),
)
async function send() {
  tried.value = true
  if (name.value.trim().length < 2) return
  const body = {
    name: name.value,
    family: family.value,
    ...(manual.value.trim() ? { manual: manual.value.trim() } : {}),
  }
  const draft = await write.send(endpoints.addDrive, {}, body)
  if (!draft) return
  client.setQueryData(keys.draft(draft.body.id), draft)
  void client.invalidateQueries({ queryKey: keys.drives })
  emit('close')
  void router.push(`/drives/${draft.body.id}/draft`)
}
</script>

<template>
  <FormDialog
    header="A drive of your own"
    action="Begin its sheet"
    :busy="write.busy.value"
    @send="send"
    @close="emit('close')"
  >
    <label class="wide">
      What you call it
      <input v-model="name" maxlength="60" autocomplete="off" autofocus />
      <span v-if="said" class="bad" role="alert">{{ said }}</span>
    </label>
    <label class="wide">
      What it is
      <select v-model="family">
        <option v-for="(label, id) in FAMILIES" :key="id" :value="id">{{ label }}</option>
      </select>
    </label>
    <div class="wide picture" aria-hidden="true">
      <SectionDrawing :sheet="drawn" :max-height="190" plain inert />
    </div>
    <label class="wide">
      The manual in front of you (its title; may wait)
      <input v-model="manual" maxlength="120" autocomplete="off" />
    </label>
    <p class="small soft wide">
      That is enough to open a job on it. Figures come when they are needed, in the units of your manual.
    </p>
    <p v-if="write.error.value && !write.error.value.fields.length" class="fault wide" role="alert">
      {{ write.error.value.message }}
    </p>
  </FormDialog>
</template>
