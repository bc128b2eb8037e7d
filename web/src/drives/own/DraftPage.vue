<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { figureAt } from '@moray/core/drives/own/body'
import { checkBody } from '@moray/core/route/check-body'
import { filled } from '@moray/core/drives/own/fill'
import { meantByFeeler } from '@moray/core/drives/own/feeler-window'
import { figureFields } from '@moray/core/drives/own/figures'
import { FIGURE_GROUPS, type FigureField, type FigureGroup } from '@moray/core/drives/own/figure-field'
import { readiness } from '@moray/core/drives/own/readiness'
import { sourceOf, type SourceKind } from '@moray/core/drives/own/source'
import { FAMILIES } from '@moray/core/drives/sheet'
import { ofVariant } from '@moray/core/drives/own/variants'
import { useStorage } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, nextTick, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import SectionDrawing, { type DrawingTag } from '../../drawing/SectionDrawing.vue'
import { useOwn } from '../../stores/own.ts'
import LoadState from '../../ui/LoadState.vue'
import { useDraft, keys, useQueryClient } from '../../wire/queries.ts'
import { useWrite } from '../../writing/use-write.ts'
import FigureInput from './FigureInput.vue'
import PublishDialog from './PublishDialog.vue'
import ReadinessList from './ReadinessList.vue'
import RemarksForm from './RemarksForm.vue'
import RowLists from './RowLists.vue'
import StructureList from './StructureList.vue'
import { ROW_TABS, rowTabOf, type RowTab } from '../row-forms.ts'
import { countFilled, figureText, figureUnit, rangeAsTyped } from './show-figure.ts'

/** The next version of a sheet, typed beside its live drawing: figures in the order of the manual, and what each of them unlocks. */
const props = defineProps<{ id: string }>()
const store = useDraft(() => props.id)
const own = useOwn()
const client = useQueryClient()
const route = useRoute()
const router = useRouter()
const write = useWrite()

const LISTS = {
  made: 'What it is made of',
  groups: 'Fasteners',
  parts: 'Parts',
  joints: 'Joints and spaces',
  others: 'Seals, tools and the like',
}
type Tab = FigureGroup | keyof typeof LISTS
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
const ofWhich = (e: Event) =>
  void router.replace({ query: { ...route.query, of: (e.target as HTMLSelectElement).value || undefined } })
/** The source of a figure; of a variant its own, where it has one. */
const sourceAt = (path: string) => {
  const all = store.draft?.body.sources
  return (variant.value && sourceOf(all, `variants.${variant.value.id}.${path}`)) ?? sourceOf(all, path)
}
const sheet = computed(() => body.value && filled(body.value))
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

/** Where what is typed now comes from: kept, since one goes through a manual page by page. */
const from = useStorage<'usual' | SourceKind>(`moray.from.${props.id}`, 'usual')
const page = useStorage(`moray.page.${props.id}`, '')
const at = ref('')
const lit = computed(() => fields.value.find((f) => f.path === at.value)?.place ?? '')
const refused = ref<{ path: string; why: string } | null>(null)

async function set(field: FigureField, text: string, assumed = false) {
  const source = assumed ? 'assumed' : from.value === 'usual' ? field.usual : from.value
  const unit = figureUnit(field, own.first)
  const was = figureAt(body.value!, field.path)
  const reply = await write.send(
    endpoints.setFigure,
    { id: props.id },
    {
      path: field.path,
      text,
      source,
      was: was === undefined ? '' : JSON.stringify(was),
      ...(variant.value ? { variant: variant.value.id } : {}),
      ...(unit === undefined ? {} : { unit }),
      ...(page.value.trim() && source === 'manual' ? { where: page.value.trim() } : {}),
    },
  )
  // what is wrong with another figure stays in its place: a line that goes would move the button under the hand
  if (reply && refused.value?.path !== field.path) return client.setQueryData(keys.draft(props.id), reply)
  refused.value = reply
    ? null
    : { path: field.path, why: write.error.value?.fields[0]?.message ?? write.error.value?.message ?? '' }
  if (reply) client.setQueryData(keys.draft(props.id), reply)
  else if (write.error.value?.code === 'changed-meanwhile') await store.load()
}
async function check(paths: string[]) {
  const reply = await write.send(endpoints.checkFigures, { id: props.id }, { paths })
  if (reply) client.setQueryData(keys.draft(props.id), reply)
}
const unchecked = computed(() =>
  shown.value.map((f) => f.path).filter((p) => sourceOf(body.value?.sources, p)?.unchecked),
)
async function go(path: string) {
  const field = fields.value.find((f) => f.path === path)
  if (!field) return open(rowTabOf(path) ?? 'made')
  open(field.group)
  at.value = path
  await nextTick()
  const row = document.querySelector<HTMLElement>(`[data-path="${CSS.escape(path)}"]`)
  row?.scrollIntoView({ block: 'center' })
  row?.querySelector<HTMLElement>('[data-figure]')?.focus()
}
/** The first figure of a place on the drawing. */
const pick = (place: string) => {
  const field = fields.value.find((f) => f.place === place)
  if (field) void go(field.path)
}
/** What a window of the depth means that can only be the feeler's: offered as what it is. */
function meantBy(field: FigureField): { text: string; label: string } | undefined {
  const meant = body.value && meantByFeeler(body.value, field.path)
  if (!meant) return undefined
  const text = rangeAsTyped(meant, own.first)
  return { text, label: `It is the feeler's: the depth is then ${text}` }
}
const wrongAt = (path: string) =>
  (refused.value?.path === path ? refused.value.why : undefined) ??
  findings.value.wrong.find((w) => w.path === path)?.message ??
  findings.value.doubtful.find((w) => w.path === path)?.message

