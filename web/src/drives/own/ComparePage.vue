<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import LoadState from '../../ui/LoadState.vue'
import { showDate } from '../../ui/times.ts'
import { useSheetFile, useVersions } from '../../wire/queries.ts'
import DifferenceTable from './DifferenceTable.vue'

/** Two versions of a sheet side by side; which ones stands in the address. */
const props = defineProps<{ id: string }>()
const store = useVersions(() => props.id)
const route = useRoute()
const router = useRouter()
const editions = computed(() => store.versions ?? [])
const chosen = (name: 'from' | 'to', otherwise: number) =>
  editions.value.find((v) => String(v.edition) === String(route.query[name])) ?? editions.value[otherwise]
const to = computed(() => chosen('to', 0))
const from = computed(() => chosen('from', 1) ?? to.value)
const at = (v: { version: number } | undefined) => v && { id: props.id, version: v.version }
const left = useSheetFile(() => at(from.value))
const right = useSheetFile(() => at(to.value))
const choose = (name: 'from' | 'to', edition: string) =>
  void router.replace({ query: { ...route.query, [name]: edition } })
const value = (e: Event) => (e.target as HTMLSelectElement).value
</script>

<template>
  <LoadState v-if="!store.versions" what="the versions" :error="store.error" @again="store.load" />
  <template v-else>
    <div class="page-head">
      <h1>Versions of {{ right.body?.name ?? 'the sheet' }}</h1>
      <RouterLink :to="`/drives/${id}`">Back to the sheet</RouterLink>
    </div>
    <p v-if="!editions.length" class="soft">Nothing of this sheet is published yet.</p>
    <template v-else>
      <table class="ledger fine list">
        <tbody>
          <tr v-for="v in editions" :key="v.version">
            <td>Version {{ v.edition }}</td>
            <td>
              {{ v.at ? showDate(v.at) : 'came with Moray' }}<template v-if="v.by">, {{ v.by }}</template>
            </td>
            <td>{{ v.note }}</td>
            <td>{{ v.jobs }} {{ v.jobs === 1 ? 'job' : 'jobs' }}</td>
          </tr>
        </tbody>
      </table>
      <div class="which">
        <label
          >Before
          <select :value="from?.edition" @change="choose('from', value($event))">
            <option v-for="v in editions" :key="v.version" :value="v.edition">version {{ v.edition }}</option>
          </select></label
        >
        <label
          >After
          <select :value="to?.edition" @change="choose('to', value($event))">
            <option v-for="v in editions" :key="v.version" :value="v.edition">version {{ v.edition }}</option>
          </select></label
        >
      </div>
      <DifferenceTable
        v-if="left.body && right.body && from && to"
        :from="left.body"
        :to="right.body"
        :from-name="`Version ${from.edition}`"
        :to-name="`Version ${to.edition}`"
      />
    </template>
  </template>
</template>

<style scoped>
.list {
  margin-bottom: 1rem;
}
.which {
  display: flex;
  gap: 1rem;
  margin-bottom: 0.8rem;
}
.which label {
  display: grid;
}
.which select {
  min-height: 44px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
</style>
