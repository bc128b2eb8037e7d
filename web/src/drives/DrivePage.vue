<script setup lang="ts">
import { PART_KINDS } from '@moray/core/drives/parts'
import {
  captives,
  caseTest,
  hiddenOnes,
  leftHanded,
  propellerHeld,
  ringLock,
  thrustHubOf,
  wayOf,
} from '@moray/core/drives/graph/unit-facts'
import type { LeakPlan } from '@moray/core/drives/leak-plan'
import { plainDigits } from '@moray/core/units/format'
import { FAMILIES, type Measure } from '@moray/core/drives/sheet'
import { meshGeometry } from '@moray/core/gears/mesh'
import type { Window } from '@moray/core/checks/window'
import { sensitivities } from '@moray/core/setting/train'
import { computed } from 'vue'
import SectionDrawing, { type DrawingTag } from '../drawing/SectionDrawing.vue'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { differences } from '@moray/core/drives/own/differences'
import { lapsedEdges, ofVariant } from '@moray/core/drives/own/variants'
import type { Variant } from '@moray/core/drives/own/variant'
import { waitingText } from './waiting-text.ts'
import LoadState from '../ui/LoadState.vue'
import GraphLists from './GraphLists.vue'
import { edgeName } from './own/difference-words.ts'
import FastenerTable from './FastenerTable.vue'
import TaughtBy from './TaughtBy.vue'
import { serialsOf } from './own/show-figure.ts'
import Button from 'primevue/button'
import { endpoints } from '@moray/contract/endpoints'
import { sensitivityTrust } from '@moray/core/setting/train'
import { RouterLink, useRouter } from 'vue-router'
import { useWrite } from '../writing/use-write.ts'
import { rangeInBoth } from '../ui/both-units.ts'
import { useStillHere } from '../ui/still-here.ts'
import { useUnits } from '../ui/units.ts'
import { keys, useDrives, useQueryClient } from '../wire/queries.ts'

const props = defineProps<{ id: string }>()
const store = useDrives()
const units = useUnits()
const sheet = computed(() => store.sheets?.find((s) => s.id === props.id))
const router = useRouter()
const here = useStillHere()
const client = useQueryClient()
const write = useWrite()
/** On with the draft of the next version, or a new one out of this. */
async function change() {
  const stillHere = here()
  if (!sheet.value?.drafted) {
    const draft = await write.send(endpoints.beginDraft, { id: props.id }, { anew: false })
    if (draft) client.setQueryData(keys.draft(props.id), draft)
    else if (write.error.value?.code !== 'draft-open') return
    void client.invalidateQueries({ queryKey: keys.drives })
  }
  if (stillHere()) void router.push(`/drives/${props.id}/draft`)
}
const trusts = computed(() => (sheet.value ? sensitivityTrust(sheet.value) : {}))
const TRUST = { rule: "the manual's rule", geometry: 'geometry', depth: 'depth', bearing: 'bearing' }
const trustText = (measure: string, stack: string) => {
  const t = trusts.value[measure]?.[stack]
  return t ? `± ${(100 * t.relU).toFixed(0)} %, by ${TRUST[t.from]}` : ''
}
/** What a variant changes, by name. */
const differsIn = (v: Variant) => {
  const body = sheet.value && bodyOf(sheet.value)
  if (!body) return ''
  return differences(body, ofVariant(body, v))
    .filter((d) => d.path !== 'variant' && d.path !== 'variants')
    .map((d) => (d.label ?? d.path).toLowerCase())
    .join(', ')
}
/** Edges of the sheet that lapse, since the variant has not got what they lead to. */
const lapsesIn = (v: Variant) => {
  const body = sheet.value && bodyOf(sheet.value)
  if (!body) return ''
  const nameOf = (id: string) => edgeName(body, id) ?? id
  return lapsedEdges(body, v)
    .map((e) => `${nameOf(e.row)} to ${nameOf(e.to)}`)
    .join(', ')
}
const tags = computed((): DrawingTag[] => [
  ...(sheet.value?.adjusters ?? []).map((a) => ({
    id: `stack:${a.id}`,
    name: a.label,
    value: sheet.value?.lacks?.includes(`adjusters.${a.id}.startMm`) ? '—' : units.digits(a.startMm),
    below: `start, ${units.lengthUnit.value}`,
  })),
  ...(sheet.value?.measures ?? []).map((m) => ({
    id: `measure:${m.id}`,
    name: m.label,
    value: windowText(m),
  })),
])
/** A window in the reader's own unit, which is said once beside it. */
function windowText(m: Measure) {
  const { min, max } = m.window
  const digits = (mm: number | undefined) => (mm === undefined ? '' : units.digits(mm))
  if (min === undefined && max === undefined) return 'no window yet,'
  if (min === undefined) return `≤ ${digits(max)}`
  return max === undefined ? `≥ ${digits(min)}` : `${digits(min)}–${digits(max)}`
}
/** A range of torques, its ends in both systems. */
/** What a case may lose: as the manual prints it, and as a rate. */
const allowed = ({ allowedDrop, allowedMlPerMin, holdMin }: LeakPlan) =>
  [
    allowedDrop &&
      (allowedDrop.kpa === 0
        ? 'no drop'
        : `not more than ${units.value(allowedDrop.kpa, 'kPa')} in ${allowedDrop.minutes ?? holdMin} min`),
    allowedMlPerMin && `${plainDigits(allowedMlPerMin)} ml/min at most`,
  ]
    .filter(Boolean)
    .join(', ')
