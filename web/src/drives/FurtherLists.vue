<script setup lang="ts">
import type { Further } from '@moray/core/drives/further'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { rangeInBoth } from '../ui/both-units.ts'
import { useOwn } from '../stores/own.ts'
import { useUnits } from '../ui/units.ts'

/** What a sheet says besides its figures, list by list; what it does not say is not there. */
const props = defineProps<{ further: Further }>()
const own = useOwn()
const units = useUnits()
const said = (...parts: (string | undefined | false)[]) => parts.filter(Boolean).join(', ')
const MOVES = { turns: 'turns there', slides: 'slides there', nothing: 'nothing moves there' }
const HELD = {
  'tab-washer': 'nut with tab washer',
  'castle-pin': 'castle nut and split pin',
  'spring-washer': 'nut with spring washer',
  'shear-pin': 'shear pin',
  'self-locking': 'self-locking nut',
}
const lists = computed(() => {
  const f = props.further
  return [
    { title: 'Joints', rows: f.closures?.map((c) => [c.name, said(c.sealedBy, c.tested && 'proved tight')]) },
    {
      title: 'Seals',
      rows: f.sealDetails?.map((s) => [
        s.name,
        said(
          s.size,
          s.order !== undefined && `number ${s.order} in its bore`,
          s.springs && `spring ${s.springs}`,
          s.depth,
          s.film,
          s.moves && MOVES[s.moves],
        ),
      ]),
    },
    {
      title: 'Rod and lever',
      rows: f.shiftStates?.map((s) => [
        s.act,
        said(s.gear, s.rod, s.heightMm !== undefined && units.both(s.heightMm, 1)),
      ]),
    },
    {
      title: 'Propellers',
      rows: f.propellers?.map((p) => [
        p.name,
        said(
          p.place && p.place !== 'only' && p.place,
          HELD[p.held],
          p.torqueNm && rangeInBoth(p.torqueNm, 'Nm', own.first),
          p.turnsForward && `${p.turnsForward}-hand in forward`,
          p.washers?.join(', '),
        ),
      ]),
    },
    {
      title: 'Anodes',
      rows: f.anodes?.map((a) => [
        a.count && a.count > 1 ? `${a.place} × ${a.count}` : a.place,
        said(
          a.salt && `salt ${a.salt}`,
          a.brackish && `brackish ${a.brackish}`,
          a.fresh && `fresh ${a.fresh}`,
        ),
      ]),
    },
    {
      title: 'Tools',
      rows: f.tools?.map((t) => [t.name, said(t.substitute && `or ${t.substitute}`, t.serials)]),
    },
    {
      title: 'Which way up',
      rows: f.attitudes?.map((a) => [a.act, said(a.up, a.falls && `falls out: ${a.falls}`)]),
    },
    { title: 'Cautions', rows: f.cautions?.map((c) => [c, '']) },
  ].filter((l) => l.rows?.length)
})
</script>

<template>
  <div class="further">
    <p v-if="further.plateAt || further.stampsAt || further.trimTab || further.partner" class="small">
      <template v-if="further.plateAt">Plate: {{ further.plateAt }}. </template>
      <template v-if="further.stampsAt">Stamps: {{ further.stampsAt }}. </template>
      <template v-if="further.trimTab">Trim tab: {{ further.trimTab }}. </template>
      <template v-if="further.partner"
        >Its other half:
        <RouterLink :to="`/drives/${further.partner}`">{{ further.partner }}</RouterLink></template
      >
    </p>
    <section v-for="l in lists" :key="l.title" :aria-label="l.title">
      <h2>{{ l.title }}</h2>
      <ul class="small">
        <li v-for="([name, about], i) in l.rows" :key="i">
          {{ name }}<span v-if="about" class="soft">: {{ about }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.further {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 22rem), 1fr));
  gap: 0.8rem 1.6rem;
  margin-top: 1.2rem;
}
section {
  border-top: 1px solid var(--line);
  padding-top: 0.4rem;
}
.further > p {
  grid-column: 1 / -1;
}
</style>
