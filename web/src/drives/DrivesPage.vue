<script setup lang="ts">
import { FAMILIES } from '@moray/core/drives/sheet'
import { RouterLink } from 'vue-router'
import SectionDrawing from '../drawing/SectionDrawing.vue'
import LoadState from '../ui/LoadState.vue'
import { useDrives } from '../wire/queries.ts'

const store = useDrives()
</script>

<template>
  <div class="page-head">
    <h1>Drives</h1>
    <p class="small soft">
      Sheets that ship are invented, to learn with; enter your own from your own manual.
    </p>
  </div>
  <LoadState v-if="!store.sheets" what="the drive sheets" :error="store.error" @again="store.load" />
  <ul v-else class="sheets">
    <li v-for="s in store.sheets" :key="s.id">
      <RouterLink :to="`/drives/${s.id}`">
        <SectionDrawing :sheet="s" :max-height="190" plain inert />
        <strong>{{ s.name }}</strong>
        <span class="small">{{ FAMILIES[s.family] }}</span>
        <span class="small soft">{{ s.summary }}</span>
      </RouterLink>
    </li>
  </ul>
</template>

<style scoped>
.sheets {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 18rem), 1fr));
  gap: 1.2rem;
}
a {
  display: grid;
  gap: 0.15rem;
  text-decoration: none;
  border-top: 2px solid var(--ink);
  padding-top: 0.5rem;
  height: 100%;
  align-content: start;
}
a:hover {
  background: var(--lamp-soft);
}
</style>
