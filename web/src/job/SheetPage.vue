<script setup lang="ts">
import { showTime } from '../ui/times.ts'
import Button from 'primevue/button'
import { computed } from 'vue'
import { useJob } from './shown-job.ts'
import { closingOf } from '@moray/core/job/closings'
import { answerWords, askedNow, routeView, cautionsNow, saidNow } from './route/route-view.ts'

/** The route on paper, for those who prefer a pencil: what, why, what to write down, and what is done already. */
const store = useJob()
const job = computed(() => store.job!)
const view = computed(() => routeView(job.value))
const print = () => window.print()
</script>

<template>
  <article class="paper">
    <header>
      <div>
        <h1>Step sheet <span class="mono">{{ job.number }}</span></h1>
        <p>{{ job.sheet.name }}, {{ job.serial }} · {{ job.boat }} · {{ job.water }} water</p>
      </div>
      <Button label="Print" class="quiet no-print" @click="print" />
    </header>
    <p class="small">The drive's own manual, local codes and licensed practice stand above this sheet.</p>
    <section v-for="s in view.stages" :key="s.id">
      <h2>{{ s.label }}</h2>
      <ol>
        <li v-for="x in s.steps" :key="x.step.id">
          <span class="box" aria-hidden="true">{{ x.state === 'done' ? '✓' : '' }}</span>
          <div>
            <p><strong>{{ x.step.what }}</strong> <span class="small soft">{{ x.step.why }}</span></p>
            <p v-if="x.step.holdPoint" class="small"><strong>Hold point:</strong> two words or a picture.</p>
            <ul v-if="saidNow(job, x.step).length" class="small said">
              <li v-for="i in saidNow(job, x.step)" :key="i.say">{{ i.say }}</li>
            </ul>
            <ul v-if="cautionsNow(job, x.step).length" class="small caution">
              <li v-for="c in cautionsNow(job, x.step)" :key="c.say">{{ c.say }}</li>
            </ul>
            <p v-if="closingOf(job.closings, x.step.id)" class="small">
              {{ closingOf(job.closings, x.step.id)!.by }},
              {{ showTime(closingOf(job.closings, x.step.id)!.at)
              }}<template v-if="closingOf(job.closings, x.step.id)!.reason"
                >; closed although not everything held:
                {{ closingOf(job.closings, x.step.id)!.reason }}</template
              >
            </p>
            <ul v-if="x.step.asks.length" class="asks small">
              <li
                v-for="a in askedNow(job, x.step, closingOf(job.closings, x.step.id)?.answers ?? {}).asks"
                :key="a.fact"
              >
                {{ a.label }}:
                <strong v-if="closingOf(job.closings, x.step.id)?.answers[a.fact] !== undefined">{{
                  answerWords(a, closingOf(job.closings, x.step.id)!.answers[a.fact]!)
                }}</strong>
                <span v-else-if="a.kind === 'choice'">{{
                  a.options.map((o) => `□ ${o.label}`).join('   ')
                }}</span>
                <span v-else-if="a.kind === 'tick'">□</span>
                <span v-else class="blank"></span>
              </li>
            </ul>
            <p v-if="x.step.tools.length || x.step.consumables.length" class="small soft">
              {{ [...x.step.tools, ...x.step.consumables].join(', ') }}
            </p>
          </div>
        </li>
      </ol>
    </section>
  </article>
</template>

<style scoped>
.paper {
  max-width: 60rem;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  align-items: start;
}
section {
  margin-top: 1rem;
}
ol > li {
  display: grid;
  grid-template-columns: 1.8rem minmax(0, 1fr);
  gap: 0.6rem;
  border-top: 1px solid var(--line);
  padding: 0.4rem 0;
  break-inside: avoid;
}
.said {
  list-style: disc;
  padding-left: 1.1rem;
}
.box {
  width: 1.4rem;
  height: 1.4rem;
  border: 1.5px solid var(--ink);
  display: grid;
  place-items: center;
}
.asks {
  display: grid;
  gap: 0.15rem;
  margin: 0.2rem 0;
}
.asks span {
  white-space: pre-wrap;
}
.blank {
  display: inline-block;
  width: 9rem;
  border-bottom: 1px solid var(--ink);
}
</style>
