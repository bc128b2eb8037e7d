<script setup lang="ts">
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import type { DrawerLine } from '@moray/contract/replies'
import type { EnterStack } from '@moray/contract/requests/setting'
import type { Adjuster } from '@moray/core/drives/sheet'
import { useStorage } from '@vueuse/core'
import Button from 'primevue/button'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import NotationField from '../../ui/NotationField.vue'
import ReasonDialog from '../../ui/ReasonDialog.vue'
import { understand } from '../../ui/understand.ts'
import { showDate } from '../../ui/times.ts'
import { useUnits } from '../../ui/units.ts'
import { useDrawer, useExperience, useLastBuilt } from '../../wire/queries.ts'
import { useShop } from '../../stores/shop.ts'
import { problemAt } from '../../wire/client.ts'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import { stackOf } from '../setting-view.ts'

/** Enters one stack as found: every piece measured, typed or picked; an empty Enter closes the stack. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  stack: Adjuster
  writable: boolean
  write: WriteState
}>()
const emit = defineEmits<{ enter: [stack: EnterStack, answered: Answered]; done: [] }>()

interface DraftPiece {
  text: string
  mm: number
  lineId?: string
  confirmed?: boolean
}

const shop = useShop()
const units = useUnits()
const drawer = useDrawer()
// kept in this browser, so that an interruption or a reload loses nothing
const key = `moray.draft.${props.job.id}.${props.stack.id}`
const pieces = useStorage<DraftPiece[]>(`${key}.pieces`, [])
const text = useStorage(`${key}.text`, '')
const asking = ref(false)
const turn = ref(0)

const entry = computed(() => stackOf(props.build, props.stack.id))
const earlier = computed(() =>
  props.build.stacks.filter((s) => s.location === props.stack.id && s.superseded),
)
const editing = ref(false)
/** What was begun here goes on here, even when somebody else has entered this stack meanwhile. */
const begun = computed(() => pieces.value.length > 0 || text.value !== '')
const entering = computed(() => props.writable && (!entry.value || editing.value || begun.value))
const total = computed(() => pieces.value.reduce((mm, p) => mm + p.mm, 0))
const outside = computed(() => {
  if (!pieces.value.length) return ''
  if (total.value > props.stack.maxMm || total.value < props.stack.minMm)
    return `The sheet's range is ${units.length(props.stack.minMm)} to ${units.length(props.stack.maxMm)}; a stack as found may still be outside it.`
  if (pieces.value.length > props.stack.maxPieces)
    return `More pieces than the sheet allows (${props.stack.maxPieces}).`
  return ''
})
const taught = useExperience(
  () => props.job.sheetId,
  () => props.job.id,
)
/** What this stack was in the units of this drive that were built here. */
const before = computed(() => {
  const e = taught.taught?.experience
  const mm = e?.at[props.stack.id]
  return e && mm !== undefined ? { units: e.units, mm, spread: e.spread[props.stack.id] ?? 0 } : undefined
})
const last = useLastBuilt(() => props.job.id)
/** What was built in when this very unit left here the last time. */
const left = computed(() => {
  const stack = last.lastBuilt?.stacks.find((s) => s.location === props.stack.id)
  return stack?.pieces.length
    ? {
        ...last.lastBuilt!,
        pieces: stack.pieces,
        mm: stack.pieces.reduce((sum, p) => sum + p.thicknessMm, 0),
      }
    : undefined
})
/** Begins with the pieces of then; each is still taken off the list if it is not in. */
function takeOver() {
  pieces.value = left.value!.pieces.map((p) => ({ text: `${p.thicknessMm}mm`, mm: p.thicknessMm }))
  turn.value++
}
const lineLabel = (l: DrawerLine) => `${units.both(l.thicknessMm, 3)} · marked ${l.text} · ${l.place}`
const options = computed(() => (drawer.lines ?? []).map((l) => ({ id: l.id, label: lineLabel(l) })))

function add(e: { text: string; confirmed: boolean }) {
  const meaning = understand(e.text, shop.unit, 'shim-piece', null, { min: 0, max: props.stack.maxMm })
  if (meaning.state !== 'value' && meaning.state !== 'doubtful') return
  // the unit of a bare number is fixed now, so that a later change of the switch does not change the piece
  const bare = /^[\s\d.,/]+$/.test(e.text)
  pieces.value.push({
    text: bare ? `${e.text.trim()}${shop.unit}` : e.text.trim(),
    mm: meaning.value,
    ...(e.confirmed ? { confirmed: true } : {}),
  })
  text.value = ''
  turn.value++
  props.write.clear()
}
function pick(lineId: string) {
  const line = drawer.lines?.find((l) => l.id === lineId)
  if (!line) return
  pieces.value.push({ text: line.text, mm: line.thicknessMm, lineId })
  turn.value++
}
function finish() {
  if (entry.value) asking.value = pieces.value.length > 0
  else if (pieces.value.length) save()
}
function save(reason?: string) {
  const body = {
    location: props.stack.id,
    unit: shop.unit,
    pieces: pieces.value.map((p) => (p.lineId ? { lineId: p.lineId } : { text: p.text })),
    ...(pieces.value.some((p) => p.confirmed) ? { confirmed: true } : {}),
    ...(reason ? { reason } : {}),
  }
  emit('enter', body, (done) => {
    if (!done) return
    pieces.value = []
    asking.value = false
    editing.value = false
    emit('done')
  })
}
function correct() {
  pieces.value = entry.value!.pieces.map((p) => ({ text: `${p.thicknessMm}mm`, mm: p.thicknessMm }))
  editing.value = true
}
</script>

