<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { schools, type SchoolId } from '@moray/core/route/schools'
import { computed, ref } from 'vue'
import ReasonDialog from '../ui/ReasonDialog.vue'
import SchoolList from '../shop/SchoolList.vue'
import { useJob } from './shown-job.ts'
import { useJobWrite } from '../writing/use-job-write.ts'

/** Where this job does it differently from the shop, and why. */
const store = useJob()
const write = useJobWrite()
const job = computed(() => store.job!)
const own = computed(() => new Map(job.value.schools.map((s) => [s.school, s])))
const chosen = (id: SchoolId) => ({
  value: String(job.value.facts[`school.${id}`]),
  from: own.value.has(id) ? `this job: ${own.value.get(id)!.reason}` : "the shop's way",
})
const asked = ref<{ school: SchoolId; choice: string } | null>(null)
async function give(reason: string) {
  if (!asked.value) return
  const reply = await write.send(endpoints.chooseJobSchool, { id: job.value.id }, { ...asked.value, reason })
  if (reply) asked.value = null
}
const question = computed(() => schools.find((s) => s.id === asked.value?.school)?.question ?? '')
</script>

<template>
  <div>
    <h2>Schools on this job</h2>
    <p class="soft intro">
      The sheet stands above all of them. A change counts for this job only, with its reason.
    </p>
    <SchoolList :chosen="chosen" @choose="(school, choice) => (asked = { school, choice })" />
    <ReasonDialog
      :open="asked !== null"
      :title="question"
      explain="Why does this job do it differently?"
      action="On this job"
      :busy="write.busy.value"
      :error="write.error.value?.message"
      @update:open="asked = null"
      @give="give"
    />
  </div>
</template>

<style scoped>
.intro {
  margin: 0.2rem 0 0.9rem;
}
</style>
