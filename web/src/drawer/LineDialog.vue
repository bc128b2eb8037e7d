<script setup lang="ts">
import { showTime } from '../ui/times.ts'
import { cutWords } from '../ui/cut-words.ts'
import { useUnits } from '../ui/units.ts'
import type { DrawerLine } from '@moray/contract/replies'
import { endpoints } from '@moray/contract/endpoints'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import FormDialog from '../ui/FormDialog.vue'
import { understand } from '../ui/understand.ts'
import { useDrawer, useMovements } from '../wire/queries.ts'
import { useShop } from '../stores/shop.ts'
import { useWrite } from '../writing/use-write.ts'

/** One line of the drawer: put pieces in, count them, correct the thickness, and see every movement. */
const props = defineProps<{ line: DrawerLine }>()
const emit = defineEmits<{ close: [] }>()
const store = useDrawer()
const shop = useShop()
const write = useWrite()
const history = useMovements(props.line.id)

type Way = 'add' | 'count' | 'thickness'
const WAYS: { id: Way; name: string }[] = [
  { id: 'add', name: 'Put pieces in' },
  { id: 'count', name: 'Counted' },
  { id: 'thickness', name: 'Thickness was wrong' },
]
const way = ref<Way>('add')
const amount = ref('')
const reason = ref('')
const whole = computed(() => (/^\d{1,3}$/.test(amount.value.trim()) ? Number(amount.value) : undefined))
const meaning = computed(() => understand(amount.value, shop.unit, 'shim-piece'))
const ready = computed(() => {
  if (way.value === 'add') return whole.value !== undefined && whole.value > 0
  if (reason.value.trim().length < 3) return false
  return way.value === 'count' ? whole.value !== undefined : meaning.value.state === 'value'
})
function writeIt() {
  const at = { id: props.line.id }
  const why = reason.value.trim()
  if (way.value === 'add')
    return write.send(endpoints.addPieces, at, { pieces: whole.value!, ...(why ? { reason: why } : {}) })
  if (way.value === 'count') return write.send(endpoints.countLine, at, { count: whole.value!, reason: why })
  const body = { text: amount.value, unit: shop.unit, reason: why }
  return write.send(endpoints.correctThickness, at, body)
}
async function send() {
  if (!ready.value) return
  const reply = await writeIt()
  if (!reply) return
  await store.load()
  emit('close')
}
const LABEL: Record<Way, string> = {
  add: 'Pieces put in',
  count: 'Pieces counted',
  thickness: 'Measured thickness',
}
const at = showTime
const units = useUnits()
</script>

<template>
  <FormDialog
    :header="`${units.both(line.thicknessMm, 3)}, marked ${line.text}`"
    action="Enter"
    :busy="write.busy.value"
    :unready="!ready"
    :columns="1"
    @send="send"
    @close="emit('close')"
  >
    <p class="soft">
      Tray {{ line.place || '—' }}: {{ line.count }} in the drawer, {{ line.reserved }} in trials
    </p>
    <p v-if="line.cut" class="small">{{ cutWords(line.cut, units) }}</p>
    <fieldset class="one-of">
      <legend class="sr-only">What happened</legend>
      <label v-for="w in WAYS" :key="w.id" :class="{ on: way === w.id }">
        <input
          v-model="way"
          type="radio"
          name="way"
          :value="w.id"
          class="sr-only"
          @change="((amount = ''), write.clear())"
        />
        {{ w.name }}
      </label>
    </fieldset>
    <label for="amount">{{ LABEL[way] }}</label>
    <InputText id="amount" v-model="amount" autocomplete="off" autofocus />
    <p v-if="way === 'thickness'" class="small" aria-live="polite">
      <span v-if="meaning.state === 'value'" class="mono">{{ units.both(meaning.value, 3) }}</span>
      <span v-else-if="meaning.state !== 'empty'" class="late">{{ meaning.why }}</span>
      <span v-else class="soft">In bench notation; a bare number counts as {{ shop.unit }}.</span>
    </p>
    <p v-else-if="amount && whole === undefined" class="small late">A whole number of pieces, at most 999.</p>
    <label for="why">Reason{{ way === 'add' ? ' (if there is one)' : '' }}</label>
    <InputText id="why" v-model="reason" maxlength="300" autocomplete="off" />
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
    <template #below
      ><section>
        <h3>Movements</h3>
        <p v-if="!history.movements" class="soft small">
          {{ history.error?.message ?? 'Loading the movements …' }}
        </p>
        <ol v-else>
          <li v-for="m in history.movements" :key="m.id" class="small">
            <span class="mono delta">{{ m.delta > 0 ? '+' : '' }}{{ m.delta }}</span>
            <span>{{ m.reason }} <span class="soft">{{ m.by }}, {{ at(m.at) }}</span></span>
          </li>
        </ol>
      </section></template
    >
  </FormDialog>
</template>

<style scoped>
.late {
  color: var(--out);
}
ol {
  max-height: 11rem;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: 3rem 1fr;
  border-top: 1px solid var(--line);
  padding: 0.25rem 0;
}
</style>
