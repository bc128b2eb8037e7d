<script setup lang="ts">
import { versionText } from '../../drives/version-text.ts'
import { showClock, showTime } from '../../ui/times.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import { FAMILIES, isCarrier, settableAdjusters } from '@moray/core/drives/sheet'
import { useUnits } from '../../ui/units.ts'
import { eventText } from '@moray/core/job/event-text'
import { waitsText } from '@moray/core/job/standing-text'
import { computed } from 'vue'
import VerdictMark from '../../ui/VerdictMark.vue'
import ContactRecord from './ContactRecord.vue'
import ProofRecord from './ProofRecord.vue'
import RouteRecord from './RouteRecord.vue'
import type { ClosingRecord, EventEntry } from '@moray/contract/replies'
import { turnedBetween, turnedText } from '@moray/core/setting/turned'
import { unitOf, type SetMeasure } from '@moray/core/setting/measures'
import ShaftRecord from './ShaftRecord.vue'
import { useOwn } from '../../stores/own.ts'
import { isTorqueUnit, type ReadingUnit } from '@moray/contract/requests/reading-units'
import RoundRecord from './RoundRecord.vue'
import { buildName, decimalsOf, shownMeasures, stackOf } from '../setting-view.ts'

/** The record of a job, as it is printed: of this shop, or as another one has written it. */
const props = defineProps<{ job: ShownJob; events: EventEntry[]; closings: ClosingRecord[] | null }>()
const job = computed(() => props.job)
const own = useOwn()
const at = showTime
const units = useUnits()
const stacks = computed(() => settableAdjusters(job.value.sheet))
const built = computed(() => job.value.builds.find((b) => b.number === job.value.acceptance?.build))
const touched = (b: ShownBuild) => b.stacks.length > 0 || b.readings.length > 0
const rounds = computed(() => job.value.builds.filter(touched))
/** Gauges as they were when they were read, which the readings carry; one that was changed in between stands twice. */
const usedGauges = computed(() => {
  const used = job.value.builds.flatMap((b) =>
    b.readings.map((r) => ({
      name: r.gaugeName,
      ...r.gauge,
      overdue: r.gaugeOverdue,
      unit: isTorqueUnit(r.unit as ReadingUnit) ? ('Nm' as const) : ('mm' as const),
    })),
  )
  return [...new Map(used.map((g) => [JSON.stringify(g), g])).values()]
})
const calibrationText = (overdue: boolean | null) =>
  overdue === null ? 'not known' : overdue ? 'overdue when it was read' : 'valid when it was read'
/** A figure of a gauge in the unit of what it reads: a wrench has no millimetres. */
const gaugeFigure = (value: number, unit: 'mm' | 'Nm') =>
  unit === 'mm' ? units.exact(value) : units.of('Nm').both(value, 3)
/** Readings, steps, parts and grades fill the event list; the tables above show them one by one already. */
const SHOWN_ABOVE = ['reading', 'step', 'row', 'row-off', 'row-order', 'grade', 'finding', 'picture']
const history = computed(() => props.events.filter((e) => !SHOWN_ABOVE.includes(e.kind)))
/** How far a clock had run back, in the largest unit that says it. */
const backBy = (s: number) =>
  s < 120
    ? `${Math.round(s)} s`
    : s < 7200
      ? `${Math.round(s / 60)} min`
      : s < 172_800
        ? `${Math.round(s / 3600)} h`
        : `${Math.round(s / 86_400)} days`
const show = (m: SetMeasure) => units.of(unitOf(m))
/** What was filled in, and how much, as the filling step says. */
const filled = computed(() => {
  const { 'fill.ml': ml, 'fill.what': what } = job.value.facts
  return [typeof ml === 'number' ? units.value(ml, 'ml') : '', what ?? ''].filter(Boolean).join(', ')
})
</script>

