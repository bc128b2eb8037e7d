<script setup lang="ts">
import type { Copies } from '@moray/contract/copies'
import { endpoints } from '@moray/contract/endpoints'
import Button from 'primevue/button'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import LoadState from '../ui/LoadState.vue'
import { showBytes } from '../ui/bytes.ts'
import { showAgo, showTime } from '../ui/times.ts'
import { problemAt } from '../wire/client.ts'
import { keys, useQueryClient } from '../wire/queries.ts'
import { useWrite } from '../writing/use-write.ts'
import { useWatchedCopies } from './use-copies.ts'

/** Copies of the whole shop: one now, one each night, where they lie, and whether the last one was good. */
const store = useWatchedCopies()
const client = useQueryClient()
const write = useWrite()
const copies = computed(() => store.copies)
async function take(reply: Promise<Copies | undefined>) {
  const state = await reply
  if (state) client.setQueryData(keys.copies, state)
  return state
}
/** The Bench leads here; the list comes a moment after the page. */
const section = useTemplateRef<HTMLElement>('section')
const route = useRoute()
watch(
  () => copies.value !== null && route.hash === '#copies',
  async (wanted) => {
    await nextTick()
    if (wanted) section.value?.scrollIntoView()
  },
  { immediate: true },
)
const folder = ref('')
const nightly = ref(true)
// a list that comes anew takes away nothing that is being typed
watch(
  () => JSON.stringify([copies.value?.own && copies.value.folder, copies.value?.nightly]),
  () => {
    if (!copies.value) return
    folder.value = copies.value.own ? copies.value.folder : ''
    nightly.value = copies.value.nightly
  },
  { immediate: true },
)
const kept = ref(false)
async function keep() {
  const place = folder.value.trim()
  kept.value = !!(await take(
    write.send(endpoints.setCopies, {}, { nightly: nightly.value, ...(place ? { folder: place } : {}) }),
  ))
}
const fault = computed(() => (problemAt(write.error.value, 'folder') ? null : write.error.value))
</script>

<template>
  <section ref="section" aria-label="Copies">
    <h2>Copies</h2>
    <p class="soft">
      The whole shop, with its pictures, in one file. Each copy is brought back into a temporary place and
      compared before it counts. Put them on another disk: a copy beside the shop goes when its disk does.
    </p>
    <LoadState v-if="!copies" what="the copies" :error="store.error" @again="store.load" />
    <template v-else>
      <p v-if="fault" class="fault" role="alert">{{ fault.message }}</p>
      <p v-if="copies.failed && !copies.running" class="fault" role="alert">
        {{ showTime(copies.failed.at) }}: {{ copies.failed.why }}
      </p>
      <p v-if="!copies.folderThere" class="fault" role="alert">
        The folder {{ copies.folder }} is not there. Is the stick in?
      </p>
      <p v-if="copies.disk.nearlyFull && copies.disk.freeBytes !== null" class="fault" role="alert">
        The disk is nearly full: {{ showBytes(copies.disk.freeBytes) }} left.
      </p>
      <div class="now">
        <p v-if="copies.running" role="status">
          A copy is being made and proved, since {{ showTime(copies.running.since) }}. You can go on working.
        </p>
        <p v-else-if="copies.last">
          Last good copy {{ showAgo(copies.last.at) }} ({{ showTime(copies.last.at) }}): proved,
          {{ copies.last.jobs }} jobs, {{ showBytes(copies.last.bytes) }}
          <span class="mono small place">{{ copies.last.file }}</span>
          <span v-if="copies.last.broken" class="bad"
            >In the shop itself {{ copies.last.broken }}
            {{ copies.last.broken === 1 ? 'thing is' : 'things are' }} broken, and so in the copy; “npm run
            check” names them.</span
          >
        </p>
        <p v-else class="soft">No copy has been made yet.</p>
        <Button
          label="Make a copy now"
          class="quiet"
          :disabled="!!copies.running || write.busy.value"
          @click="take(write.send(endpoints.makeCopy, {}, { wanted: true }))"
        />
      </div>
      <form class="where entries" @submit.prevent="keep">
        <label class="folder"
          >Folder they go to, on the machine that Moray runs on
          <input v-model="folder" maxlength="400" :placeholder="copies.folder" autocomplete="off" />
          <span v-if="problemAt(write.error.value, 'folder')" class="bad" role="alert">{{
            problemAt(write.error.value, 'folder')
          }}</span>
        </label>
        <label class="flag">
          <input v-model="nightly" type="checkbox" />
          <span
            >One each night, or at the next start after it; {{ copies.kept.days }} days,
            {{ copies.kept.weeks }} weeks and {{ copies.kept.months }} months are kept</span
          >
        </label>
        <Button type="submit" label="Keep this" class="quiet" :disabled="write.busy.value" />
        <p v-if="kept" class="small" role="status">Kept.</p>
      </form>
      <p v-if="copies.demo && nightly" class="small soft">The demo is not copied by itself.</p>
      <ul v-if="copies.copies.length" class="list" aria-label="Copies in the folder">
        <li v-for="c in copies.copies" :key="c.name">
          <span>{{ showTime(c.at) }}</span>
          <span class="soft small">{{ c.nightly ? 'nightly' : 'made by hand' }}, proved</span>
          <span class="mono small">{{ showBytes(c.bytes) }}</span>
          <span class="mono small soft name">{{ c.name }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.now {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1.2rem;
  align-items: center;
}
.now p {
  flex: 1 1 24rem;
  min-width: 0;
}
.place {
  display: block;
  overflow-wrap: anywhere;
}
.where {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: end;
  margin-top: 0.6rem;
}
.where label {
  display: grid;
  font-size: var(--t-small);
  min-width: 0;
}
.where .folder {
  flex: 1 1 22rem;
}
.where .flag {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: 44px;
  flex: 1 1 22rem;
}
.flag input {
  width: 24px;
  height: 24px;
  flex: none;
}
.list {
  margin-top: 0.6rem;
  max-height: 20rem;
  overflow-y: auto;
}
.list li {
  display: grid;
  grid-template-columns: 11rem 11rem 6rem minmax(0, 1fr);
  gap: 0.2rem 1rem;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
.name {
  overflow-wrap: anywhere;
}
.bad {
  color: var(--out);
}
@media (max-width: 760px) {
  .list li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
