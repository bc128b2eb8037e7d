<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { FLANKS, shapeOf, type Flank } from '@moray/core/gears/flank'
import { placeOf, type Outline } from '@moray/core/contact/marked'
import Button from 'primevue/button'
import { isOver } from '@moray/core/job/record'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import FlankDrawing from '../../drawing/FlankDrawing.vue'
import { toeShareOf } from '@moray/core/contact/photo'
import { contactPairs } from '@moray/core/contact/as-set'
import { earlierOf, marksOf, nextMark, PLACES, readBackOf } from '@moray/core/contact/read-back'
import { useStorage } from '@vueuse/core'
import { showDate } from '../../ui/times.ts'
import { useReferencePatterns } from '../../wire/queries.ts'
import { useContact } from '../../workers/use-contact.ts'
import { useJobWrite } from '../../writing/use-job-write.ts'
import { buildName } from '../setting-view.ts'
import { useJob, type ShownBuild } from '../shown-job.ts'
import { endsOf, ovalOf, pairsUp, type Ends } from './mark-view.ts'
import { asked, assumedText } from './pair-view.ts'
import PhotoMark from './PhotoMark.vue'
import PushedFlank from './PushedFlank.vue'
import ReadBack from './ReadBack.vue'

/** What draws in the round is heavy: it comes when somebody wants to turn the tooth. */
const ToothPair = defineAsyncComponent(() => import('../../drawing/ToothPair.vue'))

/** The contact pattern of a pair of gears: as computed from what the gauges say, and as it is seen; the one beside the other. */
const store = useJob()
const route = useRoute()
const router = useRouter()
const write = useJobWrite()

const job = computed(() => store.job!)
const build = computed(() => job.value.builds.at(-1)!)
const open = computed(() => !isOver(job.value.state))
/** What is seen now was not known when the build was accepted. */
const later = computed(() => job.value.acceptance?.build === build.value.number)
const pairs = computed(() => contactPairs(job.value.sheet, build.value.assessment))
const shown = computed(() => pairs.value.find((p) => p.pair.id === route.query.pair) ?? pairs.value[0])
/** What is computed of a pair is shown on drive and coast, so it waits until somebody says which flank that is. */
const computedPatches = useContact(() =>
  asked(
    job.value.sheet,
    pairs.value.filter((p) => p.teeth.pushed !== undefined),
  ),
)
const marks = computed(() => (shown.value ? marksOf(build.value.patterns, shown.value.pair.id) : {}))
const seenOn = (b: ShownBuild) => ({ stacks: b.state.stacks, patterns: b.patterns })
const earlier = computed(() =>
  shown.value
    ? earlierOf(job.value.sheet, shown.value, seenOn(build.value), job.value.builds.slice(0, -1).map(seenOn))
    : [],
)
const question = computed(
  () => shown.value && readBackOf(job.value.sheet, shown.value, marks.value, earlier.value),
)
const unsaid = computed(() => shown.value !== undefined && shown.value.teeth.pushed === undefined)
/** Why nothing can be computed of this pair; empty where it can. */
const drawn = computed(() =>
  shown.value?.pair.basis === 'drawn'
    ? 'The teeth of this pair are only drawn: nobody has counted them and measured a diameter yet. Enter that on the sheet, and the pattern can be read.'
    : '',
)
/** Why the pattern cannot be read back here; empty where it can. */
const whyNot = computed(
  () =>
    drawn.value ||
    (unsaid.value
      ? 'Nobody has said which flank of the gear is pushed: what a patch means is not known yet.'
      : ''),
)
/** How a good build of this drive looked, the last time one was marked. */
const references = useReferencePatterns(() => job.value.id)
const referenceOf = (flank: Flank) =>
  (references.references ?? []).find((r) => r.mesh === shown.value?.pair.id && r.flank === flank)
const reference = computed(() => FLANKS.map(referenceOf).find((r) => r !== undefined))
const stackOn = (gear: string | undefined) =>
  job.value.sheet.adjusters.find((a) => a.kind === 'shim' && a.moves === gear)?.label

