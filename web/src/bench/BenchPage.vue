<script setup lang="ts">
import type { JobSummary } from '@moray/contract/replies'
import { FAMILIES, type Family } from '@moray/core/drives/sheet'
import { formatDistanceToNowStrict } from 'date-fns'
import InputText from 'primevue/inputtext'
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { useShopWays } from '../stores/shop.ts'
import NewJobDialog from './NewJobDialog.vue'
import Button from 'primevue/button'
import LoadState from '../parts/LoadState.vue'
import { useJobs } from '../stores/jobs.ts'

const store = useJobs()
const route = useRoute()
const router = useRouter()
const ways = useShopWays()
onMounted(() => {
  void store.load()
  void ways.load()
})
const opening = ref(false)
/** Stands that nobody is on. */
const free = computed(() => {
  const taken = new Set((store.jobs ?? []).filter((j) => !over(j)).map((j) => j.stand))
  return (ways.ways?.stands ?? []).filter((s) => !taken.has(s))
})

const search = ref(String(route.query.find ?? ''))
watch(search, (find) => void router.replace({ query: find ? { find } : {} }))

const words = (j: JobSummary) =>
  [
    j.number,
    j.sheetName,
    j.boat,
    j.owner,
    j.serial,
    j.complaint,
    j.waitsFor,
    j.stage,
    FAMILIES[j.family as Family],
  ]
    .join(' ')
    .toLowerCase()
const found = computed(() => {
  const wanted = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (store.jobs ?? []).filter((j) => wanted.every((w) => words(j).includes(w)))
})
const onStands = computed(() =>
  found.value.filter((j) => j.stand && !over(j)).sort((a, b) => a.stand!.localeCompare(b.stand!)),
)
const waiting = computed(() => found.value.filter((j) => !j.stand && !over(j)))
const finished = computed(() => found.value.filter(over))
const groups = computed(() =>
  [
    { name: 'On the stands', jobs: onStands.value, big: true },
    { name: 'On the shelf', jobs: waiting.value, big: false },
    { name: 'Over', jobs: finished.value, big: false },
  ].filter((g) => g.jobs.length),
)
const since = (j: JobSummary) => `${formatDistanceToNowStrict(new Date(j.touchedAt))} ago`
/** Where the work of the job is: its record when it is over, Setting while it is measured, else its route. */
const over = (j: JobSummary) => j.state === 'finished' || j.state === 'closed'
const to = (j: JobSummary) =>
  `/jobs/${j.id}/${over(j) ? 'record' : j.stage === 'Setting' ? 'setting' : 'route'}`

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
function openFirst() {
  const first = groups.value[0]?.jobs[0]
  if (first) void router.push(to(first))
}
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
      <p v-if="store.jobs" class="small soft">
        {{ found.length }} of {{ store.jobs.length }} jobs<template v-if="ways.ways"
          >, {{ free.length ? `free: ${free.join(', ')}` : 'every stand taken' }}</template
        >
      </p>
      <Button label="A drive comes in" class="quiet" @click="opening = true" />
    </div>
    <NewJobDialog v-if="opening" @close="opening = false" />
    <LoadState v-if="!store.jobs" what="the jobs" :error="store.error" @again="store.load" />
    <p v-else-if="!found.length" class="soft">
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
                <span class="stand" v-if="j.stand">{{ j.stand }}</span>
                <span class="mono">{{ j.number }}</span>
                <span class="soft small">{{ since(j) }}</span>
              </span>
              <span class="name"
                >{{ j.sheetName }} <span class="boat">· {{ j.boat }}</span></span
              >
              <span class="due"
                ><span class="stage">{{ j.stage }}</span
                >{{ j.waitsFor }}</span
              >
              <span class="complaint small soft">{{ j.complaint }}</span>
            </RouterLink>
          </li>
        </ul>
      </section>
    </div>
  </div>
</template>

<style scoped>
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
.job {
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
.shelf .complaint {
  grid-column: 2 / -1;
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
    grid-template-columns: 1fr;
  }
  .shelf .complaint {
    grid-column: auto;
  }
}
</style>