<template>
  <article class="record">
    <p v-if="job.ways.rules.heading" class="shop">{{ job.ways.rules.heading }}</p>
    <header>
      <div>
        <h1>Record <span class="mono">{{ job.number }}</span></h1>
        <p>{{ job.sheet.name }}, {{ FAMILIES[job.sheet.family] }}</p>
      </div>
      <slot name="acts" />
    </header>
    <dl class="facts">
      <div>
        <dt>Serial</dt>
        <dd class="mono">{{ job.serial }}</dd>
      </div>
      <div>
        <dt>Boat</dt>
        <dd>{{ job.boat }}</dd>
      </div>
      <div>
        <dt>Owner</dt>
        <dd>{{ job.owner }}</dd>
      </div>
      <div>
        <dt>Water, hours</dt>
        <dd>{{ job.water }}<template v-if="job.hours !== null">, {{ job.hours }} h</template></dd>
      </div>
      <div v-if="filled">
        <dt>Filled</dt>
        <dd>{{ filled }}</dd>
      </div>
      <div>
        <dt>Opened</dt>
        <dd>{{ at(job.openedAt) }}</dd>
      </div>
      <div>
        <dt>Sheet</dt>
        <dd>
          {{ job.sheet.name }},
          {{
            versionText(job.sheet) + (job.sheet.edition === undefined ? ` (state ${job.sheet.version})` : '')
          }}{{ job.sheet.demo ? ' (demo, invented numbers)' : '' }}
        </dd>
      </div>
    </dl>
    <p v-if="job.complaint" class="complaint">{{ job.complaint }}</p>

    <section class="built" aria-label="As built">
      <h2>As built</h2>
      <p v-if="!built" class="soft">Nothing accepted yet. {{ waitsText(job.waits, showClock) }}.</p>
      <template v-else>
        <p>
          {{ buildName(built) }}, accepted by {{ job.acceptance!.by }} on {{ at(job.acceptance!.at)
          }}<template v-if="job.acceptance!.signed">, signed with the code of that name</template
          ><template v-if="job.acceptance!.reason">: {{ job.acceptance!.reason }}</template>
        </p>
        <ul class="figures">
          <li v-for="a in stacks" :key="a.id">
            <span class="small soft">{{ a.label }}</span>
            <span v-if="isCarrier(a)" class="figure">{{
              turnedText(turnedBetween(a, a.startMm, built.state.stacks[a.id]!))
            }}</span>
            <template v-else-if="stackOf(built, a.id)">
              <span class="figure mono">{{ units.digits(stackOf(built, a.id)!.thicknessMm, 3) }}</span>
              <span class="small mono"
                >{{ units.lengthUnit.value }} · {{ units.other(stackOf(built, a.id)!.thicknessMm, 3) }}</span
              >
            </template>
            <span v-else class="figure">—</span>
          </li>
          <li v-for="m in shownMeasures(job.sheet, built)" :key="m.id">
            <span class="small soft">{{ m.label }}</span>
            <template v-if="built.assessment.measures[m.id]!.judgement">
              <span class="figure mono">{{
                show(m).digits(built.assessment.measures[m.id]!.judgement!.mean, decimalsOf(m))
              }}</span>
              <span class="small mono"
                >± {{ show(m).say(built.assessment.measures[m.id]!.judgement!.U, 3) }} ·
                {{ show(m).other(built.assessment.measures[m.id]!.judgement!.mean, decimalsOf(m)) }}</span
              >
            </template>
            <span v-else class="figure">—</span>
            <VerdictMark :verdict="built.assessment.measures[m.id]!.judgement?.verdict" />
          </li>
        </ul>
      </template>
    </section>

    <ContactRecord :job="job" />
    <ShaftRecord :job="job" />
    <ProofRecord :job="job" />
    <RouteRecord :job="job" :closings="closings" />

    <RoundRecord v-for="b in rounds" :key="b.number" :job="job" :build="b" />
    <p v-if="!rounds.length" class="soft">No stack and no reading has been entered on this job yet.</p>

    <section v-if="usedGauges.length" aria-label="Gauges used">
      <h2>Gauges used</h2>
      <table class="ledger fine">
        <thead>
          <tr>
            <th scope="col">Gauge</th>
            <th scope="col">Resolution</th>
            <th scope="col">Permissible error</th>
            <th scope="col">Calibration</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(g, i) in usedGauges" :key="i">
            <td>{{ g.name }}</td>
            <td class="mono">{{ gaugeFigure(g.resolution, g.unit) }}</td>
            <td class="mono">± {{ gaugeFigure(g.mpe, g.unit) }}</td>
            <td>{{ calibrationText(g.overdue) }}</td>
          </tr>
        </tbody>
      </table>
    </section>

    <section aria-label="History" tabindex="0">
      <h2>What happened</h2>
      <ol class="history">
        <li v-for="e in history" :key="e.id">
          <span class="small soft">{{ at(e.at) }}, {{ e.by }}</span> <span>{{
            eventText(e, own.first)
          }}</span>
          <strong v-if="e.clockBackS !== null" class="small">
            the clock had run back by {{ backBy(e.clockBackS) }}</strong
          >
        </li>
      </ol>
    </section>
    <section class="sign" aria-label="To be signed">
      <p>Work done by</p>
      <p>Received by</p>
    </section>
    <footer class="small soft">
      U is the expanded uncertainty (k = 2); verdicts by ISO 14253-1. The drive's own manual stands above this
      record.
    </footer>
  </article>
</template>

<style scoped>
.record {
  max-width: 68rem;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: start;
}
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(13rem, 1fr));
  gap: 0.3rem 1.2rem;
  margin: 0.7rem 0;
  border-top: 2px solid var(--ink);
  padding-top: 0.6rem;
}
dt {
  font-size: var(--t-small);
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
section {
  margin-top: 1.4rem;
  break-inside: avoid-page;
  overflow-x: auto;
}
.built {
  margin-bottom: 1.4rem;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.8rem;
  margin-top: 0.5rem;
}
.figures li {
  display: grid;
  border-left: 3px solid var(--ink);
  padding-left: 0.6rem;
}
.figure {
  font-size: 1.75rem;
  line-height: 1.2;
}
.history li {
  display: grid;
  grid-template-columns: 17rem 1fr;
  gap: 0.8rem;
  border-bottom: 1px solid var(--line);
  padding: 0.25rem 0;
}
/* room for a hand to sign on paper */
.sign {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2rem;
}
.sign p {
  border-top: 1px solid var(--ink);
  margin-top: 3rem;
  padding-top: 0.2rem;
  font-size: var(--t-small);
}
.shop {
  white-space: pre-line;
  font-weight: 700;
  margin-bottom: 0.6rem;
}
footer {
  margin-top: 1.2rem;
}
@media (max-width: 620px) {
  .history li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
@media print {
  .figure {
    font-size: 14pt;
  }
}
</style>
