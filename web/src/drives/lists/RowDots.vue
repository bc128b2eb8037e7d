<script setup lang="ts">
import { computed } from 'vue'
import { placeDots } from '../../drawing/row-dots.ts'
import type { Point } from '../../drawing/section.ts'

/** A row of a list, and where it is on the drawing. */
export interface DottedRow {
  /** List and id. */
  key: string
  name: string
  place?: string | undefined
  /** It has this place itself; else it is where its neighbours are. */
  own: boolean
  /** The hand is in it. */
  lit: boolean
  /** It can be picked for the edge that is typed. */
  wanted: boolean
}

/** Rows of a list on the section drawing: each at its place, dashed where that is only derived from its neighbours. The list says the same in words. */
const props = defineProps<{
  rows: readonly DottedRow[]
  places: ReadonlyMap<string, Point>
  width: number
  height: number
}>()
const emit = defineEmits<{ pick: [key: string] }>()
const dots = computed(() => {
  const byKey = new Map(props.rows.map((r) => [r.key, r]))
  const wanted = props.rows.map((r) => {
    const at = r.place === undefined ? undefined : props.places.get(r.place)
    return { id: r.key, ...(at ? { at } : {}) }
  })
  return placeDots(wanted, props).map((d) => ({ ...d, row: byKey.get(d.id)! }))
})
/** The name stands on the side where there is room. */
const leftward = ([x]: Point) => x > props.width * 0.6
</script>

<template>
  <g aria-hidden="true">
    <g
      v-for="d in dots"
      :key="d.id"
      class="dot"
      :class="{ lit: d.row.lit, wanted: d.row.wanted, derived: !d.row.own, nowhere: !d.placed }"
      :data-row="d.id"
      @click.stop="emit('pick', d.id)"
    >
      <title>{{ d.row.name }}</title>
      <circle :cx="d.at[0]" :cy="d.at[1]" r="11" class="hit" />
      <circle :cx="d.at[0]" :cy="d.at[1]" :r="d.row.lit ? 7 : 5" class="spot" />
    </g>
    <template v-for="d in dots" :key="`name ${d.id}`">
      <text
        v-if="d.row.lit"
        :x="d.at[0] + (leftward(d.at) ? -11 : 11)"
        :y="d.at[1] + 4"
        :text-anchor="leftward(d.at) ? 'end' : 'start'"
      >
        {{ d.row.name }}
      </text>
    </template>
  </g>
</template>

<style scoped>
.dot {
  cursor: pointer;
}
.hit {
  fill: transparent;
}
.spot {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.derived .spot,
.nowhere .spot {
  stroke-dasharray: 2.5 2;
}
.wanted .spot {
  fill: var(--lamp-soft);
}
.lit .spot {
  fill: var(--lamp);
}
.dot:hover .spot {
  stroke-width: 3;
}
text {
  font-size: 13px;
  font-weight: 700;
  fill: var(--ink);
  stroke: var(--paper);
  stroke-width: 4;
  paint-order: stroke;
}
</style>
