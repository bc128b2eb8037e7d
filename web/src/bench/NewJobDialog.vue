<script setup lang="ts">
import type { JobDetail, KnownUnit } from '@moray/contract/replies'
import { OpenJob } from '@moray/contract/requests/route'
import { validate } from '@moray/contract/fields/validate'
import { routes } from '@moray/contract/routes'
import { InputError } from '@moray/core/checks/input-error'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed, onMounted, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useJobs } from '../stores/jobs.ts'
import { useDrives } from '../stores/shelves.ts'
import { useShopWays } from '../stores/shop.ts'
import { getJson, problemAt } from '../wire/client.ts'
import { useWrite } from '../wire/use-write.ts'

/** A job for a customer's drive: one that has been here fills the form by its serial number. */
const emit = defineEmits<{ close: [] }>()
const drives = useDrives()
const ways = useShopWays()
const jobs = useJobs()
const router = useRouter()
const write = useWrite<JobDetail>()
const units = ref<KnownUnit[]>([])
onMounted(async () => {
  if (!drives.sheets) void drives.load()
  if (!ways.ways) void ways.load()
  // without it every field is typed; nothing else is lost
  units.value = await getJson<KnownUnit[]>(routes.units).catch(() => [])
})
const form = reactive({
  serial: '',
  sheetId: '',
  boat: '',
  owner: '',
  water: 'salt' as 'salt' | 'brackish' | 'fresh',
  hours: '',
  complaint: '',
  stand: '',
})
const known = computed(() =>
  units.value.find((u) => u.serial.toLowerCase() === form.serial.trim().toLowerCase()),
)
function fill() {
  if (!known.value) return
  const { sheetId, boat, owner, water } = known.value
  Object.assign(form, { sheetId, boat, owner, water })
}
const taken = computed(
  () =>
    new Set(
      (jobs.jobs ?? [])
        .filter((j) => j.stand && !['finished', 'closed'].includes(j.state))
        .map((j) => j.stand),
    ),
)
const problems = ref<Record<string, string>>({})
async function open() {
  problems.value = {}
  let body: OpenJob
  try {
    body = validate(OpenJob, {
      serial: form.serial.trim(),
      sheetId: form.sheetId,
      boat: form.boat.trim(),
      owner: form.owner.trim(),
      water: form.water,
      complaint: form.complaint.trim(),
      ...(form.hours.trim() ? { hours: Number(form.hours) } : {}),
      ...(form.stand ? { stand: form.stand } : {}),
    })
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    problems.value = Object.fromEntries(e.fields.map((f) => [f.path, f.message]))
    return
  }
  const reply = await write.send(routes.jobs, body)
  if (!reply) return
  void jobs.load()
  emit('close')
  void router.push(`/jobs/${reply.id}/route`)
}
const said = (field: string) => problems.value[field] ?? problemAt(write.error.value, field)
</script>

<template>
  <Dialog visible modal header="A drive comes in" @update:visible="emit('close')">
    <form class="form entries" @submit.prevent="open">
      <label class="wide">
        Serial number
        <input
          v-model="form.serial"
          list="known-units"
          maxlength="60"
          autocomplete="off"
          autofocus
          @change="fill"
        />
        <datalist id="known-units">
          <option v-for="u in units" :key="u.serial" :value="u.serial">
            {{ u.sheetName }}, {{ u.boat }}
          </option>
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
        Complaint
        <textarea v-model="form.complaint" rows="2" maxlength="600"></textarea>
        <span v-if="said('complaint')" class="bad">{{ said('complaint') }}</span>
      </label>
      <label class="wide">
        Stand
        <select v-model="form.stand">
          <option value="">on the shelf</option>
          <option v-for="s in ways.ways?.stands ?? []" :key="s" :value="s" :disabled="taken.has(s)">
            {{ s }}{{ taken.has(s) ? ', taken' : '' }}
          </option>
        </select>
        <span v-if="said('stand')" class="bad">{{ said('stand') }}</span>
      </label>
      <p v-if="write.error.value && !write.error.value.fields.length" class="fault wide" role="alert">
        {{ write.error.value.message }}
      </p>
      <div class="wide actions">
        <Button type="button" label="Leave it" class="quiet" @click="emit('close')" />
        <Button type="submit" label="Open the job" class="lamp" :disabled="write.busy.value" />
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem 1rem;
  width: min(34rem, 82vw);
}
.wide {
  grid-column: 1 / -1;
}
label {
  display: grid;
  font-size: var(--t-small);
}
input,
select,
textarea {
  font-size: var(--t-body);
  min-width: 0;
}
.bad {
  color: var(--out);
}
.actions {
  display: flex;
  justify-content: flex-end;
  gap: 0.6rem;
}
@media (max-width: 500px) {
  .form {
    grid-template-columns: 1fr;
  }
}
</style>