const between = (w: Window) => rangeInBoth(w, 'Nm', units.imperial.value ? 'imperial' : 'metric')
const nameOf = (id: string) => sheet.value?.parts.find((p) => p.id === id)?.name.toLowerCase() ?? id
/** What the bench has to know beside the gears, in a line each. */
const bench = computed(() => {
  const graph = sheet.value?.graph
  if (!graph) return []
  const leak = caseTest(graph)
  const [held, lock, hidden] = [propellerHeld(graph), ringLock(graph), hiddenOnes(graph)]
  const [letters, oilFeed, tube] = ['race-letters', 'oil-feed', 'water-tube'].map((id) => wayOf(graph, id))
  const noTest = graph.tests?.find((t) => t.id === 'case')?.noTest
  const { openGear, weightKg } = graph.unit ?? {}
  const springs = graph.sealPairs?.[0]?.springs
  return [
    openGear && `Opened in ${openGear}`,
    ...leftHanded(graph).map((g) => `${g.name}: left-hand thread`),
    ...captives(graph).map((g) => `${g.name}: in before it is joined`),
    hidden && `${hidden.count} hidden: ${hidden.where}`,
    lock && `${lock.what}: ${between(lock.torqueNm)}, tabs ${lock.tabs}`,
    letters && `Letters of the races ${letters}`,
    springs && `Seal springs ${springs}`,
    oilFeed && `${oilFeed}: open, in line`,
    tube && `Water tube: ${tube.toLowerCase()}`,
    held?.kind === 'tabs' &&
      `Propeller nut ${between(held.torqueNm)}, tabs ${held.tabs}, threads showing ${held.threads}`,
    held?.kind === 'pin' && 'Propeller on a shear pin',
    thrustHubOf(graph),
    leak
      ? `Leak test ${units.value(leak.workKpa, 'kPa')}, never above ${units.value(leak.maxKpa, 'kPa')}; hold ${leak.holdMin} min; ${allowed(leak)}; blocked: ${leak.ports.join(', ')}`
      : noTest
        ? `No leak test: ${noTest}`
        : 'Leak test: no figures on the sheet yet',
    weightKg !== undefined && `About ${weightKg} kg`,
  ].filter((line): line is string => !!line)
})
const table = computed(() => (sheet.value ? sensitivities(sheet.value) : {}))
function how(m: Measure): string {
  if (m.kind === 'backlash')
    return `on the ${m.member}'s shaft, ${sheet.value?.lacks?.includes(`measures.${m.id}.radiusMm`) ? 'radius not on the sheet yet' : `radius ${units.both(m.radiusMm, 1)}`}. ${m.hold}`
  if (m.kind === 'end-play') return 'stop to stop'
  const { how } = m
  if (how.method === 'master-drop') return `drop from the master of ${units.both(how.masterMm)}`
  if (how.method === 'arbor') return `to an arbor of ${units.both(how.arborDiameterMm)}`
  return `feeler to the block, nominal clearance ${units.both(how.nominalClearanceMm)} at ${units.both(how.nominalDepthMm)}`
}
</script>

