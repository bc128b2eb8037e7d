<script setup lang="ts">
import type { Found } from '@moray/contract/found'
import { isOver } from '@moray/core/job/record'
import { refDebounced, useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import LoadState from '../ui/LoadState.vue'
import SaveCsv from '../ui/SaveCsv.vue'
import { showDate } from '../ui/times.ts'
import { useSearch } from '../wire/found.ts'
import { foundIn } from './found-words.ts'

/** One search over everything that was ever said here: jobs, units, owners, notes, answers, shims, part numbers, records of other shops. */
const route = useRoute()
const router = useRouter()
const typed = ref(String(route.query.q ?? ''))
const wanted = refDebounced(
  computed(() => typed.value.trim().slice(0, 80)),
  200,
)
watch(wanted, (q) => void router.replace({ query: q ? { q } : {} }))
const store = useSearch(wanted)
// older jobs are read little by little: what they hold comes in by itself
useIntervalFn(() => {
  if (store.reply?.behind) void store.load()
}, 2000)
const found = computed(() => store.reply?.found ?? [])
const keyOf = (f: Found) =>
  f.what === 'job' ? f.job.id : f.what === 'foreign' ? `foreign ${f.foreign.id}` : `drive ${f.drive.id}`
const to = (f: Found) =>
  f.what === 'job'
    ? `/jobs/${f.job.id}/${isOver(f.job.state) ? 'record' : 'route'}`
    : f.what === 'foreign'
      ? `/foreign/${f.foreign.id}`
      : `/drives/${f.drive.id}`
const columns = [
  {
    name: 'number',
    of: (f: Found) => (f.what === 'job' ? f.job.number : f.what === 'foreign' ? f.foreign.number : ''),
  },
  {
    name: 'drive',
    of: (f: Found) =>
      f.what === 'drive' ? f.drive.name : f.what === 'job' ? f.job.sheetName : f.foreign.sheetName,
  },
  {
    name: 'boat',
    of: (f: Found) => (f.what === 'job' ? f.job.boat : f.what === 'foreign' ? f.foreign.boat : ''),
  },
  {
    name: 'serial',
    of: (f: Found) => (f.what === 'job' ? f.job.serial : f.what === 'foreign' ? f.foreign.serial : ''),
  },
  { name: 'matched', of: (f: Found) => f.lines.map((l) => `${foundIn(l)}: ${l.text}`).join('; ') },
]
</script>

<template>
  <div>
    <div class="page-head">
      <h1>Find</h1>
      <label class="field"
        ><span class="sr-only">What to find</span>
        <input
          v-model="typed"
          type="search"
          maxlength="80"
          autofocus
          placeholder="boat, owner, serial, part number, note, shim: 0.751 forward Lomvi"
        />
      </label>
      <SaveCsv v-if="found.length" name="found" :columns="columns" :rows="() => found" />
    </div>
    <p v-if="store.reply?.behind" class="caution" role="status">
      Older jobs are still being read; what is found here may not be all.
    </p>
    <p v-if="!wanted" class="soft">
      Every word has to stand in what is found; a word may be cut off at its end. Numbers of shims are found
      in millimetres and in inches.
    </p>
    <LoadState v-else-if="!store.reply" what="what is found" :error="store.error" @again="store.load" />
    <p v-else-if="!found.length" class="soft">Nothing holds all of “{{ wanted }}”.</p>
    <ul v-else class="found">
      <li v-for="f in found" :key="keyOf(f)">
        <RouterLink :to="to(f)" class="what">
          <template v-if="f.what === 'job'">
            <span class="mono">{{ f.job.number }}</span> <strong
              >{{ f.job.sheetName }} · {{ f.job.boat }}</strong
            >
            <span class="small soft"
              >{{ f.job.owner }}, {{ f.job.serial }}, {{ showDate(f.job.openedAt) }}</span
            >
          </template>
          <template v-else-if="f.what === 'foreign'">
            <span class="mono">{{ f.foreign.number }}</span>
            <strong>{{ f.foreign.sheetName }} · {{ f.foreign.boat }}</strong>
            <span class="small soft"
              >record of {{ f.foreign.shop || 'another shop' }}, {{ f.foreign.serial }},
              {{ showDate(f.foreign.openedAt) }}</span
            >
          </template>
          <template v-else
            ><strong>{{ f.drive.name }}</strong> <span class="small soft">drive</span></template
          >
        </RouterLink>
        <ul class="lines">
          <li v-for="(l, i) in f.lines.filter((x) => x.kind !== 'job')" :key="i">
            <span class="small soft">{{ foundIn(l) }}, {{ showDate(l.at) }}</span>
            <span :class="{ mono: l.kind === 'stack' }">{{ l.text }}</span>
          </li>
        </ul>
      </li>
    </ul>
    <p v-if="store.reply?.more" class="small soft">
      More was found than is shown; another word narrows it down.
    </p>
  </div>
</template>

<style scoped>
.field {
  flex: 1 1 20rem;
  max-width: 40rem;
}
.field input {
  width: 100%;
  min-height: 44px;
  padding: 0 0.6rem;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
.found > li {
  border-bottom: 1px solid var(--line);
  padding: 0.2rem 0 0.5rem;
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: center;
  min-height: 44px;
}
.lines li {
  display: grid;
  grid-template-columns: 15rem minmax(0, 1fr);
  gap: 0 1rem;
}
.lines span {
  overflow-wrap: anywhere;
  white-space: normal;
}
@media (max-width: 760px) {
  .lines li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
