<script setup lang="ts">
import type { ShownBuild, ShownJob } from './shown-job.ts'
import { settableAdjusters } from '@moray/core/drives/sheet'
import { settingMeasures, unitOf, type SetMeasure } from '@moray/core/setting/measures'
import { shaftsOf } from '@moray/core/setting/shaft-stations'
import { computed } from 'vue'
import VerdictMark from '../ui/VerdictMark.vue'
import { useUnits } from '../ui/units.ts'
import { buildName, decimalsOf, dueFocus, focusId, setText } from './setting-view.ts'

/** The rounds of this job: what was found, each trial, and within the open one every stack and reading. */
const props = defineProps<{ job: ShownJob; build: ShownBuild; focus: string }>()
defineEmits<{ go: [at: string | undefined, build?: number] }>()

const units = useUnits()
const shown = (m: SetMeasure, value: number | undefined) =>
  value === undefined ? '' : units.of(unitOf(m)).digits(value, decimalsOf(m))
const stacks = computed(() => settableAdjusters(props.job.sheet))
const shafts = (b: ShownBuild) => shaftsOf(props.job.sheet, b.state).filter((s) => s.stations.length)
const due = computed(() => focusId(dueFocus(props.job.sheet, props.build)))
const accepted = computed(() => props.job.acceptance?.build)
</script>

<template>
  <ol>
    <li v-for="b in job.builds" :key="b.number" class="round" :class="{ open: b === build }">
      <button
        type="button"
        class="name"
        :aria-expanded="b === build"
        @click="$emit('go', undefined, b.number)"
      >
        {{ buildName(b) }}
        <span v-if="accepted === b.number" class="small">as built</span>
        <span v-else-if="b.plan?.probability != null" class="small soft"
          >promised {{ Math.round(b.plan.probability * 100) }} %</span
        >
      </button>
      <ul v-if="b === build">
        <li v-for="a in stacks" :key="a.id">
          <button
            type="button"
            :class="{ at: focus === `stack:${a.id}`, due: due === `stack:${a.id}` }"
            @click="$emit('go', `stack:${a.id}`, b.number)"
          >
            <span>{{ a.label }}</span>
            <span class="mono">{{ setText(a, b.state.stacks[a.id], units) }}</span>
          </button>
        </li>
        <li v-for="m in settingMeasures(job.sheet)" :key="m.id">
          <button
            type="button"
            :class="{ at: focus === `measure:${m.id}`, due: due === `measure:${m.id}` }"
            @click="$emit('go', `measure:${m.id}`, b.number)"
          >
            <span
              >{{ m.label }}
              <span class="small soft">{{
                b.asked.includes(m) || b.assessment.measures[m.id]!.count
                  ? `${b.assessment.measures[m.id]!.count}/${m.readings}`
                  : props.job.plan.disturbed.includes(m.id)
                    ? 'once it is apart'
                    : 'not disturbed'
              }}</span></span
            >
            <span class="mono value">
              <VerdictMark bare :verdict="b.assessment.measures[m.id]!.judgement?.verdict" />
              {{ shown(m, b.assessment.measures[m.id]!.judgement?.mean) }}
            </span>
          </button>
        </li>
        <li v-if="shafts(b).length" class="shafts">
          <details :open="focus.startsWith('runout:')">
            <summary>Runout of shafts</summary>
            <button
              v-for="s in shafts(b)"
              :key="s.axis"
              type="button"
              :class="{ at: s.stations.some((x) => x.measure.id === focus) }"
              @click="$emit('go', s.stations[0]!.measure.id, b.number)"
            >
              <span>{{ job.sheet.axes.find((a) => a.id === s.axis)!.label }}</span>
              <VerdictMark bare :verdict="s.verdict" />
            </button>
          </details>
        </li>
        <li>
          <button
            type="button"
            :class="{ at: focus === 'decide', due: due === 'decide' && accepted !== b.number }"
            @click="$emit('go', 'decide', b.number)"
          >
            <span>{{ accepted === b.number ? 'Accepted as built' : 'Decide' }}</span>
          </button>
        </li>
      </ul>
    </li>
  </ol>
</template>

<style scoped>
button {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  width: 100%;
  min-height: 44px;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.5rem;
  text-align: left;
  padding: 0.2rem 0.5rem;
  cursor: pointer;
  line-height: 1.25;
}
button:hover {
  background: var(--lamp-soft);
}
.round {
  border-top: 1px solid var(--line);
}
.round:last-child {
  border-bottom: 1px solid var(--line);
}
.name {
  font-weight: 700;
}
.round.open > .name {
  border-bottom: 2px solid var(--ink);
}
summary {
  min-height: 44px;
  padding: 0.7rem 0.5rem;
  cursor: pointer;
}
.value {
  display: inline-flex;
  align-items: center;
  gap: 0.25rem;
}
.at {
  box-shadow: inset 0 0 0 2px var(--ink);
}
.due {
  background: var(--lamp);
  color: var(--lamp-ink);
}
.due:hover {
  background: var(--lamp);
}
.due .soft,
.due :deep(.mark) {
  color: inherit;
}
</style>
