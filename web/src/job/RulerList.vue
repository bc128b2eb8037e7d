<script setup lang="ts">
import { hasLimit, isReadable } from '@moray/core/setting/assess'
import { unitOf } from '@moray/core/setting/measures'
import type { ShimPlan } from '@moray/core/setting/shim-solve'
import { computed } from 'vue'
import VerdictMark from '../ui/VerdictMark.vue'
import WindowRuler from '../ui/WindowRuler.vue'
import { useUnits } from '../ui/units.ts'
import { decimalsOf, shownMeasures } from './setting-view.ts'
import type { ShownBuild, ShownJob } from './shown-job.ts'

/** Every measure of a build with its window: what was read, and where the plans would lead. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  /** The plan that is being looked at, and those beside it by rank. */
  preview: ShimPlan | null
  plans: readonly ShimPlan[]
  /** Id of the place where the hand is. */
  lit: string
}>()
const emit = defineEmits<{ go: [id: string] }>()

const units = useUnits()
const rows = computed(() =>
  shownMeasures(props.job.sheet, props.build).map((m) => {
    const state = props.build.assessment.measures[m.id]!
    const predicted = props.preview?.predicted[m.id] ?? props.build.plan?.predicted[m.id]
    const others = props.plans.flatMap((p, i) => {
      const value = p.predicted[m.id]?.value
      return p === props.preview || value === undefined ? [] : [{ rank: i + 1, value }]
    })
    return { measure: m, state, predicted, others, show: units.of(unitOf(m)) }
  }),
)
</script>

<template>
  <ul class="rulers" :class="{ many: rows.length > 3 }">
    <li v-for="r in rows" :key="r.measure.id" :class="{ lit: lit === `measure:${r.measure.id}` }">
      <button type="button" class="what" @click="emit('go', `measure:${r.measure.id}`)">
        <span class="label">{{ r.measure.label }}</span>
        <VerdictMark :verdict="r.state.judgement?.verdict" />
        <span v-if="r.state.carried" class="small soft">from the trial before</span>
      </button>
      <p v-if="!hasLimit(r.state.window)" class="small soft">
        <template v-if="!isReadable(job.sheet, r.measure)"
          >the sheet does not say yet how it is measured</template
        >
        <template v-else-if="r.measure.kind === 'depth' && r.measure.nominal === 'of-the-pair'"
          >its pair says where it should be; that is not found yet</template
        >
        <template v-else-if="!r.state.judgement">no window on the sheet yet</template>
      </p>
      <WindowRuler
        v-else
        :label="r.measure.label"
        :window="r.state.window"
        :unit="unitOf(r.measure)"
        :target="r.state.window === r.measure.window ? r.measure.target : undefined"
        :decimals="decimalsOf(r.measure)"
        :reading="
          r.state.judgement && r.state.judgement.verdict !== 'no-window'
            ? {
                value: r.state.judgement.mean,
                U: r.state.judgement.U,
                verdict: r.state.judgement.verdict,
              }
            : undefined
        "
        :prediction="r.predicted"
        :others="r.others"
      />
      <p class="number mono">
        <template v-if="r.state.judgement">
          <span class="big">{{ r.show.digits(r.state.judgement.mean, decimalsOf(r.measure)) }}</span>
          <span class="small">± {{ r.show.say(r.state.judgement.U, 3) }}</span>
          <span class="small soft">{{ r.show.other(r.state.judgement.mean, decimalsOf(r.measure)) }}</span>
        </template>
        <span v-else class="soft">—</span>
      </p>
    </li>
  </ul>
</template>

<style scoped>
.rulers {
  border-top: 1px solid var(--line);
}
.rulers li {
  display: grid;
  grid-template-columns: 10rem minmax(0, 1fr) 7.2rem;
  gap: 0.8rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.25rem 0;
}
.rulers li.lit {
  box-shadow: inset 5px 0 0 var(--lamp);
}
.what {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  text-align: left;
  cursor: pointer;
  min-height: 44px;
  padding: 0.2rem 0.2rem 0.2rem 0.8rem;
  display: grid;
  gap: 0.15rem;
}
.what .label {
  font-weight: 700;
}
.what :deep(.mark) {
  font-size: var(--t-small);
}
.number {
  display: grid;
  text-align: right;
  line-height: 1.2;
}
.number .big {
  font-size: 1.75rem;
}
.many .number .big {
  font-size: 1.35rem;
}
.many .what {
  line-height: 1.15;
}
.many .what .label {
  font-size: var(--t-small);
}
@media (max-width: 620px) {
  .rulers li {
    grid-template-columns: 1fr auto;
  }
  .rulers li :deep(.ruler) {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