/** Where the next line goes. */
const at = ref<{ place: number; flank: Flank }>({ place: 1, flank: 'drive' })
const standing = computed(() => marks.value[at.value.place]?.[at.value.flank])
/** What is drawn or set and not entered yet, and why it is marked anew; kept in this browser, so that a reload loses nothing. */
const key = `moray.draft.${job.value.id}.${build.value.number}.pattern`
const kept = useStorage(key, {
  pair: '',
  place: 1,
  flank: 'drive' as Flank,
  line: [] as number[],
  reason: '',
})
const draft = computed({
  get: () => (kept.value.line.length ? kept.value.line : null),
  set: (line) => {
    kept.value = { ...kept.value, pair: shown.value?.pair.id ?? '', ...at.value, line: line ?? [] }
  },
})
const reason = computed({
  get: () => kept.value.reason,
  set: (said) => (kept.value = { ...kept.value, reason: said }),
})
const MIDDLE: Ends = { toe: -0.45, heel: 0.35, root: -0.4, top: 0.4 }
const ends = computed<Ends>(() =>
  draft.value && draft.value.length >= 6
    ? endsOf(pairsUp(draft.value))
    : standing.value
      ? endsOf(standing.value.outline)
      : MIDDLE,
)
function setEnd(end: keyof Ends, value: number) {
  const next = { ...ends.value, [end]: value }
  // the ends of a patch do not pass each other
  const GAP = 0.1
  if (end === 'toe') next.toe = Math.min(next.toe, next.heel - GAP)
  if (end === 'heel') next.heel = Math.max(next.heel, next.toe + GAP)
  if (end === 'root') next.root = Math.min(next.root, next.top - GAP)
  if (end === 'top') next.top = Math.max(next.top, next.root + GAP)
  draft.value = ovalOf(next)
}
function choose(place: number, flank: Flank) {
  at.value = { place, flank }
  draft.value = null
  reason.value = ''
  write.clear()
}
watch(
  () => shown.value?.pair.id,
  (pair) => {
    // what was begun goes on
    if (pair === kept.value.pair && kept.value.line.length)
      at.value = { place: kept.value.place, flank: kept.value.flank }
    else {
      const next = nextMark(marks.value)
      choose(next.place, next.flank)
    }
  },
  { immediate: true },
)
const lineOf = (flank: Flank) => {
  if (at.value.flank === flank && draft.value && draft.value.length >= 6) return pairsUp(draft.value)
  return marks.value[at.value.place]?.[flank]?.outline
}
const centreOf = (outline: Outline | undefined): [number, number] | undefined => {
  if (!outline) return undefined
  const { length, profile } = placeOf(outline)
  return [length, profile]
}
/** On a picture of the flank instead of the drawing. */
const onPhoto = ref(false)
const inRound = ref(false)
const titleOf = (flank: Flank) => {
  const shape = shapeOf(flank, shown.value?.teeth.pushed)
  return `${flank === 'drive' ? 'Drive' : 'Coast'} flank${shape ? `, ${shape}` : ''}`
}
const ENDS: { end: keyof Ends; label: string }[] = [
  { end: 'toe', label: 'Toe end' },
  { end: 'heel', label: 'Heel end' },
  { end: 'root', label: 'Root end' },
  { end: 'top', label: 'Top end' },
]
async function enter() {
  if (!shown.value || !draft.value) return
  const reply = await write.send(
    endpoints.markPattern,
    { id: job.value.id },
    {
      build: build.value.number,
      mesh: shown.value.pair.id,
      ...at.value,
      outline: draft.value,
      ...(standing.value ? { reason: reason.value } : {}),
    },
  )
  if (!reply) return
  const next = nextMark(marks.value)
  choose(next.place, next.flank)
}
</script>

