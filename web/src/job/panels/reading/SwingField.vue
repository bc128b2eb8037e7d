<script setup lang="ts">
import { InputError } from '@moray/core/checks/input-error'
import { swing } from '@moray/core/measuring/swing'
import type { PlausibleKind } from '@moray/core/units/plausible'
import type { LengthUnit } from '@moray/contract/requests/reading-units'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import NotationField from '../../../ui/NotationField.vue'
import { understand, withUnit } from '../../../ui/understand.ts'
import OneOf from '../../../ui/OneOf.vue'
import { useUnits } from '../../../ui/units.ts'
import PointChips from './PointChips.vue'
import type { SwingDraft } from './drafts.ts'

/** Readings along a swing, at even steps: not their mean counts but where they turn. */
const props = defineProps<{
  kind: PlausibleKind
  dialPerTurnMm?: number | null | undefined
  busy: boolean
  error?: string | undefined
}>()
const emit = defineEmits<{ take: [swing: SwingDraft] }>()
const draft = defineModel<SwingDraft>({ required: true })
const unit = defineModel<LengthUnit>('unit', { required: true })

const units = useUnits()
const text = ref('')
const turn = ref(0)
const read = computed(() =>
  draft.value.samples.map((s) => {
    const said = understand(s, unit.value, props.kind, props.dialPerTurnMm)
    return said.state === 'value' || said.state === 'doubtful' ? said.value : NaN
  }),
)
const found = computed(() => {
  if (read.value.length < 3) return { why: `${3 - read.value.length} more, so that it can turn.` }
  try {
    const s = swing({
      samples: read.value.map((readingMm, at) => ({ at, readingMm })),
      extreme: draft.value.extreme,
    })
    return s.trusted
      ? { s }
      : {
          why: `It has not passed its ${draft.value.extreme} reading yet: swing on until the readings come back.`,
        }
  } catch (e) {
    if (e instanceof InputError) return { why: `The samples ${e.fields[0]!.message}.` }
    throw e
  }
})
function add(e: { text: string }) {
  draft.value = { ...draft.value, samples: [...draft.value.samples, withUnit(e.text, unit.value)] }
  text.value = ''
  turn.value++
}
const strike = (i: number) =>
  (draft.value = { ...draft.value, samples: draft.value.samples.filter((_, k) => k !== i) })
</script>

<template>
  <div class="swing">
    <OneOf
      legend="What counts is the"
      :options="[
        { value: 'highest' as const, label: 'highest' },
        { value: 'lowest' as const, label: 'lowest' },
      ]"
      :model-value="draft.extreme"
      @update:model-value="(extreme) => (draft = { ...draft, extreme })"
    />
    <NotationField
      v-model="text"
      v-model:unit="unit"
      :label="`Sample ${draft.samples.length + 1} of the swing`"
      :kind="kind"
      :dial-per-turn-mm="dialPerTurnMm"
      :busy="busy"
      :focus-on="turn"
      :error="error"
      @enter="add"
      @blank="found.s && emit('take', draft)"
    />
    <PointChips :points="read.map((v) => units.digits(v, 3))" what="sample" @strike="strike" />
    <p v-if="found.s" class="turning">
      Turns at <strong class="mono live">{{ units.length(found.s.valueMm, 3) }}</strong>
    </p>
    <p v-else class="small soft">{{ found.why }}</p>
    <Button
      label="Take the turning point"
      class="lamp"
      :disabled="!found.s || busy"
      @click="emit('take', draft)"
    />
  </div>
</template>

<style scoped>
.swing {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.5rem;
  margin-top: 0.5rem;
}
</style>
