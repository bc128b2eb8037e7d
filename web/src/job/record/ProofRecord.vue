<script setup lang="ts">
import { heldTests, partedIn, type HeldTest, type Parted } from '@moray/core/job/proofs'
import { plainDigits } from '@moray/core/units/format'
import { computed } from 'vue'
import { useUnits } from '../../ui/units.ts'
import { showTime } from '../../ui/times.ts'
import type { ShownJob } from '../shown-job.ts'

/** What was tested and proved: every pressure test with its rate and limit, and all that was parted with what proves it. */
const props = defineProps<{ job: ShownJob }>()
const units = useUnits()
const kpa = (v: number | undefined) => (v === undefined ? '?' : units.value(v, 'kPa'))
const tests = computed(() => heldTests(props.job))
const parted = computed(() => partedIn(props.job))

const TESTS: Record<HeldTest['test'], string> = {
  'leak-found': 'As found',
  'leak-found-joined': 'As found, both cases',
  'leak-case': 'This case',
  'leak-joined': 'Both cases joined',
}
const VERDICTS: Record<string, string> = {
  tight: 'tight',
  leaks: 'leaks',
  'too-short': 'too short to tell',
  invalid: 'cannot be: the pressure rose',
  passes: 'passes',
  fails: 'fails',
  'too-close': 'too close to call',
  attempt: 'no test: it does not count',
  alone: 'this case only',
}
const verdictOf = (t: HeldTest) =>
  [
    t.byManual && `by the manual: ${VERDICTS[t.byManual] ?? t.byManual}`,
    t.verdict && `by the rate: ${VERDICTS[t.verdict] ?? t.verdict}`,
  ]
    .filter(Boolean)
    .join('; ') ||
  (t.word && (VERDICTS[t.word] ?? t.word)) ||
  'not read to the end'
const limitOf = ({ plan }: HeldTest) =>
  [
    !plan && 'by the manual of the unit',
    plan?.allowedDrop && `${kpa(plan.allowedDrop.kpa)} in ${plan.allowedDrop.minutes ?? plan.holdMin} min`,
    plan?.allowedMlPerMin !== undefined && `${plainDigits(plan.allowedMlPerMin)} ml/min`,
  ]
    .filter(Boolean)
    .join(', ')
const PROOFS: Record<Parted['proof'], string> = {
  test: 'proved by the pressure test',
  run: 'dry after the run',
  reading: 'read and accepted',
  seated: 'the same parts, seated and tightened; nobody can read it as it stands',
  none: 'not proved',
}
</script>

<template>
  <section v-if="tests.length" aria-label="Pressure tests">
    <h2>Pressure tests</h2>
    <table class="ledger fine tests">
      <thead>
        <tr>
          <th scope="col">Test</th>
          <th scope="col">Held</th>
          <th scope="col">Verdict</th>
          <th scope="col">Leak rate</th>
          <th scope="col">Limit</th>
          <th scope="col">By</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in tests" :key="t.closing.id" :class="{ gone: t.closing.takenBack }">
          <td>{{ TESTS[t.test] }}</td>
          <td>
            <template v-if="t.plan"
              >{{ kpa(t.startKpa) }} to {{ kpa(t.endKpa) }}, {{ t.minutes ?? '?' }} min</template
            >
          </td>
          <td>{{ verdictOf(t) }}</td>
          <td>
            <template v-if="t.mlPerMin !== undefined"
              >{{ t.mlPerMin.toFixed(2) }} ± {{ (t.uMlPerMin ?? 0).toFixed(2) }} ml/min</template
            ><template v-else>not known</template>
          </td>
          <td>{{ limitOf(t) }}</td>
          <td>{{ t.closing.by }}, {{ showTime(t.closing.at) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
  <section v-if="parted.length" aria-label="Opened and proved">
    <h2>Opened, and how it was proved</h2>
    <table class="ledger fine">
      <tbody>
        <tr v-for="p in parted" :key="p.id">
          <th scope="row">{{ p.name }}</th>
          <td>
            <strong v-if="p.proof === 'none'">{{ PROOFS.none }}</strong
            ><template v-else>{{ PROOFS[p.proof] }}</template>
          </td>
          <td>
            <template v-if="p.at">{{ p.by ? `${p.by}, ` : '' }}{{ showTime(p.at) }}</template>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  margin-top: 1.5rem;
}
/* on a phone six columns are none: each test is a block of lines */
@media (max-width: 40rem) {
  .tests thead {
    display: none;
  }
  .tests tr {
    display: block;
    padding: 0.4rem 0;
    border-bottom: 1px solid var(--line);
  }
  .tests td {
    display: block;
    border: 0;
    padding: 0.1rem 0;
  }
  .tests td:first-child {
    font-weight: 700;
  }
}
</style>
