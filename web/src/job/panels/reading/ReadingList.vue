<script setup lang="ts">
import type { ReadingEntry } from '@moray/core/job/record'
import { computed, ref, watch } from 'vue'
import ReasonDialog from '../../../ui/ReasonDialog.vue'
import VerdictMark from '../../../ui/VerdictMark.vue'
import { useUnits } from '../../../ui/units.ts'
import { howText } from '../../reading-words.ts'

/** Readings of one thing as they were taken; one that does not count is set aside with a reason, and stays. */
const props = defineProps<{
  label: string
  readings: readonly ReadingEntry[]
  /** Canonical unit of what is judged. */
  unit: 'mm' | 'Nm'
  writable: boolean
  busy: boolean
  error?: string | undefined
}>()
const emit = defineEmits<{ setAside: [reading: ReadingEntry, reason: string] }>()

const units = useUnits()
const show = computed(() => units.of(props.unit))
const leaving = ref<ReadingEntry | null>(null)
const asking = computed({ get: () => leaving.value !== null, set: (open) => !open && (leaving.value = null) })
/** Asked for as long as it counts: when it no longer does, by whomever, the question is over. */
watch(
  () => props.readings.find((r) => r.id === leaving.value?.id)?.superseded,
  (gone) => gone && (leaving.value = null),
)
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
    :busy="busy"
    :error="error"
    @give="(reason: string) => leaving && emit('setAside', leaving, reason)"
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
