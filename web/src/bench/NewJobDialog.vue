<script setup lang="ts">
import type { OpenJob } from '@moray/contract/requests/life'
import type { KnownUnit } from '@moray/contract/replies'
import { endpoints } from '@moray/contract/endpoints'
import { plainNumber } from '@moray/core/units/plain-number'
import { refDebounced } from '@vueuse/core'
import { holdsSerial } from '@moray/core/drives/own/variants'
import { comesOff } from '@moray/core/drives/parts'
import {
  CAME,
  CAME_ELSEWHERE,
  isPlanned,
  needsComplaint,
  usualScopes,
  type Came,
} from '@moray/core/route/scope'
import { computed, reactive, ref, watch } from 'vue'
import { serialsOf } from '../drives/own/show-figure.ts'
import { waitingText } from '../drives/waiting-text.ts'
import { RouterLink, useRouter } from 'vue-router'
import { useUnits } from '../wire/found.ts'
import { useDrives } from '../wire/queries.ts'
import { problemAt } from '../wire/client.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import FormDialog from '../ui/FormDialog.vue'
import { useStands } from './stands.ts'

/** A job for a customer's drive: one that has been here fills the form by its serial number. */
const props = defineProps<{
  /** A drive that has been here, and comes again. */
  unit?: KnownUnit
}>()
const emit = defineEmits<{ close: [] }>()
const drives = useDrives()
const shop = useStands()
const router = useRouter()
const write = useJobWrite()
const form = reactive({
  serial: props.unit?.serial ?? '',
  sheetId: props.unit?.sheetId ?? '',
  boat: props.unit?.boat ?? '',
  owner: props.unit?.owner ?? '',
  water: props.unit?.water ?? ('salt' as 'salt' | 'brackish' | 'fresh'),
  hours: '',
  complaint: '',
  stand: '',
  variant: '',
  scope: 'full',
  came: 'boat' as Came,
  lying: [] as string[],
})
/** What the drive comes in for, as far as its sheet has it; places are picked on the Scope page. */
const chosen = computed(() => drives.sheets?.find((s) => s.id === form.sheetId))
const scopes = computed(() => (chosen.value ? usualScopes(chosen.value) : []))
const mode = computed(() => scopes.value.find((s) => s.usual === form.scope)?.mode)
watch(scopes, (all) => {
  if (!all.some((s) => s.usual === form.scope)) form.scope = 'full'
})
/** How it came is asked of what comes to be worked on; a unit from elsewhere comes closed and by itself. */
const asksCame = computed(() => mode.value !== undefined && !CAME_ELSEWHERE.includes(mode.value))
const loose = computed(() => chosen.value?.parts.filter(comesOff) ?? [])
watch(
  () => form.sheetId,
  () => (form.lying = []),
)
const came = computed(() => ({
  ...(asksCame.value && form.came !== 'boat' ? { came: form.came } : {}),
  ...(form.came === 'opened' ? { lying: form.lying } : {}),
}))
/** Variants of the chosen sheet; the one whose serial numbers hold this one is proposed. */
const variants = computed(() => chosen.value?.variants ?? [])
const proposed = computed(() => variants.value.find((v) => holdsSerial(v, form.serial)))
watch(proposed, (v) => (form.variant = v?.id ?? ''))
/** Drives that have been here whose serial, boat or owner holds what is typed. */
const typed = refDebounced(
  computed(() => form.serial.trim()),
  200,
)
const found = useUnits(typed)
const units = computed(() => found.units ?? [])
const known = computed(() =>
  units.value.find((u) => u.serial.toLowerCase() === form.serial.trim().toLowerCase()),
)
/** The serial number is there whole, and fills the form once its drive is found: that may be a moment later. */
const entered = ref(false)
watch([entered, known], () => {
  if (!entered.value || !known.value) return
  entered.value = false
  const { sheetId, boat, owner, water } = known.value
  Object.assign(form, { sheetId, boat, owner, water })
})
async function open() {
  const body: OpenJob = {
    serial: form.serial,
    sheetId: form.sheetId,
    boat: form.boat,
    owner: form.owner,
    water: form.water,
    ...(form.complaint.trim() ? { complaint: form.complaint } : {}),
    ...(form.hours.trim() ? { hours: plainNumber(form.hours.replace(/\s*h(ours)?$/i, '')) ?? NaN } : {}),
    ...(form.stand ? { stand: form.stand } : {}),
    ...(variants.value.some((v) => v.id === form.variant) ? { variant: form.variant } : {}),
    ...(scopes.value.some((s) => s.usual === form.scope) && (form.scope !== 'full' || came.value.came)
      ? { scope: { usual: form.scope, ...came.value } }
      : {}),
  }
  const reply = await write.send(endpoints.openJob, {}, body)
  if (!reply) return
  emit('close')
  // what is taken apart stands on the page of its scope, before anything is
  void router.push(`/jobs/${reply.id}/${form.scope === 'full' || !isPlanned(mode.value) ? 'route' : 'scope'}`)
}
const said = (field: string) => problemAt(write.error.value, field)
</script>

