<script setup lang="ts">
import { versionText } from '../drives/version-text.ts'
import { RouterLink, RouterView } from 'vue-router'
import JobMenu from './JobMenu.vue'
import OpenItems from './OpenItems.vue'
import LoadState from '../ui/LoadState.vue'
import NewerSheet from './NewerSheet.vue'
import RouteNews from './RouteNews.vue'
import { onClickOutside, onKeyStroke } from '@vueuse/core'
import { ref, useTemplateRef } from 'vue'
import { provideJob } from './shown-job.ts'
import { isOver } from '@moray/core/job/record'

const props = defineProps<{ id: string }>()
const adopting = ref(false)
const store = provideJob(() => props.id)
/** What is about the job as a whole stands behind its number, out of the way of the work. */
const menu = useTemplateRef<HTMLDetailsElement>('menu')
const menuOpen = ref(false)
const shut = () => menu.value?.removeAttribute('open')
onClickOutside(menu, shut, { ignore: ['.p-dialog', '.p-dialog-mask'] })
onKeyStroke('Escape', shut)
</script>

<template>
  <LoadState v-if="!store.job" what="the job" :error="store.error" @again="store.load" />
  <template v-else>
    <header class="head no-print">
      <h1 :title="`${store.job.sheet.name}, ${store.job.boat}`">
        {{ store.job.sheet.name }} <span class="boat">· {{ store.job.boat }}</span>
      </h1>
      <nav aria-label="Job">
        <RouterLink :to="`/jobs/${id}/scope`">Scope</RouterLink>
        <RouterLink :to="`/jobs/${id}/route`">Route</RouterLink>
        <RouterLink :to="`/jobs/${id}/faults`">Faults</RouterLink>
        <RouterLink :to="`/jobs/${id}/parts`">Parts</RouterLink>
        <RouterLink :to="`/jobs/${id}/setting`">Setting</RouterLink>
        <RouterLink v-if="store.job.sheet.meshes.length" :to="`/jobs/${id}/contact`">Contact</RouterLink>
        <RouterLink :to="`/jobs/${id}/record`">Record</RouterLink>
      </nav>
      <span class="side">
        <RouterLink v-if="store.job.partner" :to="`/jobs/${store.job.partner.id}/route`" class="other">{{
          store.job.partner.sheetName
        }}</RouterLink>
        <OpenItems :job="store.job" />
      </span>
      <details ref="menu" class="about" @toggle="menuOpen = menu?.open ?? false">
        <summary>
          <span class="mono">{{ store.job.number }}</span>
          <span class="stand"> · {{ store.job.stand ?? 'no stand' }}</span>
        </summary>
        <div class="sheet">
          <p class="small">
            {{ store.job.serial }} · {{ store.job.owner }} · {{ store.job.water }} water<template
              v-if="store.job.hours !== null"
            >
              · {{ store.job.hours }} h</template
            >
          </p>
          <p v-if="store.job.complaint" class="small">{{ store.job.complaint }}</p>
          <p v-if="store.job.sheet.demo" class="small soft">Demo sheet, invented numbers</p>
          <p class="small soft">
            Sheet<template v-if="store.job.sheet.variant"> of {{ store.job.sheet.variant.label }},</template>
            {{ versionText(store.job.sheet) }}
          </p>
          <p v-if="store.job.newerSheetVersion && !isOver(store.job.state)" class="small">
            A newer version of the sheet exists.
            <button type="button" class="texty small" @click="adopting = true">
              See what it would change
            </button>
          </p>
          <RouterLink :to="`/jobs/${id}/before`" @click="shut" class="texty small"
            >this unit before, and units like it</RouterLink
          >
          <JobMenu :job="store.job" @repaired="shut" :shown="menuOpen" />
        </div>
      </details>
    </header>
    <NewerSheet
      v-if="adopting && store.job.newerSheetVersion"
      :job="store.job"
      :newer="store.job.newerSheetVersion"
      @close="adopting = false"
    />
    <RouteNews :job="store.job" />
    <p v-if="store.error" class="fault no-print" role="alert">{{ store.error.message }}</p>
    <RouterView :key="id" />
  </template>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto auto;
  align-items: center;
  gap: 0 1rem;
  border-bottom: 1px solid var(--line);
  margin: -0.9rem 0 0.7rem;
}
h1 {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.boat {
  font-weight: 400;
}
nav {
  display: flex;
}
nav a {
  min-height: 46px;
  display: inline-flex;
  align-items: center;
  padding: 0 0.9rem;
  text-decoration: none;
  border-bottom: 4px solid transparent;
}
nav a.router-link-active {
  font-weight: 700;
  border-bottom-color: var(--lamp);
}
.about {
  position: relative;
}
.side {
  display: inline-flex;
  gap: 0.6rem;
  align-items: center;
}
.other {
  font-size: var(--t-small);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  border: 1px solid var(--line-strong);
  padding: 0 0.6rem;
  text-decoration: none;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  gap: 0.3rem;
  cursor: pointer;
  font-size: var(--t-small);
  white-space: nowrap;
}
summary::after {
  content: '';
  border: 5px solid transparent;
  border-top-color: currentColor;
  transform: translateY(3px);
}
.sheet {
  position: absolute;
  right: 0;
  z-index: 8;
  width: min(26rem, 92vw);
  display: grid;
  gap: 0.4rem;
  padding: 0.8rem 1rem;
  background: var(--sheet);
  border: 2px solid var(--ink);
}
@media (max-width: 860px) {
  .head {
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 0 0.4rem;
    margin-top: -0.5rem;
  }
  .stand {
    display: none;
  }
  .other {
    max-width: 7rem;
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
    padding: 0 0.3rem;
  }
  nav {
    grid-column: 1 / -1;
    grid-row: 2;
    justify-content: space-between;
  }
  nav a {
    padding: 0 0.25rem;
    font-size: var(--t-small);
    min-height: 44px;
  }
  h1 {
    font-size: var(--t-lead);
  }
}
</style>
