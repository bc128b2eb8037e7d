<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { computed } from 'vue'
import { useShop } from '../stores/shop.ts'

/** A browser that nobody has named yet asks once who works at it: every entry carries a name, and it must be the right one. */
const shop = useShop()
const open = computed({ get: () => shop.asking, set: (on) => (shop.asking = on) })
function choose(id: string) {
  shop.chosen = id
  shop.asking = false
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="Who is working here?">
    <div class="inside">
      <p>Every entry carries the name of whoever made it.</p>
      <ul>
        <li v-for="p in shop.people" :key="p.id">
          <button type="button" @click="choose(p.id)">
            {{ p.name }}<span class="soft small">{{ p.role === 'lead' ? 'lead' : '' }}</span>
          </button>
        </li>
      </ul>
      <button type="button" class="texty" @click="open = false">Only looking</button>
    </div>
  </Dialog>
</template>

<style scoped>
.inside {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
  width: min(26rem, 80vw);
}
ul {
  display: grid;
  gap: 0.5rem;
  width: 100%;
}
li button {
  font: inherit;
  font-size: var(--t-lead);
  color: inherit;
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  width: 100%;
  min-height: 52px;
  padding: 0 0.9rem;
  display: flex;
  justify-content: space-between;
  align-items: center;
  cursor: pointer;
}
li button:hover {
  background: var(--lamp-soft);
}
</style>
