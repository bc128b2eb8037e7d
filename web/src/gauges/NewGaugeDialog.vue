<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { GAUGE_KIND_IDS, kindOfGauge, type GaugeKindId } from '@moray/core/measuring/gauge-kinds'
import { dayField } from '../ui/times.ts'
import { computed, ref, watch } from 'vue'
import { useOwn } from '../stores/own.ts'
import FormDialog from '../ui/FormDialog.vue'
import { problemAt } from '../wire/client.ts'
import { useGauges } from '../wire/queries.ts'
import { useWrite } from '../writing/use-write.ts'
import FiguresForm from './FiguresForm.vue'
import { readFigures, usualFigures } from './gauge-form.ts'

/** A gauge of one's own: what it is, what the shop calls it, and its figures, for which the usual ones of its kind are proposed. */
const emit = defineEmits<{ close: [] }>()
const store = useGauges()
const own = useOwn()
const write = useWrite()
const kind = ref<GaugeKindId>('plunger-dial')
const name = ref('')
const calibratedOn = ref('')
const typed = ref(usualFigures(kind.value, own.first))
watch(kind, (k) => (typed.value = usualFigures(k, own.first)))
const tried = ref(false)
const read = computed(() => readFigures(kind.value, typed.value, own.first))
const said = (field: string) => problemAt(write.error.value, field)
const wrong = computed(() => {
  const bad: Record<string, string> = tried.value ? { ...read.value.wrong } : {}
  for (const f of write.error.value?.fields ?? []) bad[f.path.replace(/^figures\./, '')] ??= f.message
  return bad
})
const today = dayField(new Date())
async function send() {
  tried.value = true
  const { figures } = read.value
  if (!figures || !name.value.trim()) return
  const body = {
    kind: kind.value,
    name: name.value,
    figures,
    ...(calibratedOn.value ? { calibratedOn: calibratedOn.value } : {}),
  }
  if (!(await write.send(endpoints.addGauge, {}, body))) return
  await store.load()
  emit('close')
}
</script>

<template>
  <FormDialog
    header="A gauge of your own"
    action="Add the gauge"
    :busy="write.busy.value"
    @send="send"
    @close="emit('close')"
  >
    <label>
      What it is
      <select v-model="kind">
        <option v-for="id in GAUGE_KIND_IDS" :key="id" :value="id">{{ kindOfGauge(id).label }}</option>
      </select>
    </label>
    <label>
      What you call it
      <input v-model="name" maxlength="60" autocomplete="off" autofocus />
      <span v-if="said('name')" class="bad" role="alert">{{ said('name') }}</span>
      <span v-else-if="tried && !name.trim()" class="bad" role="alert">it needs a name</span>
    </label>
    <p class="small soft wide">
      Proposed are the figures of a usual one; its certificate or the maker's leaflet has yours.
    </p>
    <FiguresForm v-model="typed" :kind="kind" :wrong="wrong" />
    <label>
      Last calibrated on, where you know it
      <input v-model="calibratedOn" type="date" :max="today" />
      <span v-if="said('calibratedOn')" class="bad" role="alert">{{ said('calibratedOn') }}</span>
      <span v-else class="small soft">Left empty, the record says that it is not known.</span>
    </label>
    <p v-if="write.error.value && !write.error.value.fields.length" class="fault wide" role="alert">
      {{ write.error.value.message }}
    </p>
  </FormDialog>
</template>
