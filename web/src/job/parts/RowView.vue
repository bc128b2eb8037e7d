<script setup lang="ts">
import type { RowPart } from '@moray/core/job/record'
import type { ShownJob } from '../shown-job.ts'
import type { ChangeRowPart, LayInRow } from '@moray/contract/requests/parts'
import { leftOnBench, lies, stillIn, type StillIn } from '@moray/core/job/bench-row'
import { closingOf } from '@moray/core/job/closings'
import { stepWithRole } from '@moray/core/route/progress'
import { ORIENTATIONS, type Part } from '@moray/core/drives/parts'
import { useSortable } from '../../ui/use-sortable.ts'
import Button from 'primevue/button'
import { computed, ref, useTemplateRef, watch } from 'vue'
import ReasonDialog from '../../ui/ReasonDialog.vue'
import TurnArrow from '../../ui/TurnArrow.vue'
import { useUnits } from '../../ui/units.ts'
import { threadTurn } from '@moray/core/torque/thread-turn'
import { buildBack, goesIn, partMeant, type Laid } from './row-view.ts'

/**
 * The row on the bench. Taking apart it grows in the order in which parts come off; building back the same row is walked from
 * its end and asks for each part. Drag, or the arrow buttons, put it into another order.
 */
const props = defineProps<{
  job: ShownJob
  busy: boolean
  error: string
  /** What was laid last and refused: it comes back into the field. `early`: another part should still hold it. */
  refused: { laid: Laid; early: boolean } | null
}>()
const emit = defineEmits<{
  lay: [body: LayInRow, laid: Laid]
  change: [part: RowPart, body: ChangeRowPart]
  order: [ids: string[]]
}>()
const units = useUnits()
/** What this job takes off and is still in; what stays in is not asked for. */
const waiting = computed(() => {
  const off = new Set(props.job.plan.off.map((p) => p.id))
  return stillIn(props.job.sheet.parts, props.job.row).filter((w) => off.has(w.part.id))
})
const closing = computed(() => {
  const ready = stepWithRole(props.job.route, 'ready-to-build')
  return ready !== undefined && closingOf(props.job.closings, ready.id) !== undefined
})
const back = ref(closing.value)
watch(closing, (now) => (back.value = now))
const row = computed(() => props.job.row)
const left = computed(() => leftOnBench(props.job.sheet.parts, props.job.row))
const sequence = computed(() => (back.value ? buildBack(row.value) : row.value))
const nextBack = computed(() => buildBack(row.value).find(lies))
const partOf = (t: RowPart): Part | undefined => props.job.sheet.parts.find((p) => p.id === t.part)

/** Scanned, typed or tapped: the part that comes off now. */
const text = ref('')
const orientation = ref('')
const ink = ref('')
const meant = computed(() =>
  partMeant(
    waiting.value.map((w) => w.part),
    text.value,
  ),
)
const chosen = computed(() => waiting.value.find((w) => w.part === meant.value))
const looks = computed(() => (meant.value ? (ORIENTATIONS[meant.value.kind] ?? []) : []))
const field = useTemplateRef<HTMLInputElement>('field')
function choose(w: StillIn) {
  text.value = w.part.name
  orientation.value = ''
  field.value?.focus()
}
/** In one tap, without marks: most parts go in only one way. */
function layAtOnce({ part }: StillIn) {
  emit('lay', { part: part.id }, { text: part.name, orientation: '', ink: '' })
}
/** A name that no part of this drive has: asked about before it becomes a part of its own. */
const strange = ref('')
function lay(confirmed = false) {
  const typed = { text: text.value.trim(), orientation: orientation.value, ink: ink.value.trim() }
  if (!typed.text) return
  if (!meant.value && strange.value !== typed.text) {
    strange.value = typed.text
    return
  }
  strange.value = ''
  const body = {
    ...(meant.value ? { part: meant.value.id } : { name: typed.text }),
    ...(typed.orientation ? { orientation: typed.orientation } : {}),
    ...(typed.ink ? { ink: typed.ink } : {}),
    ...(confirmed ? { confirmed: true } : {}),
  }
  text.value = orientation.value = ink.value = ''
  field.value?.focus()
  emit('lay', body, typed)
}
watch(
  () => props.refused,
  (r) => {
    if (!r || text.value) return
    text.value = r.laid.text
    orientation.value = r.laid.orientation
    ink.value = r.laid.ink
  },
)
const act = (t: RowPart, body: ChangeRowPart) => emit('change', t, body)
/** Into the case: the old part, or the new one where the old does not go back. */
const fit = (t: RowPart) =>
  act(t, { act: 'fit', ...(goesIn(props.job, t).condemned ? { renewed: true } : {}) })
