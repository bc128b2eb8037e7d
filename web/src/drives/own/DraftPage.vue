<script setup lang="ts">
import { checkBody } from '@moray/core/route/check-body'
import { enteredAtBench } from '@moray/core/drives/own/from-bench'
import { hanging } from '@moray/core/drives/own/hanging'
import { figureFields } from '@moray/core/drives/own/figures'
import { FIGURE_GROUPS, type FigureGroup } from '@moray/core/drives/own/figure-field'
import { readiness } from '@moray/core/drives/own/readiness'
import { FAMILIES } from '@moray/core/drives/sheet'
import { ofVariant } from '@moray/core/drives/own/variants'
import Button from 'primevue/button'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import LoadState from '../../ui/LoadState.vue'
import { useDraft } from '../../wire/queries.ts'
import HangingList from '../lists/HangingList.vue'
import ListsView from '../lists/ListsView.vue'
import UndoButtons from '../lists/UndoButtons.vue'
import { ROW_TABS, rowTabOf, type RowTab } from '../row-forms.ts'
import DraftNav from './DraftNav.vue'
import { LISTS, type Tab } from './draft-tabs.ts'
import FiguresPane from './FiguresPane.vue'
import PublishDialog from './PublishDialog.vue'
import RemarksForm from './RemarksForm.vue'
import SourceLine from './SourceLine.vue'
import StructureList from './StructureList.vue'

/** The next version of a sheet: figures in the order of a manual, lists as its tables print them, and what each of them unlocks. */
const props = defineProps<{ id: string }>()
const store = useDraft(() => props.id)
const route = useRoute()
const router = useRouter()

/** Which of the variants is typed for; '' is for all of them. */
const variantId = computed(() => {
  const asked = String(route.query.of ?? '')
  return store.draft?.body.variants?.some((v) => v.id === asked) ? asked : ''
})
const variant = computed(() => store.draft?.body.variants?.find((v) => v.id === variantId.value))
/** What is shown: the sheet, or the sheet as it is of the variant. */
const body = computed(() =>
  store.draft && variant.value ? ofVariant(store.draft.body, variant.value) : store.draft?.body,
)
const ofWhich = (of: string) => void router.replace({ query: { ...route.query, of: of || undefined } })
const fields = computed(() => (body.value ? figureFields(body.value) : []))
const groups = computed(() =>
  (Object.keys(FIGURE_GROUPS) as FigureGroup[])
    .map((group) => ({ group, fields: fields.value.filter((f) => f.group === group) }))
    .filter((g) => g.fields.length),
)
const tab = computed<Tab>(() => {
  const asked = String(route.query.at ?? '')
  if (asked in LISTS) return asked as Tab
  return groups.value.find((g) => g.group === asked)?.group ?? groups.value[0]?.group ?? 'made'
})
const open = (at: Tab) => void router.replace({ query: { ...route.query, at } })
const shown = computed(() => groups.value.find((g) => g.group === tab.value)?.fields ?? [])
const ready = computed(() => (body.value ? readiness(body.value) : []))
const findings = computed(() => (body.value ? checkBody(body.value) : { wrong: [], doubtful: [] }))
const loose = computed(() =>
  store.draft ? hanging(store.draft.body).length + enteredAtBench(store.draft.body).length : 0,
)

