<script setup lang="ts">
import { windowOf, type CrushMeasure, type RollingTorqueMeasure } from '@moray/core/setting/measures'
import { computed } from 'vue'
import OneOf from '../../../ui/OneOf.vue'
import { useUnits } from '../../../ui/units.ts'
import { understand } from '../../../ui/understand.ts'
import type { TorqueUnit } from '@moray/contract/requests/reading-units'
import type { BearingDraft } from './drafts.ts'

/** How a bearing is read: gap or float under a cover; new or run-in bearings, and the lips whose drag is taken off. */
const props = defineProps<{ measure: RollingTorqueMeasure | CrushMeasure; unit: TorqueUnit }>()
const draft = defineModel<BearingDraft>({ required: true })

const units = useUnits()
const set = (change: Partial<BearingDraft>) => (draft.value = { ...draft.value, ...change })
const drag = computed(() => understand(draft.value.drag, props.unit, 'rolling-torque'))
const torque = computed(() => units.of('Nm'))
const dragNm = computed(() =>
  drag.value.state === 'value' || drag.value.state === 'doubtful' ? drag.value.value : 0,
)
/** What the wrench has to show, lips included: said before it is read. */
const wanted = computed(() => {
  if (props.measure.kind !== 'rolling-torque') return ''
  const { min, max } = windowOf(props.measure, draft.value.runIn)
  const show = (v: number) => torque.value.digits(v + dragNm.value)
  if (min === undefined || max === undefined) return ''
  return `${show(min)} to ${show(max)} ${torque.value.unit}`
})
const ways = computed((): { value: BearingDraft['as']; label: string }[] =>
  props.measure.kind === 'crush'
    ? [
        { value: 'gap', label: 'gap under the cover' },
        { value: 'float', label: 'float of the ring' },
      ]
    : props.measure.nmPerMm
      ? [
          { value: undefined, label: 'torque' },
          { value: 'play', label: 'it has play' },
        ]
      : [],
)
</script>

<template>
  <div class="how">
    <OneOf
      v-if="ways.length"
      legend="Read as"
      :options="ways"
      :model-value="draft.as"
      @update:model-value="(as) => set({ as })"
    />
    <template v-if="measure.kind === 'rolling-torque'">
      <OneOf
        v-if="measure.runIn"
        legend="Bearings"
        :options="[
          { value: false, label: 'new' },
          { value: true, label: 'have run' },
        ]"
        :model-value="draft.runIn"
        @update:model-value="(runIn) => set({ runIn })"
      />
      <p v-if="measure.nut === 'sleeve'" class="caution">
        A new crush sleeve under the nut: turn it on a little at a time and read after each. Never back.
      </p>
      <label v-if="draft.as !== 'play'" class="drag">
        <span class="small soft">Drag of lips that are in (none when left out)</span>
        <input
          type="text"
          class="plain-field"
          autocomplete="off"
          :value="draft.drag"
          :placeholder="`0 ${torque.unit}`"
          @input="set({ drag: ($event.target as HTMLInputElement).value })"
        />
        <span v-if="drag.state === 'not'" class="bad small">{{ drag.why }}</span>
        <span v-else-if="dragNm" class="small mono">{{ torque.both(dragNm) }}</span>
      </label>
      <p v-if="wanted && draft.as !== 'play'" class="wanted">
        Has to show <strong class="mono">{{ wanted }}</strong>
      </p>
    </template>
    <p v-else class="small soft">
      {{
        draft.as === 'float'
          ? 'Cover drawn down: how far the ring still moves, stop to stop.'
          : 'Cover laid on, not drawn down: feelers between cover and case.'
      }}
    </p>
  </div>
</template>

<style scoped>
.how {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.5rem;
  margin-top: 0.4rem;
}
.drag {
  display: grid;
  gap: 0.15rem;
}
.wanted {
  font-size: var(--t-lead);
}
.bad {
  color: var(--out);
}
</style>
