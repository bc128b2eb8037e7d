<script setup lang="ts">
import { useTypedFrom } from './use-typed-from.ts'

/** Where what is typed next comes from, and on which page it stands. */
const props = defineProps<{ id: string }>()
const { from, page } = useTypedFrom(props.id)
</script>

<template>
  <div class="from">
    <label
      >From
      <select v-model="from">
        <option value="usual">manual, counted, measured: as usual</option>
        <option value="manual">the manual</option>
        <option value="plate">plate or stamp</option>
        <option value="counted">counted</option>
        <option value="measured">measured</option>
        <option value="assumed">assumed</option>
      </select>
    </label>
    <label class="leaf"
      >Page <input v-model="page" maxlength="40" inputmode="numeric" autocomplete="off"
    /></label>
    <slot />
  </div>
</template>

<style scoped>
.from {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.6rem;
}
.from > :deep(label) {
  display: grid;
  grid-template-rows: 1.3rem 44px;
  min-height: 0;
  font-size: var(--t-small);
  min-width: 0;
}
.from > label:first-child {
  flex: 1 1 12rem;
}
.from .leaf {
  flex: 0 0 6rem;
}
.from :deep(:is(select, input)) {
  height: 44px;
  width: 100%;
  padding: 0 0.4rem;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
</style>