const tags = computed((): DrawingTag[] => {
  if (!body.value) return []
  const brief = (path: string) => {
    const field = fields.value.find((f) => f.path === path)
    const value = figureAt(body.value!, path)
    const text = sourceOf(body.value!.sources, path)?.as
    return value === undefined || !field
      ? '—'
      : (text ?? figureText(field, value, own.first).split(' · ')[0]!)
  }
  return [
    ...body.value.adjusters.map((a) => ({
      id: `stack:${a.id}`,
      name: a.label,
      value: brief(`adjusters.${a.id}.startMm`),
    })),
    ...body.value.measures.map((m) => ({
      id: `measure:${m.id}`,
      name: m.label,
      value: brief(`measures.${m.id}.window`),
    })),
  ]
})
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
</script>

<template>
  <LoadState v-if="!store.draft || !body || !sheet" what="the draft" :error="store.error" @again="store.load">
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
        <RouterLink v-if="store.draft.version !== null" :to="`/drives/${id}`"
          >Version {{ store.draft.edition }}</RouterLink
        >
        <button type="button" class="texty" @click="exported">Save as a file</button>
        <Button label="Check and publish" class="lamp" @click="publishing = true" />
      </div>
    </div>
    <div class="draft">
      <nav class="groups" aria-label="Groups of figures">
        <label v-if="store.draft.body.variants?.length" class="which"
          >Typing for
          <select :value="variantId" @change="ofWhich">
            <option value="">all of them</option>
            <option v-for="v in store.draft.body.variants" :key="v.id" :value="v.id">
              only {{ v.label }}
            </option>
          </select></label
        >
        <ul>
          <li v-for="g in groups" :key="g.group">
            <button
              type="button"
              :class="{ on: tab === g.group }"
              :aria-current="tab === g.group"
              @click="open(g.group)"
            >
              <span>{{ FIGURE_GROUPS[g.group] }}</span>
              <span class="mono small">{{ countFilled(body, g.fields) }}/{{ g.fields.length }}</span>
            </button>
          </li>
          <li v-for="(label, list) in LISTS" :key="list">
            <button
              type="button"
              :class="{ on: tab === list }"
              :aria-current="tab === list"
              @click="open(list)"
            >
              <span>{{ label }}</span>
              <span class="mono small">{{
                list === 'groups' ? (body.groups?.length ?? 0) : list === 'parts' ? body.parts.length : ''
              }}</span>
            </button>
          </li>
        </ul>
        <h2>What it can do</h2>
        <ReadinessList :rows="ready" :fields="fields" @go="go" />
      </nav>
      <section class="picture" aria-label="Section">
        <SectionDrawing :sheet="sheet" :tags="tags" :lit="lit" :max-height="470" @pick="pick" />
        <p v-if="findings.wrong.length" class="fault small">
          {{ findings.wrong.length }} figures cannot be as they stand:
          <button
            v-for="w in findings.wrong.slice(0, 3)"
            :key="w.path + w.message"
            type="button"
            class="texty small"
            @click="go(w.path)"
          >
            {{ w.message }}
          </button>
        </p>
      </section>
      <section
        class="fields"
        :aria-label="tab in LISTS ? LISTS[tab as keyof typeof LISTS] : FIGURE_GROUPS[tab as FigureGroup]"
      >
        <label class="jump"
          ><span class="sr-only">Group of figures</span>
          <select :value="tab" @change="open(($event.target as HTMLSelectElement).value as Tab)">
            <option v-for="g in groups" :key="g.group" :value="g.group">
              {{ FIGURE_GROUPS[g.group] }}, {{ countFilled(body, g.fields) }} of {{ g.fields.length }}
            </option>
            <option v-for="(label, list) in LISTS" :key="list" :value="list">{{ label }}</option>
          </select></label
        >
        <template v-if="!(tab in LISTS)">
          <p v-if="variant" class="caution">
            Typed for {{ variant.label }} only; what is taken out holds as for all of them.
          </p>
          <div class="from">
            <label
              >From
              <select v-model="from">
                <option value="usual">manual, counted, measured: as usual</option>
                <option value="manual">the manual</option>
                <option value="plate">plate or stamp</option>
                <option value="counted">counted</option>
                <option value="measured">measured</option>
                <option value="assumed">assumed</option>
              </select>
            </label>
            <label class="leaf"
              >Page <input v-model="page" maxlength="40" inputmode="numeric" autocomplete="off"
            /></label>
          </div>
          <p v-if="unchecked.length" class="caution">
            {{ unchecked.length }} figures here came with somebody else's sheet.
            <button type="button" class="texty small" @click="check(unchecked)">
              All of them stand so in my manual
            </button>
          </p>
          <div v-for="f in shown" :key="f.path" :data-path="f.path">
            <FigureInput
              :field="f"
              :value="figureAt(body, f.path)"
              :source="sourceAt(f.path)"
              :first="own.first"
              :problem="wrongAt(f.path)"
              :meant="meantBy(f)"
              @set="(text) => set(f, text)"
              @assume="(text) => set(f, text, true)"
              @check="check([f.path])"
              @at="at = f.path"
            />
          </div>
        </template>
        <StructureList v-else-if="tab === 'made'" :draft="store.draft" />
        <RowLists v-else :draft="store.draft" :forms="ROW_TABS[tab as RowTab]">
          <RemarksForm v-if="tab === 'others'" :draft="store.draft" />
        </RowLists>
        <p v-if="write.error.value && !refused" class="fault" role="alert">{{ write.error.value.message }}</p>
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
  grid-template-columns: 15rem minmax(0, 1fr) minmax(22rem, 27rem);
  gap: 1.2rem;
  align-items: start;
}
.groups li button {
  display: flex;
  justify-content: space-between;
  gap: 0.5rem;
  align-items: center;
  width: 100%;
  min-height: 40px;
  padding: 0 0.5rem;
  text-align: left;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
.groups > ul > li > button.on {
  background: var(--lamp);
  color: var(--lamp-ink);
}
/* on a phone the list of groups stands below what is typed */
.jump {
  display: none;
}
.jump select {
  width: 100%;
  min-height: 48px;
  font: inherit;
  font-weight: 700;
  color: var(--lamp-ink);
  background: var(--lamp);
  border: 1px solid var(--ink);
}
.which {
  display: grid;
  margin-bottom: 0.6rem;
}
.which select {
  min-height: 44px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
.groups h2 {
  margin-top: 1rem;
}
.fields,
.picture {
  min-width: 0;
}
.fields {
  max-height: calc(100vh - 11rem);
  overflow-y: auto;
  border-top: 2px solid var(--ink);
}
.from {
  display: flex;
  align-items: end;
  gap: 0.6rem;
  padding: 0.5rem 0;
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
.from label {
  display: grid;
  grid-template-rows: 1.3rem 44px;
  min-height: 0;
  font-size: var(--t-small);
  flex: 1;
  min-width: 0;
}
.from .leaf {
  flex: 0 0 6rem;
}
.from :is(select, input) {
  height: 44px;
  width: 100%;
  padding: 0 0.4rem;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
@media (max-width: 1100px) {
  .draft {
    grid-template-columns: minmax(0, 1fr) minmax(20rem, 26rem);
  }
  .picture {
    grid-column: 1 / -1;
    grid-row: 1;
  }
}
@media (max-width: 760px) {
  .draft {
    grid-template-columns: minmax(0, 1fr);
  }
  .fields {
    max-height: none;
    grid-row: 2;
  }
  .jump {
    display: block;
  }
  .acts {
    margin-left: 0;
  }
}
</style>