<template>
  <h2>{{ stack.label }} {{ build.number === 0 ? 'as found' : `of trial ${build.number}` }}</h2>
  <template v-if="entering">
    <p v-if="entry && !editing" class="caution">
      {{ entry.by }} has entered this stack meanwhile: {{ units.both(entry.thicknessMm, 3) }}. What you type
      takes its place, with a reason.
    </p>
    <p class="lead">Measure every piece on its own. Look for one stuck by oil to the gear or the case.</p>
    <NotationField
      v-model="text"
      v-model:unit="shop.unit"
      :label="pieces.length ? `Piece ${pieces.length + 1}, or Enter to close the stack` : 'Piece 1'"
      kind="shim-piece"
      :limits="{ min: 0, max: stack.maxMm }"
      :busy="write.busy"
      :focus-on="`${stack.id}${turn}`"
      :error="problemAt(write.error, 'pieces') ?? write.error?.message"
      @enter="add"
      @blank="finish"
    />
    <label class="pick">
      <span class="small soft">or it is like one in the drawer</span>
      <Select
        :model-value="null"
        :options="options"
        option-label="label"
        option-value="id"
        filter
        placeholder="Pick from the drawer"
        aria-label="Pick from the drawer"
        fluid
        @update:model-value="pick"
      />
    </label>
    <ul v-if="pieces.length" class="pieces" aria-label="Pieces so far">
      <li v-for="(p, i) in pieces" :key="i">
        <span class="mono">{{ units.both(p.mm, 3) }}</span>
        <button
          type="button"
          class="texty small"
          :aria-label="`Take piece ${i + 1} off the list`"
          @click="pieces.splice(i, 1)"
        >
          take off
        </button>
      </li>
    </ul>
    <p class="sum">
      <span class="live">{{ units.digits(total, 3) }}</span>
      <span class="mono">{{ units.lengthUnit.value }} · {{ units.other(total, 3) }}</span>
    </p>
    <p v-if="left && build.number === 0" class="small">
      Left here on {{ showDate(left.at) }} ({{ left.number }}) with
      <span class="mono">{{ units.both(left.mm, 3) }}</span>:
      <span class="mono">{{ left.pieces.map((p) => units.digits(p.thicknessMm, 3)).join(' + ') }}</span>
      <button v-if="!pieces.length" type="button" class="texty" @click="takeOver">
        These are in it still
      </button>
    </p>
    <p v-if="before" class="small soft">
      {{ before.units }} units of this drive: <span class="mono">{{ units.both(before.mm, 3) }}</span> ±
      <span class="mono">{{ units.length(before.spread, 3) }}</span>
    </p>
    <p v-if="outside" class="caution">{{ outside }}</p>
    <div class="actions">
      <Button
        label="Stack is complete"
        class="lamp"
        :disabled="!pieces.length || write.busy"
        @click="finish"
      />
      <Button
        v-if="editing"
        label="Leave it as it was"
        class="quiet"
        @click="((editing = false), (pieces = []))"
      />
    </div>
  </template>
  <template v-else-if="entry">
    <p class="sum">
      <span class="live">{{ units.digits(entry.thicknessMm, 3) }}</span>
      <span class="mono">{{ units.lengthUnit.value }} · {{ units.other(entry.thicknessMm, 3) }}</span>
    </p>
    <ul class="pieces">
      <li v-for="(p, i) in entry.pieces" :key="i">
        <span class="mono">{{ units.both(p.thicknessMm, 3) }}</span>
        <span class="small soft">{{
          p.thinned ? 'made thinner for this case' : p.origin === 'drawer' ? 'drawer' : 'out of the case'
        }}</span>
      </li>
    </ul>
    <p class="small soft">{{ entry.by }}</p>
    <p v-if="build.number > 0 && entry.pieces.length > 1" class="caution">
      Thickest pieces to the outside, next to the bearing; thin ones between them.
    </p>
    <Button v-if="writable" label="Correct it, with a reason" class="quiet" @click="correct" />
    <p v-else-if="build.number === 0 && job.builds.length > 1" class="small soft">
      Trials were chosen from this; it can no longer change.
    </p>
  </template>
  <p v-else class="soft">No entry.</p>
  <section v-if="earlier.length" class="earlier">
    <h3>Set aside</h3>
    <p v-for="s in earlier" :key="s.id" class="small">
      <s class="mono">{{ units.both(s.thicknessMm, 3) }}</s> {{ s.superseded!.reason }},
      {{ s.superseded!.by }}
    </p>
  </section>
  <ReasonDialog
    v-model:open="asking"
    title="Change what was found"
    :explain="`The earlier entry (${entry ? units.both(entry.thicknessMm, 3) : ''}) stays in the record.`"
    action="Change it"
    :busy="write.busy"
    :error="write.error?.message"
    @give="save"
  />
</template>

<style scoped>
h2 {
  margin-bottom: 0.4rem;
}
.lead {
  margin-bottom: 0.8rem;
}
.pick {
  display: grid;
  gap: 0.15rem;
  margin-top: 0.8rem;
}
.pieces {
  margin-top: 0.8rem;
  border-top: 1px solid var(--line);
}
.pieces li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
}
.sum {
  margin: 0.7rem 0;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin-top: 0.8rem;
}
.caution {
  margin: 0.5rem 0;
}
.earlier {
  margin-top: 1.4rem;
}
</style>
