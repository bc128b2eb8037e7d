<script setup lang="ts">
import type { LengthUnit } from '@moray/contract/requests/reading-units'
import type { PlausibleKind } from '@moray/core/units/plausible'
import { understand } from '../../../ui/understand.ts'
import OneOf from '../../../ui/OneOf.vue'
import { useUnits } from '../../../ui/units.ts'
import type { SeatDraft } from './drafts.ts'

/** What else a gear's seat is worked out from: case and nominal, or the trial stack of a float and what shall be left of it. */
const props = defineProps<{ unit: LengthUnit; builtMm: number | undefined }>()
const draft = defineModel<SeatDraft>({ required: true })

const units = useUnits()
const set = (change: Partial<SeatDraft>) => (draft.value = { ...draft.value, ...change })
interface Field {
  key: 'case' | 'nominal' | 'trial' | 'clearance' | 'preload'
  label: string
  kind: PlausibleKind
}
const FIELDS: Record<SeatDraft['as'], Field[]> = {
  'case-and-gear': [
    { key: 'case', label: 'Case, from its mark or measured', kind: 'dimension' },
    { key: 'nominal', label: 'Nominal distance, from the manual or the mark on the gear', kind: 'dimension' },
  ],
  float: [
    { key: 'trial', label: 'Trial stack that is in', kind: 'shim-stack' },
    { key: 'clearance', label: 'Clearance to leave', kind: 'clearance' },
    { key: 'preload', label: 'or preload to give', kind: 'clearance' },
  ],
}
function said(f: Field): string {
  const meaning = understand(draft.value[f.key], props.unit, f.kind)
  if (meaning.state === 'not') return meaning.why
  return meaning.state === 'empty' ? '' : units.both(meaning.value, 3)
}
</script>

<template>
  <div class="seat">
    <OneOf
      legend="Worked out from"
      :options="[
        { value: 'case-and-gear' as const, label: 'case and gear' },
        { value: 'float' as const, label: 'float with a trial stack' },
      ]"
      :model-value="draft.as"
      @update:model-value="(as) => set({ as })"
    />
    <div class="fields">
      <label v-for="f in FIELDS[draft.as]" :key="f.key">
        <span class="small soft">{{ f.label }}</span>
        <input
          type="text"
          class="plain-field"
          autocomplete="off"
          :value="draft[f.key]"
          :placeholder="f.key === 'trial' && builtMm !== undefined ? units.digits(builtMm, 3) : ''"
          @input="set({ [f.key]: ($event.target as HTMLInputElement).value })"
        />
        <span class="small mono">{{ said(f) }}</span>
      </label>
    </div>
    <p class="small soft">
      {{
        draft.as === 'float'
          ? 'What it moves from zero when it is pulled is the float.'
          : 'The gear with its bearing in the fixture: from the shim face to the reference face of the gear.'
      }}
    </p>
  </div>
</template>

<style scoped>
.seat {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.4rem;
  margin-top: 0.4rem;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(8.5rem, 1fr));
  gap: 0.4rem 0.6rem;
  align-items: end;
}
.fields label {
  display: grid;
  gap: 0.1rem;
}
</style>
