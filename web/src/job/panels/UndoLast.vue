<script setup lang="ts">
import { onKeyStroke, useNow } from '@vueuse/core'
import { findMeasured } from '@moray/core/setting/measured'
import { unitOf } from '@moray/core/setting/measures'
import { computed } from 'vue'
import { useShop } from '../../stores/shop.ts'
import { useUnits } from '../../ui/units.ts'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'

/** The last reading, taken back with one key for as long as one still sees that it was wrong: it is superseded, not deleted. */
const props = defineProps<{ job: ShownJob; build: ShownBuild; write: WriteState }>()
const emit = defineEmits<{
  setAside: [reading: number, reason: string, answered: Answered]
  undone: [measure: string]
}>()

/** So long after an entry one key takes it back, s. */
const SECONDS = 10

const shop = useShop()
const units = useUnits()
const now = useNow({ interval: 500 })
const mine = computed(() => shop.people.find((p) => p.id === shop.personId)?.name)
const last = computed(() => {
  const reading = props.build.readings.findLast((r) => !r.superseded)
  if (!reading || reading.by !== mine.value) return undefined
  const left = SECONDS - (now.value.getTime() - Date.parse(reading.at)) / 1000
  // a clock that differs from the server's must not keep it open
  return left > 0 && left <= SECONDS + 2 ? { reading, left: Math.ceil(Math.min(left, SECONDS)) } : undefined
})
const measure = computed(() => last.value && findMeasured(props.job.sheet, last.value.reading.measure))
const label = computed(() => measure.value?.label ?? '')
const show = computed(() => units.of(measure.value ? unitOf(measure.value) : 'mm'))
function undo() {
  if (!last.value || props.write.busy) return
  const { id, measure } = last.value.reading
  emit('setAside', id, 'taken back at once', (done) => done && emit('undone', measure))
}
onKeyStroke('z', (e) => {
  const field = e.target as HTMLInputElement
  // what is being typed is undone by the field itself
  if (!(e.ctrlKey || e.metaKey) || !last.value || (field.value ?? '') !== '') return
  e.preventDefault()
  undo()
})
</script>

<template>
  <p v-if="last" class="undo" role="status">
    <span> {{ label }} <strong class="mono">{{ show.both(last.reading.value, 3) }}</strong> entered. </span>
    <button type="button" :disabled="write.busy" @click="undo">Undo, {{ last.left }} s</button>
  </p>
  <p v-if="write.error" class="fault" role="alert">{{ write.error.message }}</p>
</template>

<style scoped>
.undo {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.8rem;
  align-items: center;
  justify-content: space-between;
  border: 1px solid var(--line-strong);
  padding: 0.2rem 0.6rem;
  margin-bottom: 0.5rem;
}
button {
  font: inherit;
  color: inherit;
  min-height: 44px;
  padding: 0 0.8rem;
  background: var(--sheet);
  border: 1px solid var(--ink);
  cursor: pointer;
}
</style>
