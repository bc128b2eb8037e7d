<script setup lang="ts">
import type { Closing } from '@moray/core/job/record'
import type { StepProgress } from '@moray/core/route/progress'
import type { Instruct } from '@moray/core/route/route'
import { computed } from 'vue'
import TurnArrow from '../../ui/TurnArrow.vue'
import InstructList from './InstructList.vue'

/** What a step says before it asks: what to do and why, which way it turns, its caution, and what was tried before. */
const props = defineProps<{
  step: StepProgress
  said: readonly Instruct[]
  /** What could hurt somebody here. */
  cautions: readonly Instruct[]
  /** A pressure test that runs. */
  running: { minutes: number; left: number } | undefined
  attempts: readonly (Pick<Closing, 'id' | 'by'> & { why: string })[]
}>()

const definition = computed(() => props.step.step)
const open = computed(() => props.step.state !== 'done')
const turn = computed(() => definition.value.turn)
</script>

<template>
  <h2>{{ definition.what }}</h2>
  <p class="why">{{ definition.why }}</p>
  <p v-if="turn" class="turning">
    <TurnArrow :turn="turn.turn" />
    <span><strong>{{ turn.what }}: {{ turn.turn }} {{ turn.act }}.</strong> Left-hand thread.</span>
  </p>
  <p v-if="definition.holdPoint && open" class="hold">
    <strong>Hold point.</strong> Nobody sees this again once it is closed: two words, or a picture.
  </p>
  <InstructList :lines="said" />
  <p v-if="definition.attitude && open" class="small attitude">
    <span class="soft">Which way up</span> {{ definition.attitude }}
  </p>
  <div v-if="cautions.length" class="caution">
    <strong>Caution</strong>
    <ul>
      <li v-for="c in cautions" :key="c.say">{{ c.say }}</li>
    </ul>
  </div>
  <p v-if="running" class="running" role="timer">
    <span class="live mono">{{ running.minutes }} min</span>
    <span>{{
      running.left > 0 ? `running; hold ${running.left} min more` : 'held as long as the sheet asks'
    }}</span>
  </p>
  <ul v-if="attempts.length && open" class="attempts small" aria-label="Attempts that did not count">
    <li v-for="a in attempts" :key="a.id"><strong>Attempt, {{ a.by }}:</strong> {{ a.why }}</li>
  </ul>
</template>

<style scoped>
h2 {
  font-size: var(--t-title);
}
.why {
  margin: 0.2rem 0 0.6rem;
  color: var(--ink-soft);
}
.caution {
  margin-bottom: 0.7rem;
}
.hold {
  border: 2px solid var(--ink);
  border-left-width: 8px;
  padding: 0.3rem 0.7rem;
  margin-bottom: 0.6rem;
}
.attitude {
  margin-bottom: 0.5rem;
}
.turning {
  display: flex;
  gap: 0.9rem;
  align-items: center;
  font-size: var(--t-lead);
  margin-bottom: 0.6rem;
}
.running {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
  border-left: 6px solid var(--lamp);
  padding-left: 0.7rem;
  margin-bottom: 0.7rem;
}
.attempts li {
  border-left: 4px solid var(--out);
  padding-left: 0.6rem;
  margin-bottom: 0.4rem;
}
</style>