<template>
  <LoadState v-if="!store.sheets" what="the drive sheet" :error="store.error" @again="store.load" />
  <p v-else-if="!sheet">There is no drive sheet “{{ id }}”.</p>
  <template v-else>
    <div class="page-head">
      <h1>{{ sheet.name }}</h1>
      <p class="small soft">
        {{ FAMILIES[sheet.family] }}, version {{ sheet.edition ?? sheet.version
        }}{{ sheet.demo ? '. Demo sheet, invented numbers' : '' }}
      </p>
      <div class="acts no-print">
        <RouterLink :to="`/drives/${sheet.id}/compare`">Versions</RouterLink>
        <a
          :href="`/api/drives/${sheet.id}/versions/${sheet.version}/file`"
          :download="`${sheet.id}.sheet.json`"
          >Save as a file</a
        >
        <Button
          :label="sheet.drafted ? 'Open the draft' : 'Change it'"
          class="quiet"
          :disabled="write.busy.value"
          @click="change"
        />
      </div>
    </div>
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
    <p v-if="sheet.waiting" class="caution no-print">
      Typed since version {{ sheet.edition }}, here or at the bench: {{ waitingText(sheet.waiting) }}. New
      jobs work without {{ sheet.waiting === 1 ? 'it' : 'them' }} until then.
      <RouterLink :to="`/drives/${sheet.id}/draft`">Look at the draft</RouterLink>
    </p>
    <div class="two">
      <div>
        <SectionDrawing :sheet="sheet" :tags="tags" :max-height="430" />
        <p class="summary">{{ sheet.summary }}</p>
      </div>
      <div class="data">
        <section v-if="sheet.ratio">
          <h2>Ratio {{ sheet.ratio.overall }}</h2>
          <ul>
            <li v-for="s in sheet.ratio.stamps" :key="s.code">
              <span class="mono">{{ s.code }}</span> {{ s.teeth }}, {{ s.note }}
            </li>
          </ul>
        </section>
        <section v-if="sheet.measures.length">
          <h2>Measures</h2>
          <dl>
            <template v-for="m in sheet.measures" :key="m.id">
              <dt>
                {{ m.label }} <span class="mono">{{ windowText(m) }} {{ units.lengthUnit.value }}</span>
              </dt>
              <dd class="small soft">{{ how(m) }}</dd>
            </template>
          </dl>
        </section>
        <section v-if="sheet.adjusters.length">
          <h2>Stacks and carriers</h2>
          <dl>
            <template v-for="a in sheet.adjusters" :key="a.id">
              <dt>
                {{ a.label }}
                <span class="mono"
                  >{{ units.digits(a.minMm) }}–{{ units.digits(a.maxMm) }} {{ units.lengthUnit.value }}</span
                >
              </dt>
              <dd class="small soft">
                <template v-if="a.leadMm !== undefined"
                  >lead {{ units.both(a.leadMm) }} per turn, {{ a.notches }} notches to lock</template
                >
                <template v-else>
                  {{
                    sheet.lacks?.includes(`adjusters.${a.id}.startMm`)
                      ? 'start as found'
                      : `start ${units.both(a.startMm)}`
                  }}, at most {{ a.maxPieces }} pieces;
                  {{
                    a.moves
                      ? a.effect === 0
                        ? 'which way it moves its gear is not on the sheet yet'
                        : `more shim moves the ${sheet.gears.find((g) => g.id === a.moves)?.label.toLowerCase()} ${a.effect > 0 ? 'outward' : 'inward'}`
                      : 'sets the crush'
                  }}
                </template>
                <template v-for="m in sheet.measures" :key="m.id">
                  <span v-if="table[m.id]?.[a.id]" class="answer"
                    >{{ m.label }}:
                    <span class="mono"
                      >{{ table[m.id]![a.id]! > 0 ? '+' : '' }}{{ table[m.id]![a.id]!.toFixed(3) }}</span
                    >
                    per unit, {{ trustText(m.id, a.id) }}</span
                  >
                </template>
              </dd>
            </template>
          </dl>
        </section>
        <TaughtBy v-if="sheet.edition !== undefined" :sheet="sheet" />
        <section v-if="sheet.meshes.length">
          <h2>Gears</h2>
          <dl>
            <template v-for="m in sheet.meshes" :key="m.id">
              <dt>
                {{ m.label }} <span class="mono">{{ m.mesh.pinionTeeth }} : {{ m.mesh.gearTeeth }}</span>
              </dt>
              <dd class="small soft">
                <template v-if="m.basis === 'drawn'"
                  >geometry not known yet; only the manual's rules say how backlash answers</template
                ><template v-else>
                  module {{ Number(m.mesh.moduleMm.toFixed(3))
                  }}{{ m.basis === 'measured' ? ' by calliper' : '' }}, face
                  {{ units.both(m.mesh.faceWidthMm, 1) }}, pressure angle
                  {{ m.mesh.pressureAngleDeg ?? 20 }}°, spiral {{ m.mesh.spiralAngleDeg ?? 0 }}°; pitch angles
                  {{ meshGeometry(m.mesh).pinionPitchAngleDeg.toFixed(1) }}° and
                  {{ meshGeometry(m.mesh).gearPitchAngleDeg.toFixed(1) }}°</template
                >
              </dd>
            </template>
          </dl>
        </section>
        <section>
          <h2>Bearings, seals, limits</h2>
          <ul class="small">
            <li v-for="b in sheet.bearings" :key="b.id">
              {{ b.label }}
              <template v-if="b.setting?.kind === 'rolling-torque'"
                ><span class="mono">{{ between(b.setting.newNm) }}</span> new<template
                  v-if="b.setting.runInNm"
                  >, <span class="mono">{{ between(b.setting.runInNm) }}</span> run in</template
                ></template
              >
              <template v-else-if="b.setting?.kind === 'crush'"
                >crush <span class="mono">{{ units.both(b.setting.crushMm) }}</span></template
              >
            </li>
            <li v-for="s in sheet.seals" :key="s.id">{{ s.label }}</li>
            <li v-for="r in sheet.runoutLimits" :key="r.zone">
              Runout, {{ r.zone.toLowerCase() }}: <span class="mono">{{ units.both(r.tirMm) }}</span> TIR
            </li>
            <li v-if="sheet.oilCapacityMl">Oil <span class="mono">{{ sheet.oilCapacityMl }} ml</span></li>
          </ul>
        </section>
        <section>
          <h2>On the bench</h2>
          <ul class="small">
            <li v-for="fact in bench" :key="fact">{{ fact }}</li>
          </ul>
        </section>
      </div>
    </div>
    <section v-if="sheet.fasteners?.length" aria-label="Fasteners" class="parts">
      <h2>Fasteners</h2>
      <FastenerTable :fasteners="sheet.fasteners" />
    </section>
    <GraphLists :sheet="sheet" />
    <section v-if="sheet.variants?.length" aria-label="Variants" class="parts">
      <h2>Variants</h2>
      <ul class="small">
        <li v-for="v in sheet.variants" :key="v.id">
          <strong>{{ v.label }}</strong> {{ serialsOf(v) }}: {{ differsIn(v)
          }}<span v-if="lapsesIn(v)">. Lapses with what it has not: {{ lapsesIn(v) }}</span>
        </li>
      </ul>
    </section>
    <section v-if="sheet.service?.length" aria-label="Service" class="parts">
      <h2>Service</h2>
      <ul class="small">
        <li v-for="s in sheet.service" :key="s.id">
          {{ s.what }}:
          {{
            [
              s.months && `every ${s.months} months`,
              s.saltMonths && `every ${s.saltMonths} in salt`,
              s.hours && `every ${s.hours} h`,
            ]
              .filter(Boolean)
              .join(', ')
          }}
        </li>
      </ul>
    </section>
    <section v-if="sheet.parts.length" aria-label="Parts" class="parts">
      <h2>Parts, in the order in which they come off</h2>
      <div class="scroll">
        <table class="ledger fine">
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Kind</th>
              <th scope="col">Off after</th>
              <th scope="col">Sold as</th>
              <th scope="col">Price</th>
              <th scope="col">Waiting</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="p in sheet.parts" :key="p.id">
              <td>{{ p.name }}<template v-if="p.count > 1"> × {{ p.count }}</template></td>
              <td>{{ PART_KINDS[p.kind] }}</td>
              <td>{{ p.after.map(nameOf).join(', ') }}</td>
              <td>{{ p.set ?? p.kit ?? '' }}</td>
              <td class="mono">{{ p.price ?? '' }}</td>
              <td class="mono">{{ p.waitDays === undefined ? '' : `${p.waitDays} d` }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  </template>
</template>

<style scoped>
.acts {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
}
@media (max-width: 600px) {
  .acts {
    margin-left: 0;
  }
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(18rem, 1fr);
  gap: 1.6rem;
}
.data section {
  border-top: 1px solid var(--line);
  padding: 0.6rem 0;
}
.data section:first-child {
  border-top: 2px solid var(--ink);
}
dt {
  margin-top: 0.3rem;
}
dd {
  margin: 0;
}
.answer {
  display: block;
}
.parts {
  margin-top: 1.2rem;
}
.scroll {
  overflow-x: auto;
}
.summary {
  margin-top: 0.6rem;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
