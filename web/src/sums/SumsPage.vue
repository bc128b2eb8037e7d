<script setup lang="ts">
import { calculations } from '@moray/contract/calculations/registry'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import SumSheet from './SumSheet.vue'

/** Every calculation without a job. */
const props = defineProps<{ name?: string }>()
const search = ref('')
const found = computed(() => {
  const wanted = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return calculations.filter((c) => wanted.every((w) => `${c.name} ${c.what}`.toLowerCase().includes(w)))
})
const known = computed(() => calculations.some((c) => c.name === props.name))
</script>

<template>
  <div class="sums">
    <nav aria-label="Calculations" :class="{ chosen: name }">
      <h1>Sums</h1>
      <label for="find-sum" class="sr-only">Find a calculation</label>
      <InputText
        id="find-sum"
        v-model="search"
        placeholder="Find: torque, leak, backlash"
        autocomplete="off"
        fluid
      />
      <ul>
        <li v-for="c in found" :key="c.name">
          <RouterLink :to="`/sums/${c.name}`">{{ c.what }}</RouterLink>
        </li>
      </ul>
      <p v-if="!found.length" class="soft">No calculation is called that.</p>
    </nav>
    <SumSheet v-if="name && known" :key="name" :name="name" />
    <p v-else-if="name">There is no calculation “{{ name }}”.</p>
    <p v-else class="soft">
      Choose a calculation. Nothing is stored on a job; what you keep stays in this browser.
    </p>
  </div>
</template>

<style scoped>
.sums {
  display: grid;
  grid-template-columns: 19rem minmax(0, 1fr);
  gap: 1.6rem;
  align-items: start;
}
nav h1 {
  margin-bottom: 0.6rem;
}
nav ul {
  margin-top: 0.6rem;
  border-top: 1px solid var(--line);
}
nav a {
  display: grid;
  min-height: 44px;
  padding: 0.3rem 0.5rem;
  text-decoration: none;
  border-bottom: 1px solid var(--line);
  line-height: 1.25;
}
nav a:hover {
  background: var(--lamp-soft);
}
nav a.router-link-exact-active {
  box-shadow: inset 5px 0 0 var(--lamp);
  background: var(--sheet);
}
@media (max-width: 900px) {
  .sums {
    grid-template-columns: minmax(0, 1fr);
  }
  nav.chosen ul {
    max-height: 11rem;
    overflow-y: auto;
  }
}
</style>
