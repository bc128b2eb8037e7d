<script setup lang="ts">
import { InputError } from '@moray/core/checks/input-error'
import { rideDepth, type PairDepthMeasure } from '@moray/core/setting/pair-depth'
import { withoutWedge } from '@moray/core/measuring/ride-height'
import type { LengthUnit } from '@moray/contract/requests/reading-units'
import Button from 'primevue/button'
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import NotationField from '../../../ui/NotationField.vue'
import { understand, withUnit } from '../../../ui/understand.ts'
import { useUnits } from '../../../ui/units.ts'
import PointChips from './PointChips.vue'
import type { RideDraft } from './drafts.ts'

/**
 * A ride-height search: the pinion at several places, and how far out the gear rides on it each time. What the cones alone make of it is taken off;
 * the lowest place of what is left is where the flanks fit best.
 */
const props = defineProps<{ measure: PairDepthMeasure; busy: boolean; error?: string | undefined }>()
const emit = defineEmits<{ take: [draft: RideDraft] }>()
const draft = defineModel<RideDraft>({ required: true })
const unit = defineModel<LengthUnit>('unit', { required: true })

const LEAST = 4
const units = useUnits()
const place = ref('')
const ride = ref('')
/** Counts the places that were typed: after each the ride is. */
const placed = ref(0)
const placeField = useTemplateRef<HTMLInputElement>('placeField')
onMounted(() => placeField.value?.focus())
const figure = (text: string, kind: 'depth' | 'ride') => {
  const said = understand(text, unit.value, kind)
  return said.state === 'value' || said.state === 'doubtful' ? said.value : undefined
}
const placeSaid = computed(() => understand(place.value, unit.value, 'depth'))
const read = computed(() =>
  draft.value.points.map((p): [number, number] => [
    figure(p.place, 'depth') ?? NaN,
    figure(p.ride, 'ride') ?? NaN,
  ]),
)
const found = computed(() => {
  const missing = LEAST - read.value.length
  if (missing > 0)
    return { why: `${missing} more ${missing === 1 ? 'place' : 'places'}, on both sides of the best.` }
  try {
    return { depth: rideDepth(props.measure, read.value) }
  } catch (e) {
    if (e instanceof InputError) return { why: `The places ${e.fields[0]!.message}.` }
    throw e
  }
})
/** The rides without what the cones make of them, as they lie on the picture. */
const picture = computed(() => {
  const points = read.value.filter(([p, g]) => Number.isFinite(p + g))
  if (points.length < 2) return undefined
  const rests = withoutWedge(
    props.measure.mesh,
    points.map(([pinionMm, rideMm]) => ({ pinionMm, rideMm })),
  )
  const left = points.map(([p], i): [number, number] => [p, rests[i]!])
  const [x0, x1] = [Math.min(...left.map(([p]) => p)), Math.max(...left.map(([p]) => p))]
  const [y0, y1] = [Math.min(...left.map(([, y]) => y)), Math.max(...left.map(([, y]) => y))]
  const x = (p: number) => 14 + ((p - x0) / (x1 - x0 || 1)) * 272
  return {
    dots: left.map(([p, y]) => [x(p), 76 - ((y - y0) / (y1 - y0 || 1)) * 60] as const),
    best: found.value.depth && x(found.value.depth.depthMm),
  }
})
function add(e: { text: string }) {
  if (figure(place.value, 'depth') === undefined) return
  draft.value = {
    ...draft.value,
    points: [
      ...draft.value.points,
      { place: withUnit(place.value, unit.value), ride: withUnit(e.text, unit.value) },
    ],
  }
  place.value = ''
  ride.value = ''
  placeField.value?.focus()
}
const strike = (i: number) =>
  (draft.value = { ...draft.value, points: draft.value.points.filter((_, k) => k !== i) })
</script>

<template>
  <div class="ride">
    <label class="place">
      <span class="small soft">Pinion stands, from the middle</span>
      <input
        ref="placeField"
        v-model="place"
        class="plain-field"
        type="text"
        autocomplete="off"
        maxlength="60"
        :aria-label="`Place ${draft.points.length + 1} of the pinion`"
        @keydown.enter.prevent="
          figure(place, 'depth') === undefined ? found.depth && emit('take', draft) : placed++
        "
      />
      <span v-if="placeSaid.state === 'not'" class="bad small">{{ placeSaid.why }}</span>
      <span v-else-if="placeSaid.state !== 'empty'" class="small mono">{{
        units.both(placeSaid.value, 3)
      }}</span>
    </label>
    <NotationField
      v-model="ride"
      v-model:unit="unit"
      :label="`Gear rides out, place ${draft.points.length + 1}`"
      kind="ride"
      :busy="busy"
      :focus-on="placed"
      hint="outward positive, no backlash"
      :error="error"
      @enter="add"
    />
    <svg
      v-if="picture"
      viewBox="0 0 300 90"
      role="img"
      aria-label="Rides without the wedge of the cones, by place"
    >
      <line x1="14" y1="84" x2="286" y2="84" class="axis" />
      <line
        v-if="picture.best !== undefined"
        :x1="picture.best"
        y1="6"
        :x2="picture.best"
        y2="84"
        class="best"
      />
      <circle v-for="([x, y], i) in picture.dots" :key="i" :cx="x" :cy="y" r="4" class="dot" />
    </svg>
    <p v-if="found.depth">
      Fits best at <strong class="mono live">{{ units.length(found.depth.depthMm, 3) }}</strong>
      <span class="mono small"> ± {{ units.digits(2 * found.depth.u, 3) }}</span>
    </p>
    <p v-else class="small soft">{{ found.why }}</p>
    <Button
      label="Take it as wanted"
      class="lamp"
      :disabled="!found.depth || busy"
      @click="emit('take', draft)"
    />
    <PointChips
      :points="read.map(([p, g]) => `${units.digits(p, 3)} rides ${units.digits(g, 3)}`)"
      what="place"
      @strike="strike"
    />
  </div>
</template>

<style scoped>
.ride {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.5rem;
  margin-top: 0.5rem;
}
.place {
  display: grid;
  gap: 0.1rem;
}
.bad {
  color: var(--out);
}
.axis {
  stroke: var(--line-strong);
}
.best {
  stroke: var(--lamp);
  stroke-width: 3;
}
.dot {
  fill: var(--ink);
}
</style>
