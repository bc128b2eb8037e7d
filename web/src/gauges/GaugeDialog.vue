<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { Gauge } from '@moray/contract/replies'
import { eventText } from '@moray/core/job/event-text'
import { kindOfGauge } from '@moray/core/measuring/gauge-kinds'
import { computed, ref } from 'vue'
import { useOwn } from '../stores/own.ts'
import FormDialog from '../ui/FormDialog.vue'
import { dayField, showDate, showTime } from '../ui/times.ts'
import { problemAt } from '../wire/client.ts'
import { useGaugeHistory, useGauges } from '../wire/queries.ts'
import { useWrite } from '../writing/use-write.ts'
import FiguresForm from './FiguresForm.vue'
import { figuresOf, readFigures } from './gauge-form.ts'

/** One gauge: calibrate it, change its figures, take it out of use, and see what became of it. */
const props = defineProps<{ gauge: Gauge }>()
const emit = defineEmits<{ close: [] }>()
const store = useGauges()
const own = useOwn()
const write = useWrite()
const history = useGaugeHistory(props.gauge.id)

type Way = 'calibrated' | 'figures' | 'retired'
const ways = computed((): { id: Way; name: string }[] => [
  { id: 'calibrated', name: 'Calibrated' },
  { id: 'figures', name: 'Its figures changed' },
  { id: 'retired', name: props.gauge.retired ? 'Take it into use again' : 'Take it out of use' },
])
const way = ref<Way>('calibrated')
const on = ref('')
const reason = ref('')
const typed = ref(figuresOf(props.gauge, own.first))
const tried = ref(false)
const read = computed(() => readFigures(props.gauge.kind, typed.value, own.first))
const said = (field: string) => problemAt(write.error.value, field)
const wrong = computed(() => {
  const bad: Record<string, string> = tried.value ? { ...read.value.wrong } : {}
  for (const f of write.error.value?.fields ?? []) bad[f.path.replace(/^figures\.?/, '')] ??= f.message
  return bad
})
const enough = computed(() => reason.value.trim().length >= 3)
const today = dayField(new Date())
function writeIt() {
  const at = { id: props.gauge.id }
  const why = reason.value.trim()
  if (way.value === 'calibrated')
    return on.value ? write.send(endpoints.calibrateGauge, at, { on: on.value, note: why }) : undefined
  if (way.value === 'retired')
    return write.send(endpoints.retireGauge, at, { retired: !props.gauge.retired, reason: why })
  const { figures } = read.value
  return figures && write.send(endpoints.changeGauge, at, { figures, reason: why })
}
async function send() {
  tried.value = true
  if (!enough.value || !(await writeIt())) return
  await store.load()
  emit('close')
}
const REASON: Record<Way, string> = {
  calibrated: 'By whom, and what was found',
  figures: 'Why they change',
  retired: 'Why',
}
</script>

<template>
  <FormDialog
    :header="`${gauge.name}, ${kindOfGauge(gauge.kind).label.toLowerCase()}`"
    action="Enter"
    :busy="write.busy.value"
    @send="send"
    @close="emit('close')"
  >
    <fieldset class="one-of wide">
      <legend class="sr-only">What happened</legend>
      <label v-for="w in ways" :key="w.id" :class="{ on: way === w.id }">
        <input
          v-model="way"
          type="radio"
          name="way"
          :value="w.id"
          class="sr-only"
          @change="((tried = false), write.clear())"
        />
        {{ w.name }}
      </label>
    </fieldset>
    <label v-if="way === 'calibrated'">
      On which day
      <input v-model="on" type="date" :max="today" />
      <span v-if="said('on')" class="bad" role="alert">{{ said('on') }}</span>
      <span v-else-if="tried && !on" class="bad" role="alert">the day is missing</span>
    </label>
    <template v-else-if="way === 'figures'">
      <p class="small soft wide">Readings that were taken keep the gauge as it was.</p>
      <FiguresForm v-model="typed" :kind="gauge.kind" :wrong="wrong" />
    </template>
    <p v-else class="small soft wide">
      {{
        gauge.retired
          ? 'It can be chosen for readings again.'
          : 'It can be chosen for no more readings. What was read with it stays.'
      }}
    </p>
    <label class="wide">
      {{ REASON[way] }}
      <input v-model="reason" maxlength="300" autocomplete="off" />
      <span v-if="tried && !enough" class="bad" role="alert">say it in a few words</span>
    </label>
    <p v-if="wrong['']" class="fault wide" role="alert">The figures {{ wrong[''] }}.</p>
    <p v-else-if="write.error.value && !write.error.value.fields.length" class="fault wide" role="alert">
      {{ write.error.value.message }}
    </p>
    <template #below
      ><section class="wide">
        <h3>Calibrations</h3>
        <p v-if="!history.history" class="soft small">
          {{ history.error?.message ?? 'Loading what became of it …' }}
        </p>
        <template v-else>
          <ul class="small">
            <li v-for="(c, i) in history.history.calibrations" :key="i">
              {{ showDate(c.on) }}: {{ c.note }} <span v-if="c.by" class="soft">entered by {{ c.by }}</span>
            </li>
          </ul>
          <template v-if="history.history.events.length">
            <h3>What happened</h3>
            <ul class="small">
              <li v-for="e in history.history.events" :key="e.id">
                {{ eventText(e, own.first) }} <span class="soft">{{ e.by }}, {{ showTime(e.at) }}</span>
              </li>
            </ul>
          </template>
        </template>
      </section></template
    >
  </FormDialog>
</template>

<style scoped>
ul {
  max-height: 9rem;
  overflow-y: auto;
}
li {
  border-top: 1px solid var(--line);
  padding: 0.25rem 0;
}
</style>
