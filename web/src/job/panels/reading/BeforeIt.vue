<script setup lang="ts">
import { computed, ref } from 'vue'

/** What has to be true before a reading counts, ticked once for a set-up. */
const props = defineProps<{ before: readonly string[] }>()
const ticked = defineModel<string[]>({ required: true })

const all = computed(() => props.before.every((b) => ticked.value.includes(b)))
const again = ref(false)
function tick(b: string, on: boolean) {
  ticked.value = on ? [...ticked.value, b] : ticked.value.filter((t) => t !== b)
  again.value = again.value && !all.value
}
</script>

<template>
  <p v-if="all && !again" class="held">
    <span>{{ before.length === 1 ? before[0] : `All ${before.length} hold` }}</span>
    <button type="button" class="texty small" @click="again = true">Look again</button>
  </p>
  <fieldset v-else class="before">
    <legend class="small soft">Before it counts; for as long as it stays set up</legend>
    <label v-for="b in before" :key="b">
      <input
        type="checkbox"
        :checked="ticked.includes(b)"
        @change="tick(b, ($event.target as HTMLInputElement).checked)"
      />
      <span>{{ b }}</span>
    </label>
    <button
      v-if="before.length > 1 && !all"
      type="button"
      class="texty small"
      @click="((ticked = [...before]), (again = false))"
    >
      All of it holds
    </button>
  </fieldset>
</template>

<style scoped>
.before {
  border: 0;
  padding: 0;
  margin: 0.3rem 0 0.6rem;
  font-size: var(--t-small);
}
label {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
input {
  width: 22px;
  height: 22px;
  flex: none;
  accent-color: var(--lamp);
}
.held {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
  font-size: var(--t-small);
}
.held span::before {
  content: '✓ ';
  font-weight: 700;
}
</style>