const pane = useTemplateRef<InstanceType<typeof FiguresPane>>('pane')
const rowAt = ref<{ list: string; id: string; field?: string | undefined }>()
/** To a figure, or to the row of a list that a path names. */
async function go(path: string) {
  const field = fields.value.find((f) => f.path === path)
  if (!field) {
    const [, list, index] = /^([a-z]+)\[(\d+)\]/i.exec(path) ?? []
    const rows = list && (body.value as unknown as Record<string, { id: string }[] | undefined>)[list]
    const row = rows ? rows[Number(index)] : undefined
    return row ? goRow(list!, row.id) : open(rowTabOf(path) ?? 'made')
  }
  open(field.group)
  await nextTick()
  await nextTick()
  void pane.value?.focus(path)
}
function goRow(list: string, id: string, field?: string) {
  rowAt.value = { list, id, field }
  open(rowTabOf(list) ?? 'made')
}
const publishing = ref(false)
const sent = computed(() => store.draft && `by ${store.draft.changedBy}`)
function exported() {
  const url = URL.createObjectURL(
    new Blob([JSON.stringify(body.value, null, 2)], { type: 'application/json' }),
  )
  const a = document.createElement('a')
  a.href = url
  a.download = `${props.id}.sheet.json`
  a.click()
  URL.revokeObjectURL(url)
}
const isList = computed(() => tab.value in LISTS)
</script>

<template>
  <LoadState v-if="!store.draft || !body" what="the draft" :error="store.error" @again="store.load">
    <RouterLink :to="`/drives/${id}`">To the sheet, where a draft is begun</RouterLink>
  </LoadState>
  <template v-else>
    <div class="page-head">
      <h1>{{ body.name }}</h1>
      <p class="small soft">
        {{ FAMILIES[body.family] }} ·
        {{
          store.draft.edition === null ? 'nothing published yet' : `next version after ${store.draft.edition}`
        }}
        · last typed {{ sent }}
      </p>
      <div class="acts">
        <UndoButtons :draft="store.draft" />
        <RouterLink v-if="store.draft.version !== null" :to="`/drives/${id}`"
          >Version {{ store.draft.edition }}</RouterLink
        >
        <button type="button" class="texty" @click="exported">Save as a file</button>
        <Button label="Check and publish" class="lamp" @click="publishing = true" />
      </div>
    </div>
    <div class="draft">
      <DraftNav
        :body="body"
        :tab="tab"
        :groups="groups"
        :fields="fields"
        :variants="store.draft.body.variants ?? []"
        :variant-id="variantId"
        :ready="ready"
        :loose="loose"
        @open="open"
        @variant="ofWhich"
        @go="go"
      />
      <FiguresPane
        v-if="!isList"
        ref="pane"
        :draft="store.draft"
        :body="body"
        :variant="variant"
        :all="fields"
        :fields="shown"
        :findings="findings"
        :label="FIGURE_GROUPS[tab as FigureGroup]"
        @changed="store.load"
        @go="go"
      />
      <section v-else class="list" :aria-label="LISTS[tab as keyof typeof LISTS]">
        <StructureList v-if="tab === 'made'" :draft="store.draft" />
        <HangingList v-else-if="tab === 'loose'" :draft="store.draft" @go="goRow" />
        <template v-else>
          <div class="typed">
            <SourceLine :id="id" />
            <p class="small soft">
              Enter: next line. Tab: next column. Three letters pick a row; a ? after them: not known, asked
              at the bench.
            </p>
          </div>
          <ListsView :key="tab" :draft="store.draft" :forms="ROW_TABS[tab as RowTab]" :at="rowAt" @go="goRow">
            <RemarksForm v-if="tab === 'others'" :draft="store.draft" />
          </ListsView>
        </template>
      </section>
    </div>
    <PublishDialog v-if="publishing" :draft="store.draft" @close="publishing = false" @go="go" />
  </template>
</template>

<style scoped>
.acts {
  margin-left: auto;
  display: flex;
  gap: 1rem;
  align-items: center;
  flex-wrap: wrap;
}
.draft {
  display: grid;
  grid-template-columns: 13rem minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.list {
  min-width: 0;
}
.typed {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.2rem;
  align-items: end;
  padding-bottom: 0.4rem;
}
.typed p {
  flex: 1 1 18rem;
  margin: 0;
}
@media (max-width: 760px) {
  .draft {
    grid-template-columns: minmax(0, 1fr);
  }
  .acts {
    margin-left: 0;
  }
}
</style>
