<script setup lang="ts">
import { schools, type SchoolId } from '@moray/core/route/schools'
import { nextTick } from 'vue'

/** The schools with their choices and reasons; whoever shows it says what is chosen and what a change means. */
const props = defineProps<{ chosen: (id: SchoolId) => { value: string; from: string }; disabled?: boolean }>()
const emit = defineEmits<{ choose: [school: SchoolId, choice: string] }>()

/** Asks for a choice; what is chosen shows when it counts, and not before: the server, or a reason that is asked for, may refuse it. */
async function ask(e: Event, school: SchoolId, choice: string) {
  emit('choose', school, choice)
  await nextTick()
  const own = (e.target as HTMLElement).closest('fieldset')?.querySelectorAll('input') ?? []
  for (const input of own) input.checked = input.value === props.chosen(school).value
}
</script>

<template>
  <ul class="schools">
    <li v-for="s in schools" :key="s.id">
      <fieldset class="one-of">
        <legend>
          <strong>{{ s.question }}</strong> <span class="small soft">{{ chosen(s.id).from }}</span>
        </legend>
        <label v-for="o in s.options" :key="o.value" :class="{ on: chosen(s.id).value === o.value }">
          <input
            type="radio"
            class="sr-only"
            :name="s.id"
            :value="o.value"
            :checked="chosen(s.id).value === o.value"
            :disabled="disabled"
            @change="(e) => ask(e, s.id, o.value)"
          />
          {{ o.label }}
        </label>
      </fieldset>
      <p class="small soft">{{ s.options.find((o) => o.value === chosen(s.id).value)?.reason }}</p>
    </li>
  </ul>
</template>

<style scoped>
.schools {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 26rem), 1fr));
  gap: 0.8rem 1.8rem;
}
li {
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
}
</style>
