<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { isOver } from '@moray/core/job/record'
import Dialog from 'primevue/dialog'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { showTime } from '../ui/times.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import type { ShownJob } from './shown-job.ts'

/** What has to be settled before handover: added from any page of the job, closed by name. */
const props = defineProps<{ job: ShownJob }>()
const open = ref(false)
const text = ref('')
const settling = ref<number | null>(null)
const how = ref('')
const write = useJobWrite()
const left = computed(() => props.job.openItems.filter((i) => !i.closed))
const over = computed(() => isOver(props.job.state))
async function add() {
  if (text.value.trim().length < 3) return
  const sent = text.value
  const reply = await write.send(endpoints.addOpenItem, { id: props.job.id }, { text: sent.trim() })
  // what was typed while it was under way stays
  if (reply && text.value === sent) text.value = ''
}
async function settle(item: number) {
  const sent = how.value
  if (sent.trim().length < 3) return
  const reply = await write.send(endpoints.closeOpenItem, { id: props.job.id, item }, { how: sent.trim() })
  if (!reply || settling.value !== item || how.value !== sent) return
  settling.value = null
  how.value = ''
}
</script>

<template>
  <button type="button" class="open-items" :class="{ some: left.length }" @click="open = true">
    {{ left.length ? `${left.length} open` : 'Open items' }}
  </button>
  <Dialog v-model:visible="open" modal header="Open items">
    <div class="inside entries">
      <p v-if="!job.openItems.length" class="soft">
        Nothing is open. A missing plug, a lock of another unit, something promised to the owner: write it
        here when you see it.
      </p>
      <ul class="items">
        <li v-for="i in job.openItems" :key="i.id">
          <p>
            <strong :class="{ gone: i.closed }">{{ i.text }}</strong>
            <span class="small soft"> {{ i.by }}, {{ showTime(i.at) }}</span>
          </p>
          <p v-if="i.closed" class="small">Settled: {{ i.closed.how }} ({{ i.closed.by }})</p>
          <form v-else-if="settling === i.id" class="row" @submit.prevent="settle(i.id)">
            <input
              v-model="how"
              type="text"
              maxlength="300"
              autofocus
              :aria-label="`How was it settled: ${i.text}`"
              placeholder="how it was settled, or handed over in writing"
            />
            <Button type="submit" label="Settled" class="lamp" :disabled="how.trim().length < 3" />
          </form>
          <button v-else-if="!over" type="button" class="texty small" @click="settling = i.id">
            settle it
          </button>
        </li>
      </ul>
      <form v-if="!over" class="row" @submit.prevent="add">
        <input
          v-model="text"
          type="text"
          maxlength="300"
          aria-label="What is open"
          placeholder="what is open"
        />
        <Button
          type="submit"
          label="Add"
          class="lamp"
          :disabled="text.trim().length < 3 || write.busy.value"
        />
      </form>
      <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
    </div>
  </Dialog>
</template>

<style scoped>
.open-items {
  font: inherit;
  font-size: var(--t-small);
  color: inherit;
  min-height: 44px;
  padding: 0 0.6rem;
  background: none;
  border: 0;
  border-bottom: 4px solid transparent;
  cursor: pointer;
  white-space: nowrap;
}
.open-items.some {
  font-weight: 700;
  border-bottom-color: var(--ink);
}
.inside {
  display: grid;
  gap: 0.7rem;
  width: min(34rem, 84vw);
}
.items li {
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 0;
}
.gone {
  text-decoration: line-through;
  font-weight: 400;
}
.row {
  display: flex;
  gap: 0.5rem;
}
.row input {
  flex: 1;
  min-width: 0;
}
</style>