const next = computed(() => (nextBack.value ? goesIn(props.job, nextBack.value) : null))
const threadOf = (part: Part | undefined, way: 'loosens' | 'tightens') =>
  part?.thread === 'left' ? threadTurn('left', way) : undefined

const list = useTemplateRef<HTMLElement>('list')
useSortable(list, (ids) => emit('order', ids))
function move(t: RowPart, by: number) {
  const ids = row.value.map((x) => x.id)
  const at = ids.indexOf(t.id)
  const to = at + by
  if (to < 0 || to >= ids.length) return
  ids.splice(at, 1)
  ids.splice(to, 0, t.id)
  emit('order', ids.map(String))
}
const asking = ref<{ part: RowPart; act: keyof typeof WORDS } | null>(null)
const WORDS = {
  unfit: ['Back out of the case', 'Back into the row'],
  'leave-out': ['It stays out', 'It stays out'],
  remove: ['Not off after all', 'Take it off the row'],
} as const
const words = computed(() => WORDS[asking.value?.act ?? 'unfit'])
/** The question closes when the part has changed; what the server has against it is said in it. */
function give(reason: string) {
  if (asking.value) act(asking.value.part, { act: asking.value.act, reason })
}
watch(row, () => (asking.value = null))
const place = (t: RowPart) => row.value.indexOf(t) + 1
</script>

