<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { Shop } from '@moray/contract/replies'
import { seedTable } from '@moray/core/inspection/fault-history'
import { plainNumber } from '@moray/core/units/plain-number'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useWrite } from '../writing/use-write.ts'

/** What the shop has learned about faults, and likelihoods that it sets by hand. */
defineProps<{ ways: Shop }>()
const emit = defineEmits<{ kept: [shop: Shop] }>()
const write = useWrite()
const labelOf = (rows: { id: string; label: string }[], id: string) =>
  rows.find((r) => r.id === id)?.label ?? id
const finding = ref(seedTable.findings[0]!.id)
const cause = ref(seedTable.causes[0]!.id)
const percent = ref('')
const reason = ref('')
const seed = computed(() => {
  const f = seedTable.findings.find((x) => x.id === finding.value)!
  return f.speaksFor[cause.value] ?? f.background
})
async function keepLikelihood() {
  const value = (plainNumber(percent.value) ?? NaN) / 100
  const sent = { percent: percent.value, reason: reason.value }
  const reply = await write.send(
    endpoints.setLikelihood,
    {},
    {
      finding: finding.value,
      cause: cause.value,
      ...(percent.value.trim() ? { likelihood: value } : {}),
      reason: reason.value,
    },
  )
  if (reply) emit('kept', reply)
  if (reply && percent.value === sent.percent && reason.value === sent.reason) {
    percent.value = ''
    reason.value = ''
  }
}
</script>

<template>
  <section aria-label="Faults">
    <h2>What faults were here</h2>
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
    <ul v-if="Object.keys(ways.found).length" class="found">
      <li v-for="(n, id) in ways.found" :key="id">
        <span class="mono">{{ n }} ×</span> {{ labelOf(seedTable.causes, String(id)) }}
      </li>
    </ul>
    <p v-else class="soft">No fault has been followed to its end yet.</p>
    <h3>Likelihoods set by hand</h3>
    <ul v-if="ways.edits.length" class="found">
      <li v-for="e in ways.edits" :key="`${e.finding} ${e.cause}`">
        {{ labelOf(seedTable.findings, e.finding) }}, when it is
        {{ labelOf(seedTable.causes, e.cause).toLowerCase() }}:
        <span class="mono">{{ Math.round(e.likelihood * 100) }} %</span>
      </li>
    </ul>
    <form class="rules entries" @submit.prevent="keepLikelihood">
      <label
        >Finding
        <select v-model="finding">
          <option v-for="f in seedTable.findings" :key="f.id" :value="f.id">{{ f.label }}</option>
        </select>
      </label>
      <label
        >When it is
        <select v-model="cause">
          <option v-for="c in seedTable.causes" :key="c.id" :value="c.id">{{ c.label }}</option>
        </select>
      </label>
      <label
        >Seen in % (table: {{ Math.round(seed * 100) }}; empty takes yours back)
        <input v-model="percent" inputmode="decimal"
      /></label>
      <label>Why <input v-model="reason" maxlength="300" /></label>
      <Button
        type="submit"
        label="Keep it"
        class="quiet"
        :disabled="reason.trim().length < 3 || write.busy.value"
      />
    </form>
  </section>
</template>

<style scoped>
.found li {
  border-bottom: 1px solid var(--line);
  padding: 0.25rem 0;
}
</style>
