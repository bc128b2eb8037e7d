<script setup lang="ts">
import type {
  ChangeRowPart,
  GivePartGrade,
  LayInRow,
  MakeEstimate,
  RecordApproval,
} from '@moray/contract/requests/parts'
import type { AddFigure } from '@moray/contract/requests/sheets'
import { endpoints } from '@moray/contract/endpoints'
import type { RowPart } from '@moray/core/job/record'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import PictureStrip from './pictures/PictureStrip.vue'
import { answer, stateOf, type Answered } from '../writing/for-panels.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import { useStillHere } from '../ui/still-here.ts'
import { useJob } from './shown-job.ts'
import type { Laid } from './parts/row-view.ts'
import EstimateView from './parts/EstimateView.vue'
import GradesView from './parts/GradesView.vue'
import RowView from './parts/RowView.vue'
import SaveCsv from '../ui/SaveCsv.vue'
import { partsTable } from './parts/parts-csv.ts'

/** Parts of a job: the row on the bench, the grades, the estimate. The address says which. */
const store = useJob()
const route = useRoute()
const job = computed(() => store.job!)
const views = computed(() => {
  const { facts } = job.value
  return [
    { id: 'row', label: 'Row', note: `${Number(facts['row.left'])} on the bench` },
    {
      id: 'grades',
      label: 'Grades',
      note: Number(facts['grades.open']) ? `${Number(facts['grades.open'])} open` : 'all given',
    },
    {
      id: 'estimate',
      label: 'Estimate',
      note: facts['estimate.choice'] ? String(facts['estimate.choice']) : 'no decision',
    },
  ]
})
const router = useRouter()
const here = useStillHere()
const write = useJobWrite()
const decision = useJobWrite()
const figure = useJobWrite()
const figures = stateOf(figure)
const at = computed(() => ({ id: job.value.id }))
const part = computed(() => String(route.query.part ?? ''))
watch([() => route.query.view, part], () => write.clear())

/** A scanner is faster than the line: what is laid waits its turn, and comes back into the field when it is refused. */
const refused = ref<{ laid: Laid; early: boolean } | null>(null)
async function lay(body: LayInRow, laid: Laid) {
  const reply = await write.send(endpoints.layInRow, at.value, body)
  refused.value = reply ? null : { laid, early: write.error.value?.code === 'too-early' }
}
const changePart = (t: RowPart, body: ChangeRowPart) =>
  write.send(endpoints.changeRowPart, { ...at.value, part: t.id }, body)
const orderRow = (ids: string[]) => write.send(endpoints.orderRow, at.value, { ids })

const goPart = (id?: string) => router.replace({ query: { view: 'grades', ...(id ? { part: id } : {}) } })
async function give(body: GivePartGrade) {
  const stillHere = here()
  if ((await write.send(endpoints.gradePart, at.value, body)) && stillHere()) await goPart()
}
const addFigure = (body: AddFigure, answered: Answered) =>
  answer(figure.send(endpoints.addFigure, at.value, body), answered)
const make = (body: MakeEstimate) => write.send(endpoints.makeEstimate, at.value, body)
const decide = (body: RecordApproval) => decision.send(endpoints.recordApproval, at.value, body)

const view = computed(() => views.value.find((v) => v.id === route.query.view)?.id ?? 'row')
const table = computed(() => partsTable(job.value, view.value))
</script>

<template>
  <div>
    <nav class="views" aria-label="Parts">
      <RouterLink
        v-for="v in views"
        :key="v.id"
        :to="{ query: { view: v.id } }"
        replace
        :class="{ on: view === v.id }"
        :aria-current="view === v.id ? 'page' : undefined"
      >
        {{ v.label }} <span class="small soft">{{ v.note }}</span>
      </RouterLink>
      <SaveCsv
        v-if="table.rows.length"
        :name="table.name"
        :columns="table.columns"
        :rows="() => table.rows"
        class="table"
      />
    </nav>
    <RowView
      v-if="view === 'row'"
      :job="job"
      :busy="write.busy.value"
      :error="write.error.value?.message ?? ''"
      :refused="refused"
      @lay="lay"
      @change="changePart"
      @order="orderRow"
    >
      <template #pictures="{ of }">
        <PictureStrip :job="job" subject="part" :of="of" compact />
      </template>
    </RowView>
    <GradesView
      v-else-if="view === 'grades'"
      :job="job"
      :at="part"
      :busy="write.busy.value"
      :error="write.error.value?.message ?? ''"
      :figures="figures"
      @go="goPart"
      @give="give"
      @figure="addFigure"
    >
      <template #pictures="{ part: graded }">
        <PictureStrip :key="graded" :job="job" subject="grade" :of="graded" />
      </template>
    </GradesView>
    <EstimateView
      v-else
      :job="job"
      :busy="write.busy.value || decision.busy.value"
      :error="write.error.value?.message ?? ''"
      :decision-error="decision.error.value?.message ?? ''"
      @make="make"
      @decide="decide"
    />
  </div>
</template>

<style scoped>
.views {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.4rem;
  margin-bottom: 0.8rem;
}
.views .table {
  margin-left: auto;
}
.views a {
  min-height: 44px;
  display: inline-flex;
  gap: 0.5rem;
  align-items: center;
  text-decoration: none;
  border-bottom: 3px solid transparent;
}
.views a.on {
  font-weight: 700;
  border-bottom-color: var(--ink);
}
</style>