<template>
  <FormDialog
    header="A drive comes in"
    action="Open the job"
    :busy="write.busy.value"
    @send="open"
    @close="emit('close')"
  >
    <label class="wide">
      Serial number
      <input
        v-model="form.serial"
        list="known-units"
        maxlength="60"
        autocomplete="off"
        autofocus
        @input="entered = false"
        @change="entered = true"
      />
      <datalist id="known-units">
        <option v-for="u in units" :key="u.serial" :value="u.serial">{{ u.sheetName }}, {{ u.boat }}</option>
      </datalist>
      <span v-if="said('serial')" class="bad">{{ said('serial') }}</span>
      <span v-else-if="known" class="soft"
        >has been here {{ known.jobs }} time{{ known.jobs > 1 ? 's' : '' }}</span
      >
    </label>
    <label class="wide">
      Drive
      <select v-model="form.sheetId">
        <option value="">choose the sheet</option>
        <option v-for="s in drives.sheets ?? []" :key="s.id" :value="s.id">{{ s.name }}</option>
      </select>
      <span v-if="said('sheetId')" class="bad">{{ said('sheetId') }}</span>
      <span v-if="drives.sheets?.length === 0">
        No drive is known here yet.
        <RouterLink to="/drives?new" @click="emit('close')">Make a sheet for a drive of your own</RouterLink>
      </span>
      <span v-if="chosen?.waiting" class="soft">
        {{ waitingText(chosen.waiting) }} on this sheet; this job begins without.
        <RouterLink :to="`/drives/${chosen.id}/draft`" @click="emit('close')">Publish first</RouterLink>
      </span>
    </label>
    <label v-if="scopes.length" class="wide">
      What for
      <select v-model="form.scope">
        <option v-for="s in scopes" :key="s.usual" :value="s.usual">{{ s.label }}</option>
      </select>
      <span class="soft">{{ scopes.find((s) => s.usual === form.scope)?.about }}</span>
    </label>
    <label v-if="asksCame" class="wide">
      How it came
      <select v-model="form.came">
        <option v-for="(words, id) in CAME" :key="id" :value="id">{{ words }}</option>
      </select>
    </label>
    <fieldset v-if="asksCame && form.came === 'opened'" class="wide lying">
      <legend>Lies beside it; what covers a part is off with it</legend>
      <label v-for="p in loose" :key="p.id">
        <input v-model="form.lying" type="checkbox" :value="p.id" /> {{ p.name }}
      </label>
      <span v-if="said('scope.lying')" class="bad">{{ said('scope.lying') }}</span>
    </fieldset>
    <label v-if="variants.length" class="wide">
      Variant
      <select v-model="form.variant">
        <option value="">none of them</option>
        <option v-for="v in variants" :key="v.id" :value="v.id">
          {{ v.label }}{{ serialsOf(v) ? `, ${serialsOf(v)}` : '' }}
        </option>
      </select>
      <span v-if="proposed && form.variant === proposed.id" class="soft">by its serial number</span>
      <span v-if="said('variant')" class="bad">{{ said('variant') }}</span>
    </label>
    <label
      >Boat <input v-model="form.boat" maxlength="80" /><span v-if="said('boat')" class="bad">{{
        said('boat')
      }}</span></label
    >
    <label
      >Owner <input v-model="form.owner" maxlength="80" /><span v-if="said('owner')" class="bad">{{
        said('owner')
      }}</span></label
    >
    <label>
      Water
      <select v-model="form.water">
        <option>salt</option>
        <option>brackish</option>
        <option>fresh</option>
      </select>
    </label>
    <label
      >Hours <input v-model="form.hours" inputmode="numeric" /><span v-if="said('hours')" class="bad">{{
        said('hours')
      }}</span></label
    >
    <label class="wide">
      Complaint{{ needsComplaint(mode) ? '' : ', if there is one' }}
      <textarea v-model="form.complaint" rows="2" maxlength="600"></textarea>
      <span v-if="said('complaint')" class="bad">{{ said('complaint') }}</span>
    </label>
    <label class="wide">
      Stand
      <select v-model="form.stand">
        <option value="">no stand</option>
        <option v-for="s in shop.stands" :key="s" :value="s" :disabled="shop.on.has(s)">
          {{ s }}{{ shop.on.has(s) ? ', taken' : '' }}
        </option>
      </select>
      <span v-if="said('stand')" class="bad">{{ said('stand') }}</span>
    </label>
    <p v-if="write.error.value && !write.error.value.fields.length" class="fault wide" role="alert">
      {{ write.error.value.message }}
    </p>
  </FormDialog>
</template>

<style scoped>
.lying {
  border: 1px solid var(--line);
  padding: 0.3rem 0.7rem;
  max-height: 14rem;
  overflow-y: auto;
  columns: 2;
}
.lying label {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 40px;
  break-inside: avoid;
}
@media (max-width: 700px) {
  .lying {
    columns: 1;
  }
}
</style>
