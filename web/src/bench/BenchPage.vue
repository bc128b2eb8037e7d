<script setup lang="ts">
import type { JobSummary } from '@moray/contract/replies'
import { isOver } from '@moray/core/job/record'
import { stageLabel, waitsText } from '@moray/core/job/standing-text'
import { refDebounced } from '@vueuse/core'
import InputText from 'primevue/inputtext'
import { computed, defineAsyncComponent, ref, useTemplateRef, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import Button from 'primevue/button'
import LoadState from '../ui/LoadState.vue'
import { showAgo, showClock } from '../ui/times.ts'
import { asWireError, type WireError } from '../wire/client.ts'
import { readJobs, useJobs } from '../wire/found.ts'
import CopyNotice from './CopyNotice.vue'
import { useStands } from './stands.ts'

/** What a new job is reached by needs the sheets and the route: it comes when somebody asks for it. */
const BenchCsv = defineAsyncComponent(() => import('./BenchCsv.vue'))
const NewJobDialog = defineAsyncComponent(() => import('./NewJobDialog.vue'))

const route = useRoute()
const router = useRouter()
const opening = ref(false)

const search = ref(String(route.query.find ?? ''))
watch(search, (find) => void router.replace({ query: find ? { find } : {} }))
/** The server searches: it has them all. */
const wanted = refDebounced(
  computed(() => search.value.trim().slice(0, 80)),
  250,
)
const open = useJobs('open', wanted)
const over = useJobs('over', wanted)
const shop = useStands()

const found = computed(() => open.jobs ?? [])
const byStand = (jobs: JobSummary[]) => [...jobs].sort((a, b) => a.stand!.localeCompare(b.stand!))
const onStands = computed(() => byStand(found.value.filter((j) => j.stand)))
const waiting = computed(() => found.value.filter((j) => !j.stand))
const groups = computed(() =>
  [
    { name: 'On the stands', jobs: onStands.value, big: true, list: null, more: '' },
    { name: 'On no stand', jobs: waiting.value, big: false, list: open, more: 'Show more' },
    { name: 'Over', jobs: over.jobs ?? [], big: false, list: over, more: 'Show older ones' },
  ].filter((g) => g.jobs.length),
)
const since = (j: JobSummary) => showAgo(j.touchedAt)
/** Where the work of the job is: its record when it is over, Setting while it is measured, else its route. */
const to = (j: JobSummary) =>
  `/jobs/${j.id}/${isOver(j.state) ? 'record' : j.stage === 'setting' ? 'setting' : 'route'}`

/** Arrow keys walk the jobs; Enter in the search opens the first. */
const list = useTemplateRef<HTMLElement>('list')
function walk(e: KeyboardEvent, by: number) {
  const links = [...(list.value?.querySelectorAll<HTMLElement>('a.job') ?? [])]
  const at = links.indexOf(document.activeElement as HTMLElement)
  const next = links[Math.max(0, Math.min(links.length - 1, at + by))]
  if (!next) return
  e.preventDefault()
  next.focus()
}
const failed = ref<WireError | null>(null)
/** Opens the first job that what is typed finds: asked for now, since what is shown may still be what an earlier text found. */
async function openFirst() {
  const text = search.value.trim().slice(0, 80)
  failed.value = null
  try {
    for (const state of ['open', 'over'] as const) {
      const { jobs } = await readJobs(state, text)
      const first = byStand(jobs.filter((j) => j.stand))[0] ?? jobs[0]
      if (first) return void router.push(to(first))
    }
  } catch (e) {
    failed.value = asWireError(e)
  }
}
/** What went wrong while a list is shown already. */
const fault = computed(() => failed.value ?? (open.jobs ? (open.error ?? over.error) : null))
/** What works by itself. */
const WORKS = { soak: 'Penetrant works', cure: 'Compound cures' } as const
</script>

<template>
  <div @keydown.down="walk($event, 1)" @keydown.up="walk($event, -1)">
    <div class="page-head">
      <h1>Bench</h1>
      <form class="search" role="search" @submit.prevent="openFirst">
        <label for="find" class="sr-only">Find a job</label>
        <InputText
          id="find"
          v-model="search"
          placeholder="Find: number, boat, serial, drive, complaint"
          autocomplete="off"
        />
      </form>
      <p v-if="open.jobs" class="small soft">
        <template v-if="wanted"
          >{{ found.length }}{{ open.hasMore ? ' or more' : '' }} open jobs found</template
        >
        <template v-else
          >{{ found.length }}{{ open.hasMore ? ' or more' : '' }} open jobs<template
            v-if="shop.free && shop.stands.length"
            >, {{ shop.free.length ? `free: ${shop.free.join(', ')}` : 'every stand taken' }}</template
          ></template
        >
      </p>
      <RouterLink v-if="wanted" :to="`/find?q=${encodeURIComponent(wanted)}`" class="page-link"
        >Find in all that was written</RouterLink
      >
      <Button label="A drive comes in" class="quiet" @click="opening = true" />
      <BenchCsv :search="wanted" />
    </div>
    <NewJobDialog v-if="opening" @close="opening = false" />
    <CopyNotice />
    <p v-if="fault" class="fault" role="alert">{{ fault.message }}</p>
    <p v-if="open.damaged || over.damaged" class="fault" role="alert">
      A part of the database does not read as it was written: some jobs are missing here. Stop the server, run
      <code>npm run check</code>, and put a copy back.
    </p>
    <LoadState v-if="!open.jobs" what="the jobs" :error="open.error" @again="open.load" />
    <p v-else-if="!groups.length && !search" class="soft">No job yet. “A drive comes in” opens the first.</p>
    <p v-else-if="!groups.length" class="soft">
      No job matches “{{ search }}”.
      <button type="button" class="texty" @click="search = ''">Show all</button>
    </p>
    <div v-else ref="list">
      <section v-for="g in groups" :key="g.name" :aria-label="g.name">
        <h2 class="group">{{ g.name }}</h2>
        <ul :class="g.big ? 'stands' : 'shelf'">
          <li v-for="j in g.jobs" :key="j.id">
            <RouterLink :to="to(j)" class="job" :class="j.state">
              <span class="top">
                <span class="stand" v-if="j.stand && !isOver(j.state)">{{ j.stand }}</span>
                <span class="mono">{{ j.number }}</span>
                <span class="soft small">{{ since(j) }}</span>
              </span>
              <span class="name">{{ j.sheetName }} <span class="boat">· {{ j.boat }}</span></span>
              <span class="owner small soft">{{ j.owner }}</span>
              <span class="due"
                ><span class="stage">{{ stageLabel(j.stage) }}</span>{{ waitsText(j.waits, showClock)
                }}<span v-for="r in j.waits.running ?? []" :key="r.kind" class="besides small"
                  >{{ WORKS[r.kind] }} until {{ showClock(r.until) }}</span
                ><span v-if="j.waits.also?.length" class="besides small soft"
                  >meanwhile: {{ j.waits.also.join('; ') }}</span
                ></span
              >
              <span class="complaint small soft">{{ j.complaint }}</span>
            </RouterLink>
          </li>
        </ul>
        <Button v-if="g.list?.hasMore" :label="g.more" class="quiet" @click="g.list.more()" />
      </section>
    </div>
  </div>
</template>

<style scoped>
.besides {
  display: block;
  font-size: var(--t-small);
}
.search {
  flex: 1 1 18rem;
  max-width: 34rem;
}
.search input {
  width: 100%;
}
.group {
  font-size: var(--t-small);
  font-weight: 400;
  color: var(--ink-soft);
  margin: 1.2rem 0 0.4rem;
}
.stands {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 19rem), 1fr));
  gap: 0.9rem;
}
.stands .job {
  border: 2px solid var(--ink);
  padding: 0.9rem 1rem;
  min-height: 11rem;
  height: 100%;
}
.shelf li {
  border-top: 1px solid var(--line);
}
.shelf li:last-child {
  border-bottom: 1px solid var(--line);
}
/* a long name without a blank breaks, so that nothing scrolls sideways */
.job {
  overflow-wrap: anywhere;
  min-width: 0;
  display: grid;
  gap: 0.25rem;
  align-content: start;
  text-decoration: none;
  background: var(--sheet);
}
.job:hover {
  background: var(--lamp-soft);
}
.shelf .job {
  grid-template-columns: minmax(11rem, 14rem) minmax(14rem, 1fr) minmax(16rem, 1.3fr);
  align-items: baseline;
  background: none;
  padding: 0.55rem 0.4rem;
  gap: 0.1rem 1.2rem;
}
.shelf .job:hover {
  background: var(--lamp-soft);
}
.shelf .owner {
  grid-column: 2;
  grid-row: 2;
}
.shelf .due {
  grid-column: 3;
  grid-row: 1;
}
.shelf .complaint {
  grid-column: 3;
  grid-row: 2;
}
.top {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
}
.stand {
  font-weight: 700;
}
.name {
  font-size: var(--t-lead);
  font-weight: 700;
}
.boat {
  font-weight: 400;
}
.stands .due {
  font-size: var(--t-title);
  line-height: 1.25;
  margin: 0.35rem 0 0.4rem;
  border-left: 6px solid var(--lamp);
  padding-left: 0.7rem;
}
.shelf .due {
  font-size: var(--t-body);
}
.stage {
  display: block;
  font-size: var(--t-small);
  color: var(--ink-soft);
}
.shelf .stage {
  display: inline;
  margin-right: 0.6em;
}
@media (max-width: 900px) {
  .shelf .job {
    grid-template-columns: minmax(0, 1fr);
  }
  .shelf .complaint,
  .shelf .due,
  .shelf .owner {
    grid-area: auto;
  }
}
</style>
