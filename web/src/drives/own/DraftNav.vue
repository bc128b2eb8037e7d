<script setup lang="ts">
import type { SheetBody } from '@moray/core/drives/own/body'
import type { Readiness } from '@moray/core/drives/own/readiness'
import { FIGURE_GROUPS, type FigureField, type FigureGroup } from '@moray/core/drives/own/figure-field'
import type { Variant } from '@moray/core/drives/own/variant'
import { LISTS, type Tab } from './draft-tabs.ts'
import ReadinessList from './ReadinessList.vue'
import { countFilled } from './show-figure.ts'

/** Where one is in a draft: the groups of figures in the order of a manual, the lists, and what the sheet can do by now. */
defineProps<{
  body: SheetBody
  tab: Tab
  groups: readonly { group: FigureGroup; fields: FigureField[] }[]
  fields: FigureField[]
  variants: readonly Variant[]
  variantId: string
  ready: Readiness[]
  /** How many loose ends there are. */
  loose: number
}>()
const emit = defineEmits<{ open: [tab: Tab]; variant: [id: string]; go: [path: string] }>()
const valueOf = (e: Event) => (e.target as HTMLSelectElement).value
/** How many rows a list has, where the tab is one list. */
const countOf = (list: keyof typeof LISTS, body: SheetBody, loose: number) =>
  list === 'groups'
    ? (body.groups?.length ?? 0)
    : list === 'parts'
      ? body.parts.length
      : list === 'loose'
        ? loose
        : ''
</script>

<template>
  <nav class="groups" aria-label="Groups of figures">
    <label v-if="variants.length" class="which"
      >Typing for
      <select :value="variantId" @change="emit('variant', valueOf($event))">
        <option value="">all of them</option>
        <option v-for="v in variants" :key="v.id" :value="v.id">only {{ v.label }}</option>
      </select></label
    >
    <label class="jump"
      ><span class="sr-only">Group of figures</span>
      <select :value="tab" @change="emit('open', valueOf($event) as Tab)">
        <option v-for="g in groups" :key="g.group" :value="g.group">
          {{ FIGURE_GROUPS[g.group] }}, {{ countFilled(body, g.fields) }} of {{ g.fields.length }}
        </option>
        <option v-for="(label, list) in LISTS" :key="list" :value="list">{{ label }}</option>
      </select></label
    >
    <ul class="tabs">
      <li v-for="g in groups" :key="g.group">
        <button
          type="button"
          :class="{ on: tab === g.group }"
          :aria-current="tab === g.group"
          @click="emit('open', g.group)"
        >
          <span>{{ FIGURE_GROUPS[g.group] }}</span>
          <span class="mono small">{{ countFilled(body, g.fields) }}/{{ g.fields.length }}</span>
        </button>
      </li>
      <li v-for="(label, list) in LISTS" :key="list">
        <button
          type="button"
          :class="{ on: tab === list }"
          :aria-current="tab === list"
          @click="emit('open', list)"
        >
          <span>{{ label }}</span>
          <span class="mono small">{{ countOf(list, body, loose) }}</span>
        </button>
      </li>
    </ul>
    <div class="ready">
      <h2>What it can do</h2>
      <ReadinessList :rows="ready" :fields="fields" @go="(path) => emit('go', path)" />
    </div>
  </nav>
</template>

<style scoped>
.tabs li button {
  display: flex;
  justify-content: space-between;
  gap: 0.5rem;
  align-items: center;
  width: 100%;
  min-height: 40px;
  padding: 0 0.5rem;
  text-align: left;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
.tabs > li > button.on {
  background: var(--lamp);
  color: var(--lamp-ink);
}
/* on a phone one line of choice takes the place of the list */
.jump {
  display: none;
}
.jump select {
  width: 100%;
  min-height: 48px;
  font: inherit;
  font-weight: 700;
  color: var(--lamp-ink);
  background: var(--lamp);
  border: 1px solid var(--ink);
}
.which {
  display: grid;
  margin-bottom: 0.6rem;
}
.which select {
  min-height: 44px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
h2 {
  margin-top: 1rem;
}
@media (max-width: 760px) {
  .jump {
    display: block;
  }
  .tabs {
    display: none;
  }
  /* what it can do comes after what is typed */
  .groups {
    display: contents;
  }
  .ready {
    order: 2;
  }
}
</style>