<template>
  <div class="rowview">
    <p v-if="closing && left.length" class="shout" role="alert">
      <strong>{{ left.length }} left on the bench:</strong> {{ left.map((t) => t.name).join(', ') }}. It does
      not close over that.
    </p>
    <div class="top">
      <fieldset class="one-of">
        <legend class="sr-only">Direction</legend>
        <label :class="{ on: !back }"
          ><input v-model="back" type="radio" :value="false" class="sr-only" /> taking apart</label
        >
        <label :class="{ on: back }"
          ><input v-model="back" type="radio" :value="true" class="sr-only" /> building back</label
        >
      </fieldset>
      <p class="small soft">
        {{ row.length }} off, {{ row.filter((t) => t.fitted).length }} back in,
        {{ row.filter(lies).length }} on the bench
      </p>
    </div>

    <form v-if="!back && waiting.length" class="lay entries" @submit.prevent="lay()">
      <div class="what">
        <label for="lay-what">Off now: scan, type or tap</label>
        <input id="lay-what" ref="field" v-model="text" type="text" autocomplete="off" list="waiting-parts" />
        <datalist id="waiting-parts">
          <option v-for="w in waiting" :key="w.part.id" :value="w.part.name" />
        </datalist>
      </div>
      <div v-if="looks.length" class="how">
        <label for="lay-how">How it lay</label>
        <select id="lay-how" v-model="orientation">
          <option value="">not marked</option>
          <option v-for="o in looks" :key="o">{{ o }}</option>
        </select>
      </div>
      <div class="how">
        <label for="lay-ink">Ink</label>
        <input id="lay-ink" v-model="ink" type="text" maxlength="40" />
      </div>
      <Button type="submit" label="Into the row" class="lamp" :disabled="!text.trim()" />
      <p v-if="threadOf(meant, 'loosens')" class="thread">
        <TurnArrow :turn="threadOf(meant, 'loosens')!" />
        <strong>Left-hand thread: {{ threadOf(meant, 'loosens') }} loosens it.</strong>
      </p>
      <p v-if="strange" class="held" role="alert">
        No part of this drive is called “{{ strange }}”. Enter again to lay it down as a part of its own.
      </p>
      <p v-if="chosen?.held.length" class="small held">
        Not yet: {{ chosen.held.map((p) => p.name).join(', ') }} must be off first.
      </p>
    </form>
    <p v-if="error && !asking" class="fault" role="alert">
      {{ error }}
      <button v-if="refused?.early" type="button" class="texty" @click="lay(true)">
        It is out all the same
      </button>
    </p>

    <section v-if="back && nextBack" class="next" aria-label="Next to go in">
      <div>
        <p class="small soft">Next to go in, from the end of the row</p>
        <p class="big">{{ nextBack.name }}<span v-if="next?.fresh" class="new"> new</span></p>
        <p v-if="next?.stack" class="stack">
          <strong class="mono">{{ units.both(next.stack.mm, 3) }}</strong>
          {{ next.stack.accepted ? 'as accepted' : 'not accepted yet' }}:
          <span class="mono">{{ next.stack.pieces.map((mm) => units.digits(mm, 3)).join(' + ') }}</span>
        </p>
        <p v-if="next?.grade" class="small" :class="{ condemned: next.condemned }">{{ next.grade }}</p>
        <p v-if="threadOf(partOf(nextBack), 'tightens')" class="thread">
          <TurnArrow :turn="threadOf(partOf(nextBack), 'tightens')!" />
          <strong>Left-hand thread: {{ threadOf(partOf(nextBack), 'tightens') }} tightens it.</strong>
        </p>
        <p>
          {{
            [nextBack.orientation, nextBack.ink && `ink ${nextBack.ink}`, nextBack.note]
              .filter(Boolean)
              .join(' · ')
          }}
        </p>
      </div>
      <div class="buttons">
        <Button
          :label="next?.condemned ? 'The new one is in' : 'It is in'"
          class="lamp"
          :disabled="busy"
          @click="fit(nextBack)"
        />
        <Button label="It stays out" class="quiet" @click="asking = { part: nextBack, act: 'leave-out' }" />
      </div>
    </section>

    <section v-if="!back && waiting.length" aria-label="Still in the case">
      <h2 class="group">Still in the case</h2>
      <ul class="waiting">
        <li v-for="w in waiting" :key="w.part.id">
          <button type="button" :class="{ held: w.held.length }" @click="choose(w)">
            <span>{{ w.part.name }}</span>
            <span v-if="w.held.length" class="small soft"
              >after {{ w.held.map((p) => p.name.toLowerCase()).join(', ') }}</span
            >
          </button>
          <button
            v-if="!w.held.length"
            type="button"
            class="at-once"
            :aria-label="`${w.part.name} is off`"
            @click="layAtOnce(w)"
          >
            off
          </button>
        </li>
      </ul>
    </section>

    <p v-if="!row.length" class="soft">
      Nothing lies in the row yet. The first part that comes off goes at its left end.
    </p>
    <ol ref="list" class="row">
      <li
        v-for="t in sequence"
        :key="t.id"
        :data-id="t.id"
        :class="{ fitted: t.fitted, out: t.leftOut, due: back && t === nextBack }"
      >
        <span class="grip" aria-hidden="true" :title="back ? '' : 'drag'">{{ place(t) }}</span>
        <div class="card">
          <p class="name">
            {{ t.name
            }}<span v-if="(partOf(t)?.count ?? 1) > 1" class="small soft"> × {{ partOf(t)!.count }}</span>
          </p>
          <p class="small marks">
            <span v-if="t.orientation">{{ t.orientation }}</span>
            <span v-if="t.ink">ink {{ t.ink }}</span>
            <span v-if="t.stack">stack {{ t.stack }}</span>
            <span v-if="!t.orientation && !t.ink && !t.stack" class="soft">no marks</span>
          </p>
          <p
            v-if="back && !t.fitted && goesIn(job, t).grade"
            class="small"
            :class="{ condemned: goesIn(job, t).condemned }"
          >
            {{ goesIn(job, t).condemned ? 'new: ' : '' }}{{ goesIn(job, t).grade }}
          </p>
          <p v-else-if="back && !t.fitted && goesIn(job, t).fresh" class="small">new, of the kit</p>
          <p v-if="back && goesIn(job, t).stack" class="small mono">
            {{ units.both(goesIn(job, t).stack!.mm, 3) }}
          </p>
          <p v-if="t.fitted" class="small">{{ t.fitted.renewed ? 'new one in' : 'in' }}, {{ t.fitted.by }}</p>
          <p v-else-if="t.leftOut" class="small">stays out: {{ t.leftOut }}</p>
          <div class="tools">
            <slot name="pictures" :of="t.part ?? `row-${t.id}`" />
            <template v-if="!back">
              <button
                type="button"
                class="texty small"
                :aria-label="`${t.name}: earlier in the row`"
                @click="move(t, -1)"
              >
                <svg width="20" height="16" viewBox="0 0 20 16" aria-hidden="true">
                  <path d="M18 8 H3 M9 2 L3 8 L9 14" />
                </svg>
              </button>
              <button
                type="button"
                class="texty small"
                :aria-label="`${t.name}: later in the row`"
                @click="move(t, 1)"
              >
                <svg width="20" height="16" viewBox="0 0 20 16" aria-hidden="true">
                  <path d="M2 8 H17 M11 2 L17 8 L11 14" />
                </svg>
              </button>
              <button
                type="button"
                class="texty small"
                :aria-label="`${t.name}: not off after all`"
                @click="asking = { part: t, act: 'remove' }"
              >
                not off
              </button>
            </template>
            <template v-else>
              <button
                v-if="lies(t)"
                type="button"
                class="texty small"
                :aria-label="`${t.name} is in`"
                @click="fit(t)"
              >
                {{ goesIn(job, t).condemned ? 'new one is in' : 'it is in' }}
              </button>
              <button
                v-else
                type="button"
                class="texty small"
                :aria-label="`${t.name}: back into the row`"
                @click="asking = { part: t, act: 'unfit' }"
              >
                back out
              </button>
            </template>
          </div>
        </div>
      </li>
    </ol>

    <ReasonDialog
      :open="asking !== null"
      :title="words[0]"
      :explain="`${asking?.part.name ?? ''}: say why; it stands in the history.`"
      :action="words[1]"
      :busy="busy"
      :error="error"
      @update:open="asking = null"
      @give="give"
    />
  </div>
