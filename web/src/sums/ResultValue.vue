<script setup lang="ts">
import { useUnits } from '../ui/units.ts'
import { isShown, labelOf, unitOf, wordOf } from './names.ts'
import VerdictMark from '../ui/VerdictMark.vue'
import { computed } from 'vue'

/** A result of any shape: numbers large, lists short, tables nested. */
const props = defineProps<{ value: unknown; unit?: string | undefined; deep?: boolean }>()

const MARKS = ['in', 'out', 'too-close'] as const
const mark = computed(() => MARKS.find((m) => m === props.value))
const units = useUnits()
const number = computed(() =>
  typeof props.value === 'number' ? units.value(props.value, props.unit ?? '') : '',
)
const list = computed(() => (Array.isArray(props.value) ? (props.value as unknown[]) : null))
const flat = computed(() => list.value?.every((v) => typeof v !== 'object' || v === null))
const table = computed(() =>
  props.value && typeof props.value === 'object' && !list.value
    ? Object.entries(props.value as Record<string, unknown>).filter(([k]) => isShown(k))
    : null,
)
const MOST = 24
</script>

<template>
  <span v-if="mark"><VerdictMark :verdict="mark" /></span>
  <span v-else-if="typeof value === 'number'" class="mono" :class="{ big: !deep }"
    >{{ number.split(' · ')[0]
    }}<span v-if="number.includes(' · ')" class="small unit">· {{ number.split(' · ')[1] }}</span></span
  >
  <span v-else-if="typeof value === 'boolean'">{{ value ? 'yes' : 'no' }}</span>
  <span v-else-if="value === null || value === undefined" class="soft">none</span>
  <span v-else-if="list && flat" class="mono wrap">{{
    list.length ? list.map((v) => (typeof v === 'number' ? Number(v.toPrecision(4)) : v)).join(', ') : 'none'
  }}</span>
  <ol v-else-if="list">
    <li v-for="(v, i) in list.slice(0, MOST)" :key="i"><ResultValue :value="v" :unit="unit" deep /></li>
    <li v-if="list.length > MOST" class="small soft">
      and {{ list.length - MOST }} more; all of them in the JSON
    </li>
  </ol>
  <dl v-else-if="table">
    <div v-for="[k, v] in table" :key="k">
      <dt>{{ labelOf(k) }}</dt>
      <dd><ResultValue :value="v" :unit="unitOf(k) ?? unit" deep /></dd>
    </div>
  </dl>
  <strong v-else>{{ wordOf(String(value)) }}</strong>
</template>

<style scoped>
.unit {
  margin-left: 0.4rem;
}
.big {
  font-size: 1.75rem;
}
.wrap {
  white-space: normal;
}
ol {
  display: grid;
  gap: 0.3rem;
}
li {
  border-left: 2px solid var(--line);
  padding-left: 0.6rem;
}
dl {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1.1rem;
}
dl div {
  display: flex;
  gap: 0.4rem;
  align-items: baseline;
  flex-wrap: wrap;
}
dt {
  font-size: var(--t-small);
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
</style>
