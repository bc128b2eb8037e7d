<script setup lang="ts">
import type { ShadowJob } from '@moray/contract/shadow'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { useShop } from '../stores/shop.ts'
import LoadState from '../ui/LoadState.vue'
import { useShadow } from '../wire/queries.ts'

/** What the list of what must be so before a drive leaves would say of the open jobs. Nothing depends on it yet; a lead looks at it here. */
const people = useShop()
const isLead = computed(() => people.leads.some((p) => p.id === people.personId))
const wanted = ref(false)
const store = useShadow(wanted)
const red = (j: ShadowJob) => j.lines.filter((l) => l.colour === 'red')
const overlooked = computed(() => (store.shadow?.jobs ?? []).filter((j) => j.overlooked))
</script>

<template>
  <section v-if="isLead" aria-label="What the new list would say">
    <h2>What the new list would say</h2>
    <p class="small soft">
      What was done to each open drive, and what is not as it must be before it leaves. It decides nothing
      yet; the route is the one you know.
    </p>
    <Button v-if="!wanted" label="Look at the open jobs" class="quiet" @click="wanted = true" />
    <LoadState v-else-if="!store.shadow" what="the list" :error="store.error" @again="store.load" />
    <template v-else>
      <p v-if="!store.shadow.jobs.length" class="soft">No job is open.</p>
      <p v-else :class="overlooked.length ? 'fault' : 'small'">
        {{
          overlooked.length
            ? `${overlooked.length} of ${store.shadow.jobs.length} open jobs have nothing left on their route, and lines here that are not right.`
            : `On none of the ${store.shadow.jobs.length} open jobs does the route overlook anything.`
        }}
      </p>
      <article v-for="j in store.shadow.jobs" :key="j.id">
        <h3>
          <RouterLink :to="`/jobs/${j.id}`">{{ j.number }}</RouterLink>
          <span class="small soft">
            {{ j.boat }}, {{ j.sheetName }}. {{ j.acts }} acts known, {{ j.inferred }} concluded from others{{
              j.nothingLeft ? '; nothing left on its route' : ''
            }}</span
          >
        </h3>
        <ul v-if="red(j).length" class="small">
          <li v-for="l in red(j)" :key="`${l.code} ${l.on}`">{{ l.text }}</li>
        </ul>
        <p v-else class="small soft">Nothing that would keep it in the shop.</p>
      </article>
    </template>
  </section>
</template>

<style scoped>
article {
  border-top: 1px solid var(--line);
  padding: 0.4rem 0;
}
h3 {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 0.6rem;
  margin: 0;
}
h3 .small {
  font-weight: 400;
}
ul {
  margin: 0.2rem 0 0;
}
</style>
