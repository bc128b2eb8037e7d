<script setup lang="ts">
import type { KnownUnit } from '@moray/contract/replies'
import { isOver } from '@moray/core/job/record'
import { refDebounced } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import NewJobDialog from '../bench/NewJobDialog.vue'
import SaveCsv from '../ui/SaveCsv.vue'
import ForeignList from './ForeignList.vue'
import OwnerData from './OwnerData.vue'
import LoadState from '../ui/LoadState.vue'
import { showDate } from '../ui/times.ts'
import { readAllUnits, useUnits } from '../wire/found.ts'

/** Owners with their boats, and the drives of each that have been here: from one of them a job is opened. */
const search = ref('')
const store = useUnits(refDebounced(search, 200))
const coming = ref<KnownUnit | null>(null)
interface Boat {
  name: string
  units: KnownUnit[]
}
const columns = [
  { name: 'owner', of: (u: KnownUnit) => u.owner },
  { name: 'boat', of: (u: KnownUnit) => u.boat },
  { name: 'serial', of: (u: KnownUnit) => u.serial },
  { name: 'drive', of: (u: KnownUnit) => u.sheetName },
  { name: 'water', of: (u: KnownUnit) => u.water },
  { name: 'jobs', of: (u: KnownUnit) => u.jobs },
  { name: 'last here', of: (u: KnownUnit) => u.lastAt },
]
/** The page shows the newest; the table holds all that the search finds. */
const allUnits = () => readAllUnits(search.value.trim())
/** By owner and boat, in the order of the newest visit. */
const owners = computed(() => {
  const found = new Map<string, Map<string, Boat>>()
  for (const u of store.units ?? []) {
    const boats = found.get(u.owner) ?? new Map<string, Boat>()
    const boat = boats.get(u.boat) ?? { name: u.boat, units: [] }
    boat.units.push(u)
    boats.set(u.boat, boat)
    found.set(u.owner, boats)
  }
  return [...found].map(([owner, boats]) => ({ owner, boats: [...boats.values()] }))
})
</script>

<template>
  <div class="page-head">
    <h1>Boats</h1>
    <label class="find"
      ><span class="sr-only">Owner, boat or serial number</span>
      <input v-model="search" type="search" maxlength="80" placeholder="owner, boat, serial number" />
    </label>
    <SaveCsv name="units" :columns="columns" :rows="allUnits" />
  </div>
  <LoadState v-if="!store.units" what="the boats" :error="store.error" @again="store.load" />
  <p v-else-if="!owners.length" class="soft">
    {{
      search
        ? `Nobody and nothing of “${search}” has been here.`
        : 'No drive has been here yet; the first job makes the first entry.'
    }}
  </p>
  <template v-else>
    <section v-for="o in owners" :key="o.owner" class="owner" :aria-label="o.owner">
      <div class="who">
        <h2>{{ o.owner }}</h2>
        <OwnerData :owner="o.owner" />
      </div>
      <ul>
        <li v-for="b in o.boats" :key="b.name">
          <h3>{{ b.name }}</h3>
          <ul>
            <li v-for="u in b.units" :key="u.serial + u.sheetId" class="unit">
              <RouterLink :to="`/boats/${u.sheetId}/${encodeURIComponent(u.serial)}`" class="mono">{{
                u.serial
              }}</RouterLink>
              <span>{{ u.sheetName }}</span>
              <span class="small soft"
                >{{ u.jobs }} {{ u.jobs === 1 ? 'job' : 'jobs' }}, last {{ showDate(u.lastAt) }},
                {{ u.water }} water</span
              >
              <RouterLink
                :to="isOver(u.lastState) ? `/jobs/${u.lastJob}/record` : `/jobs/${u.lastJob}/route`"
                >{{ isOver(u.lastState) ? 'last record' : 'on the bench' }}</RouterLink
              >
              <span v-if="u.earlier.length" class="earlier small">
                <span class="soft">records before</span>
                <RouterLink v-for="e in u.earlier" :key="e.id" :to="`/jobs/${e.id}/record`"
                  >{{ e.number }}, {{ showDate(e.at) }}</RouterLink
                >
              </span>
              <Button
                v-if="isOver(u.lastState)"
                label="Comes in"
                class="quiet small-button"
                :aria-label="`${u.serial} comes in`"
                @click="coming = u"
              />
            </li>
          </ul>
        </li>
      </ul>
    </section>
    <p v-if="store.units.length === 50" class="small soft">The 50 newest visits; search for others.</p>
  </template>
  <ForeignList />
  <NewJobDialog v-if="coming" :unit="coming" @close="coming = null" />
</template>

<style scoped>
.find {
  margin-left: auto;
}
.find input {
  min-height: 44px;
  width: min(20rem, 80vw);
  padding: 0 0.6rem;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
.owner {
  border-top: 2px solid var(--ink);
  padding: 0.4rem 0 0.9rem;
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.4rem;
  align-items: center;
}
.earlier {
  grid-column: 2 / -1;
  grid-row: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
}
.earlier a {
  min-height: 24px;
}
.unit {
  display: grid;
  grid-template-columns: 9rem minmax(8rem, 1fr) minmax(10rem, 1.4fr) 7rem 7rem;
  gap: 0.3rem 1rem;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
}
@media (max-width: 760px) {
  .unit {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    padding: 0.3rem 0;
  }
  .find {
    margin-left: 0;
  }
}
</style>
