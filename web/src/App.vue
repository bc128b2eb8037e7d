<script setup lang="ts">
import { computed, ref, watchEffect } from 'vue'
import { RouterLink, RouterView, useRoute } from 'vue-router'
import type { UnitSystem } from '@moray/core/units/format'
import { useShop } from './stores/shop.ts'
import CodeDialog from './shop/CodeDialog.vue'
import FirstPerson from './shop/FirstPerson.vue'
import WhoIsWorking from './shop/WhoIsWorking.vue'
import { liveConnected } from './wire/live-line.ts'
import { usePeople, useShopWays } from './wire/queries.ts'
import { useOwn } from './stores/own.ts'
import { pageIsStale, staleWanted } from './wire/stale-page.ts'

const shop = useShop()
const people = usePeople()
/** An empty shop is being set up: its page stays until all of it has been taken. */
const beginning = ref(false)
/** An empty shop: nobody works here yet. */
const nobody = computed(() => people.people?.length === 0)
const own = useOwn()
const ways = useShopWays()
watchEffect(() => {
  const units = ways.ways?.rules.units
  if (units) own.usualFirst = units
})
watchEffect(() => document.documentElement.classList.toggle('night', shop.night))

const route = useRoute()
/** A drive's sheet stands under the drives, a sum under the sums. */
const isHere = (to: string) => to !== '/' && route.path.startsWith(`${to}/`)
const places = [
  { to: '/', name: 'Bench' },
  { to: '/find', name: 'Find' },
  { to: '/boats', name: 'Boats' },
  { to: '/drawer', name: 'Drawer' },
  { to: '/gauges', name: 'Gauges' },
  { to: '/drives', name: 'Drives' },
  { to: '/sums', name: 'Sums' },
  { to: '/shop', name: 'Shop' },
]
</script>

<template>
  <a class="skip" href="#main">To the work</a>
  <header class="bar no-print">
    <RouterLink to="/" class="brand" aria-label="Moray, to the bench">
      <svg width="30" height="18" viewBox="0 0 30 18" aria-hidden="true">
        <path d="M2 12c4-10 8-10 12 0s8 10 13-2" />
      </svg>
      Moray
    </RouterLink>
    <nav aria-label="Places">
      <RouterLink v-for="p in places" :key="p.to" :to="p.to" :class="{ under: isHere(p.to) }">{{
        p.name
      }}</RouterLink>
    </nav>
    <span class="line" :class="{ down: !liveConnected }" role="status">
      {{ liveConnected ? 'live' : 'no line to the server' }}
    </span>
    <label v-if="shop.people.length" class="who">
      <span class="sr-only">Who is working</span>
      <select :value="shop.personId" @change="shop.chosen = ($event.target as HTMLSelectElement).value">
        <option v-if="!shop.somebody" value="">who is working?</option>
        <option v-for="p in shop.people" :key="p.id" :value="p.id">
          {{ p.name }}{{ p.role === 'lead' ? ', lead' : '' }}
        </option>
      </select>
    </label>
    <label v-if="shop.people.length" class="who units">
      <span class="sr-only">Units that are read first</span>
      <select
        :value="shop.first"
        @change="shop.first = ($event.target as HTMLSelectElement).value as UnitSystem"
      >
        <option value="metric">mm first</option>
        <option value="imperial">inch first</option>
      </select>
    </label>
    <button type="button" class="lampswitch" :aria-pressed="shop.night" @click="shop.night = !shop.night">
      {{ shop.night ? 'Day' : 'Night' }}
    </button>
  </header>
  <main id="main" class="page">
    <p v-if="people.error && route.path !== '/pair'" class="fault" role="alert">
      {{ people.error.message }} <button type="button" @click="people.load">Try again</button>
    </p>
    <p v-if="pageIsStale" class="fault stale" role="alert">
      A part of this page could not be loaded: Moray was upgraded while it was open, or the line is down. What
      you typed is still there.
      <a :href="staleWanted || route.fullPath">Load the page anew</a>
    </p>
    <WhoIsWorking v-if="shop.people.length && route.path !== '/pair'" />
    <CodeDialog v-if="shop.codeFor" />
    <FirstPerson v-if="nobody || beginning" @beginning="(on) => (beginning = on)" />
    <RouterView v-else />
  </main>
</template>

<style scoped>
.stale a {
  display: inline-block;
  min-height: 44px;
  line-height: 44px;
}
.skip {
  position: absolute;
  left: -999px;
}
.skip:focus {
  left: 8px;
  top: 8px;
  background: var(--lamp);
  color: var(--lamp-ink);
  padding: 0.6rem;
  z-index: 10;
}
.bar {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0 1.2rem;
  padding: 0 1.4rem;
  border-bottom: 2px solid var(--ink);
  background: var(--paper);
}
.brand {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  font-weight: 700;
  font-size: var(--t-lead);
  text-decoration: none;
  min-height: 52px;
}
.brand svg {
  fill: none;
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linecap: round;
}
nav {
  display: flex;
  flex-wrap: wrap;
}
nav a {
  display: inline-flex;
  align-items: center;
  min-height: 52px;
  padding: 0 0.9rem;
  text-decoration: none;
  border-bottom: 4px solid transparent;
  border-top: 4px solid transparent;
}
nav a:hover {
  border-bottom-color: var(--line-strong);
}
nav a.under,
nav a.router-link-exact-active {
  border-bottom-color: var(--lamp);
  font-weight: 700;
}
.line {
  margin-left: auto;
  font-size: var(--t-small);
  color: var(--ink-soft);
}
.line::before {
  content: '';
  display: inline-block;
  width: 0.7em;
  height: 0.7em;
  border-radius: 50%;
  background: var(--in);
  margin-right: 0.4em;
}
.line.down {
  color: var(--out);
  font-weight: 700;
}
.line.down::before {
  background: none;
  border: 2px solid var(--out);
}
select,
.lampswitch {
  font: inherit;
  min-height: 44px;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  padding: 0 0.7rem;
  cursor: pointer;
}
@media (max-width: 700px) {
  .line:not(.down) {
    font-size: 0;
  }
  .line::before {
    font-size: var(--t-small);
  }
  .bar {
    padding: 0 0.6rem;
    gap: 0 0.5rem;
  }
  nav {
    order: 9;
    width: 100%;
  }
  nav a {
    padding: 0 0.3rem;
    min-height: 44px;
    font-size: var(--t-small);
  }
  .who select,
  .lampswitch {
    max-width: 8.5rem;
    padding: 0 0.3rem;
    font-size: var(--t-small);
  }
}
@media (max-width: 420px) {
  /* the mark alone says where it leads; the room is for who works, in which units */
  .brand {
    font-size: 0;
  }
  .who:not(.units) select {
    max-width: 6.2rem;
  }
}
</style>
