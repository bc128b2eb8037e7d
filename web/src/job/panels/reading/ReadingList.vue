<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { ReadingEntry } from '@moray/core/job/record'
import { computed, ref } from 'vue'
import ReasonDialog from '../../../ui/ReasonDialog.vue'
import VerdictMark from '../../../ui/VerdictMark.vue'
import { useUnits } from '../../../ui/units.ts'
import { useJobWrite } from '../../../wire/use-job-write.ts'
import { howText } from '../../reading-words.ts'

/** Readings of one thing as they were taken; one that does not count is set aside with a reason, and stays. */
const props = defineProps<{
  job: string
  label: string
  readings: readonly ReadingEntry[]
  /** Canonical unit of what is judged. */
  unit: 'mm' | 'Nm'
  writable: boolean
}>()
const emit = defineEmits<{ dropped: [] }>()

const units = useUnits()
const show = computed(() => units.of(props.unit))
const setAside = useJobWrite()
const leaving = ref<ReadingEntry | null>(null)
const asking = computed({ get: () => leaving.value !== null, set: (open) => !open && (leaving.value = null) })
async function drop(reason: string) {
  const path = { id: props.job, reading: leaving.value!.id }
  if (!(await setAside.send(endpoints.supersedeReading, path, { reason }))) return
  leaving.value = null
  emit('dropped')
}
</script>

<template>
  <ol v-if="readings.length" class="readings" aria-label="Readings">
    <li v-for="r in readings" :key="r.id" :class="{ gone: r.superseded }">
      <span>
        <span class="mono">{{ show.both(r.value, 3) }}</span>
        <span class="small soft">
          {{ r.text }} · {{ howText(r, units) }} {{ r.gaugeName
          }}<template v-if="r.gaugeOverdue"> (overdue)</template> · {{ r.by }}</span
        >
        <span v-if="r.superseded" class="small"
          ><VerdictMark verdict="superseded" /> {{ r.superseded.reason }}</span
        >
      </span>
      <button v-if="writable && !r.superseded" type="button" class="texty small" @click="leaving = r">
        set aside
      </button>
    </li>
  </ol>
  <ReasonDialog
    v-model:open="asking"
    title="Set a reading aside"
    :explain="
      leaving
        ? `${label}: ${show.both(leaving.value, 3)}. It stays in the record, with your reason, and no longer counts.`
        : ''
    "
    action="Set aside"
    :busy="setAside.busy.value"
    :error="setAside.error.value?.message"
    @give="drop"
  />
</template>

<style scoped>
.readings {
  margin-top: 0.6rem;
  border-top: 1px solid var(--line);
}
.readings li {
  display: flex;
  justify-content: space-between;
  gap: 0.5rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  min-height: 44px;
}
.readings li > span {
  display: grid;
}
.gone .mono {
  text-decoration: line-through;
}
</style>
