<script setup lang="ts">
import type { ShownJob } from '../shown-job.ts'
import { computed, ref, watch } from 'vue'
import { markOf, type RouteView } from './route-view.ts'
import StepMark from './StepMark.vue'

/** The route: stages with their steps; the stage that is looked at is open, the others tell how far they are. */
const props = defineProps<{ job: ShownJob; view: RouteView; current: string }>()
defineEmits<{ go: [step: string] }>()
const due = computed(() => props.view.progress.due)
const stageOf = (step: string) => props.view.stages.find((s) => s.steps.some((x) => x.step.id === step))?.id
const open = ref(new Set<string>())
watch(
  () => props.current,
  (now) => {
    const stage = stageOf(now)
    if (stage) open.value = new Set([stage])
  },
  { immediate: true },
)
function toggle(id: string) {
  const next = new Set(open.value)
  if (!next.delete(id)) next.add(id)
  open.value = next
}
</script>

<template>
  <ol class="stages">
    <li v-for="s in view.stages" :key="s.id" :class="{ whole: s.done === s.steps.length }">
      <button type="button" class="stage" :aria-expanded="open.has(s.id)" @click="toggle(s.id)">
        <span class="name">{{ s.label }}</span>
        <span class="mono small" :class="{ soft: s.done < s.steps.length }"
          >{{ s.done }}/{{ s.steps.length }}</span
        >
      </button>
      <ol v-if="open.has(s.id)" class="steps">
        <li v-for="x in s.steps" :key="x.step.id">
          <button
            type="button"
            :class="{ here: x.step.id === current }"
            :aria-current="x.step.id === current ? 'step' : undefined"
            @click="$emit('go', x.step.id)"
          >
            <StepMark :state="markOf(job, x, due)" bare />
            <span>{{ x.step.what }}</span>
          </button>
        </li>
      </ol>
    </li>
  </ol>
</template>

<style scoped>
.stages > li {
  border-top: 1px solid var(--line);
}
.stages > li:last-child {
  border-bottom: 1px solid var(--line);
}
button {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  width: 100%;
  text-align: left;
  cursor: pointer;
  min-height: 44px;
  display: flex;
  align-items: center;
  gap: 0.5rem;
  padding: 0.2rem 0.3rem;
}
.stage {
  justify-content: space-between;
  font-weight: 700;
}
.whole .stage .name {
  font-weight: 400;
}
.steps {
  padding-bottom: 0.4rem;
}
.steps button {
  font-size: var(--t-small);
  line-height: 1.25;
}
.steps button.here {
  box-shadow: inset 5px 0 0 var(--lamp);
  background: var(--sheet);
  padding-left: 0.8rem;
  font-weight: 700;
}
button:hover {
  background: var(--lamp-soft);
}
</style>