</template>

<style scoped>
.rowview {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.8rem;
}
.shout {
  border: 3px solid var(--out);
  padding: 0.6rem 0.9rem;
  font-size: var(--t-lead);
  background: var(--sheet);
}
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1.2rem;
}
.lay {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.8rem;
  align-items: end;
  border-left: 6px solid var(--lamp);
  padding-left: 0.9rem;
}
.lay > div {
  display: grid;
}
.what {
  flex: 1 1 14rem;
  min-width: 0;
}
.lay > div {
  max-width: 100%;
}
.what input {
  font-size: 1.375rem;
  width: 100%;
  min-width: 0;
}
.lay label {
  font-size: var(--t-small);
}
.lay .held {
  width: 100%;
  color: var(--out);
}
.next {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.8rem;
  align-items: center;
  border-left: 6px solid var(--lamp);
  padding: 0.3rem 0 0.3rem 0.9rem;
}
.big {
  font-size: var(--t-live);
  line-height: 1.15;
}
.buttons {
  display: flex;
  gap: 0.6rem;
}
.new {
  border: 2px solid var(--ink);
  padding: 0 0.4rem;
  margin-left: 0.5rem;
  font-size: var(--t-lead);
}
.stack {
  font-size: var(--t-lead);
}
.condemned {
  color: var(--out);
  font-weight: 700;
}
.thread {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  width: 100%;
}
.row {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 12.5rem), 1fr));
  gap: 0.5rem;
}
.row li {
  display: grid;
  grid-template-columns: 2.4rem minmax(0, 1fr);
  border: 1px solid var(--line-strong);
  background: var(--sheet);
}
.row li.fitted {
  background: none;
  border-color: var(--line);
}
.row li.fitted .name {
  text-decoration: line-through;
  text-decoration-thickness: 1px;
}
.row li.due {
  box-shadow: inset 0 4px 0 var(--lamp);
}
.grip {
  display: grid;
  place-items: center;
  font-weight: 700;
  font-size: var(--t-title);
  border-right: 1px solid var(--line);
  cursor: grab;
  touch-action: none;
}
.card {
  padding: 0.4rem 0.5rem;
  min-width: 0;
}
.name {
  font-weight: 700;
  line-height: 1.25;
}
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.7rem;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.2rem;
  align-items: center;
}
.tools .texty {
  min-width: 40px;
}
.tools svg {
  fill: none;
  stroke: currentColor;
  stroke-width: 2.5;
  vertical-align: middle;
}
.group {
  font-size: var(--t-small);
  font-weight: 400;
  color: var(--ink-soft);
  margin-bottom: 0.3rem;
}
.waiting {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 15rem), 1fr));
  gap: 0.4rem;
}
.waiting button {
  font: inherit;
  color: inherit;
  background: none;
  border: 1px solid var(--line);
  width: 100%;
  min-height: 52px;
  text-align: left;
  padding: 0.3rem 0.6rem;
  cursor: pointer;
  display: grid;
}
.waiting li {
  display: flex;
}
.waiting .at-once {
  width: auto;
  min-width: 3.5rem;
  border-left: 0;
  align-content: center;
  font-weight: 700;
}
.waiting button:hover {
  background: var(--lamp-soft);
}
.waiting button.held {
  border-style: dashed;
}
</style>
