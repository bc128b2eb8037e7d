<script setup lang="ts">
import type { Adjuster } from '@moray/core/drives/sheet'
import { lockStepMm } from '@moray/core/drives/sheet'
import { stepsLeft, turnedBetween, turnedText } from '@moray/core/setting/turned'
import { computed } from 'vue'
import { useUnits } from '../../ui/units.ts'
import { buildName } from '../setting-view.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'

/** Where a threaded carrier stands, round by round, and how it is turned. It is set with the plan for the next round. */
const props = defineProps<{ job: ShownJob; build: ShownBuild; carrier: Adjuster }>()
defineEmits<{ decide: [] }>()

const units = useUnits()
const at = (b: ShownBuild) => b.state.stacks[props.carrier.id]!
const way = computed(() => {
  const notch = lockStepMm(props.carrier)
  return props.carrier.notches
    ? `${props.carrier.notches} notches to a turn of ${units.both(props.carrier.leadMm!, 2)}: one notch is ${units.both(notch, 3)}.`
    : `A turn is ${units.both(props.carrier.leadMm!, 2)}; it locks anywhere.`
})
const left = computed(() => stepsLeft(props.carrier, at(props.build)))
const rounds = computed(() =>
  props.job.builds.map((b, i) => ({
    number: b.number,
    name: buildName(b),
    since: turnedText(turnedBetween(props.carrier, props.carrier.startMm, at(b))),
    then: i ? turnedText(turnedBetween(props.carrier, at(props.job.builds[i - 1]!), at(b))) : '',
  })),
)
</script>

<template>
  <div>
    <h2>{{ carrier.label }}</h2>
    <p class="small soft">{{ way }}</p>
    <ul class="say">
      <li>Mark carrier and case before it moves: where it was found is counted from.</li>
      <li>From loose to tight, so that the play of the thread always lies on one side.</li>
      <li>Bearing nut, then lock; read again after locking: it pulls.</li>
    </ul>
    <table class="ledger">
      <caption class="sr-only">
        Where it stood, round by round
      </caption>
      <thead>
        <tr>
          <th scope="col">round</th>
          <th scope="col">turned</th>
          <th scope="col">since found</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rounds" :key="r.number" :class="{ here: r.number === build.number }">
          <th scope="row">{{ r.name }}</th>
          <td>{{ r.then || '—' }}</td>
          <td>{{ r.number ? r.since : 'the mark' }}</td>
        </tr>
      </tbody>
    </table>
    <p class="small soft">Left in the thread: {{ left.in }} in, {{ left.out }} out.</p>
    <button type="button" class="texty" @click="$emit('decide')">To the plan</button>
  </div>
</template>

<style scoped>
.say {
  margin: 0.6rem 0;
  padding-left: 1.1rem;
  list-style: square;
}
tr.here {
  box-shadow: inset 5px 0 0 var(--lamp);
}
tr.here th {
  padding-left: 0.6rem;
}
</style>