<template>
  <p v-if="!shown" class="soft">This drive has no gears in mesh; there is no contact to read.</p>
  <div v-else class="contact three">
    <aside aria-label="Pairs and places">
      <ul class="pairs">
        <li v-for="p in pairs" :key="p.pair.id">
          <button
            type="button"
            :class="{ at: p === shown }"
            @click="router.replace({ query: { pair: p.pair.id } })"
          >
            {{ p.pair.label }}
          </button>
        </li>
      </ul>
      <h3>{{ buildName(build) }}</h3>
      <ul class="places">
        <li v-for="n in PLACES" :key="n">
          <span>Place {{ n }}</span>
          <button
            v-for="f in FLANKS"
            :key="f"
            type="button"
            :class="{ at: at.place === n && at.flank === f }"
            :aria-label="`Place ${n}, ${f} flank${marks[n]?.[f] ? ', marked' : ''}`"
            @click="choose(n, f)"
          >
            {{ f }}{{ marks[n]?.[f] ? ' ✓' : '' }}
          </button>
        </li>
      </ul>
      <p class="small soft">Three places a third of a turn apart: what wanders between them is runout.</p>
    </aside>
    <section aria-label="Flanks" class="flanks">
      <div v-for="f in FLANKS" :key="f" :class="{ lit: at.flank === f }">
        <FlankDrawing
          :title="`${titleOf(f)}, place ${at.place}`"
          :outline="lineOf(f)"
          :centre="centreOf(lineOf(f))"
          :before="computedPatches[shown.pair.id]?.[f]?.outline"
          :reference="referenceOf(f)?.outline"
          :drawable="open"
          @drawing="
            (flat) => {
              if (at.flank !== f) choose(at.place, f)
              draft = flat
            }
          "
        />
      </div>
      <button
        v-if="!unsaid"
        type="button"
        class="texty apart"
        :aria-expanded="inRound"
        @click="inRound = !inRound"
      >
        {{ inRound ? 'Leave the tooth in the round' : 'See the tooth in the round' }}
      </button>
      <ToothPair
        v-if="inRound && !unsaid"
        :mesh="shown.teeth.mesh"
        :pushed="shown.teeth.pushed"
        :flank="at.flank"
        :outline="lineOf(at.flank) ?? computedPatches[shown.pair.id]?.[at.flank]?.outline"
      />
      <template v-if="open">
        <button type="button" class="texty" :aria-expanded="onPhoto" @click="onPhoto = !onPhoto">
          {{ onPhoto ? 'Leave the photo' : `Mark the ${at.flank} flank on a photo` }}
        </button>
        <PhotoMark
          v-if="onPhoto"
          :job="job"
          :toe-share="toeShareOf(shown.teeth.mesh)"
          :outline="lineOf(at.flank)"
          @drawing="(flat) => (draft = flat)"
        />
      </template>
      <p class="small soft">
        <template v-if="drawn">Filled: as seen. {{ drawn }}</template>
        <template v-else-if="unsaid"
          >Filled: as seen. Nothing is computed until it is known which flank is pushed.</template
        >
        <template v-else>
          {{
            shown.stands
              ? 'Dashed: computed from depth and backlash as measured.'
              : 'Nothing is computed yet: its backlash is not measured.'
          }}
          Filled: as seen. {{ assumedText(shown.teeth.assumed) }}
        </template>
        <template v-if="reference">
          Dotted: kept from a good build{{ reference.sameUnit ? ' of this very unit' : '' }}, job
          {{ reference.number }} of {{ showDate(reference.at) }}.
        </template>
      </p>
    </section>
    <aside class="panel" aria-label="Due now">
      <PushedFlank v-if="unsaid && !drawn && open" :job="job" :pair="shown.pair" />
      <h2>{{ at.flank === 'drive' ? 'Drive' : 'Coast' }} flank, place {{ at.place }}</h2>
      <template v-if="open">
        <p v-if="later" class="caution">
          This build is accepted as built. What you mark now is kept as a later finding.
        </p>
        <ul class="say">
          <li>Compound thin on three or four teeth; roll a full turn both ways against a light brake.</li>
          <li>Draw round the patch on the flank, or set its four ends.</li>
        </ul>
        <div v-for="e in ENDS" :key="e.end" class="end">
          <label :for="`end-${e.end}`">{{ e.label }}</label>
          <input
            :id="`end-${e.end}`"
            type="range"
            min="-1"
            max="1"
            step="0.05"
            :value="ends[e.end]"
            @input="setEnd(e.end, Number(($event.target as HTMLInputElement).value))"
          />
          <span class="mono small">{{ ends[e.end].toFixed(2) }}</span>
        </div>
        <label v-if="standing" class="why"
          >Why anew
          <input
            v-model="reason"
            class="plain-field"
            type="text"
            maxlength="300"
            placeholder="smeared, read again"
          />
        </label>
        <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
        <Button
          :label="standing ? 'Mark it anew' : 'Enter this patch'"
          class="lamp"
          fluid
          :disabled="
            write.busy.value || !draft || draft.length < 6 || (!!standing && reason.trim().length < 3)
          "
          @click="enter"
        />
      </template>
      <p v-else class="soft">This job is over: what was seen can be read, not changed.</p>
      <ReadBack
        :question="question"
        :why-not="whyNot"
        :pinion-stack="stackOn(shown.pair.pinion)"
        :gear-stack="stackOn(shown.pair.gear)"
        :gear-by-gauges="
          shown.stands?.depthKnown ? { mm: shown.stands.gearMm, U: shown.stands.gearUMm } : undefined
        "
      />
    </aside>
  </div>
</template>

<style scoped>
.apart {
  margin-right: 1.2rem;
}
.contact {
  grid-template-columns: 13.5rem minmax(0, 1fr) 22rem;
}
.pairs button,
.places button {
  font: inherit;
  color: inherit;
  background: none;
  border: 1px solid transparent;
  min-height: 44px;
  padding: 0.2rem 0.6rem;
  cursor: pointer;
  text-align: left;
}
.pairs button {
  width: 100%;
  border-bottom: 1px solid var(--line);
}
.places li {
  display: flex;
  align-items: center;
  gap: 0.2rem;
  border-bottom: 1px solid var(--line);
}
.places li span {
  flex: 1;
}
button.at {
  background: var(--lamp);
  color: var(--lamp-ink);
  border-color: var(--ink);
}
.flanks .lit {
  box-shadow: inset 5px 0 0 var(--lamp);
}
.flanks > div {
  padding-left: 1rem;
}
.say {
  margin: 0.3rem 0 0.6rem;
  padding-left: 1.1rem;
  list-style: square;
}
.end {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr) 3rem;
  gap: 0.5rem;
  align-items: center;
}
.end input {
  height: 44px;
  accent-color: var(--lamp);
}
.end span {
  text-align: right;
}
.why {
  display: grid;
  gap: 0.2rem;
  margin: 0.4rem 0;
}
@media (max-width: 1000px) {
  /* the flank is what is drawn on: before its sliders */
  .contact .flanks {
    order: -2;
  }
}
@media (max-width: 1180px) {
  .contact {
    grid-template-columns: 11.5rem minmax(0, 1fr) 19rem;
    gap: 1rem;
  }
}
</style>
