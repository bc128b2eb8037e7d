<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import { REPAIR_REASONS, repairPlan, type RepairWhy } from '@moray/core/route/repair'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import SectionDrawing from '../drawing/SectionDrawing.vue'
import FormDialog from '../ui/FormDialog.vue'
import { useJobWrite } from '../writing/use-job-write.ts'
import { placeMarks, settingNames } from './scope/scope-words.ts'
import type { ShownJob } from './shown-job.ts'

/** A place is opened again after closing: where, why, and what that reaches, said before it is begun. */
const props = defineProps<{ job: ShownJob }>()
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const write = useJobWrite()
const why = ref<RepairWhy>('leak')
const note = ref('')
const targets = ref<string[]>([])
/** Nothing is opened before it is known where it leaks. */
const finds = ref(false)
const findsFirst = computed(() => finds.value && why.value === 'leak')
const sheet = computed(() => props.job.sheet)
const parts = computed(() => sheet.value.parts.filter((p) => p.role !== 'body'))
const plan = computed(() =>
  targets.value.length ? repairPlan(sheet.value, { targets: targets.value }) : null,
)
const marks = computed(() => (plan.value ? placeMarks(plan.value, targets.value) : {}))
function pick(place: string) {
  const ids = parts.value.filter((p) => p.place === place).map((p) => p.id)
  targets.value = ids.every((id) => targets.value.includes(id))
    ? targets.value.filter((t) => !ids.includes(t))
    : [...new Set([...targets.value, ...ids])]
}
async function open() {
  const reply = await write.send(
    endpoints.openLoop,
    { id: props.job.id },
    { why: why.value, targets: findsFirst.value ? [] : targets.value, note: note.value.trim() },
  )
  if (!reply) return
  emit('close')
  void router.push(`/jobs/${props.job.id}/route`)
}
</script>

<template>
  <FormDialog
    header="Open it again for a repair"
    action="Open the repair"
    :busy="write.busy.value"
    :unready="(!targets.length && !findsFirst) || note.trim().length < 3"
    :columns="1"
    @send="open"
    @close="emit('close')"
  >
    <fieldset class="one-of">
      <legend>Because of</legend>
      <label v-for="(words, id) in REPAIR_REASONS" :key="id" :class="{ on: why === id }">
        <input v-model="why" type="radio" name="why" :value="id" class="sr-only" /> {{ words }}
      </label>
    </fieldset>
    <label v-if="why === 'leak'" class="check">
      <input v-model="finds" type="checkbox" /> the place is not known yet: find it first
    </label>
    <template v-if="!findsFirst">
      <p class="small soft">Pick the place on the drawing, or the part by name.</p>
      <SectionDrawing :sheet="sheet" :marks="marks" :max-height="230" plain @pick="pick" />
      <label>
        Part
        <select
          :value="targets.at(-1) ?? ''"
          @change="targets = [($event.target as HTMLSelectElement).value].filter((v) => v !== '')"
        >
          <option value="">choose</option>
          <option v-for="p in parts" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select>
      </label>
    </template>
    <label>What was seen, and where <input v-model="note" type="text" maxlength="300" /></label>
    <p v-if="findsFirst" class="small said" aria-live="polite">
      Nothing is opened before the place is known; then only what leaks.
    </p>
    <div v-else-if="plan" class="small said" aria-live="polite">
      <p>Comes off: {{ plan.off.map((p) => p.name.toLowerCase()).join(', ') }}.</p>
      <p v-if="plan.disturbed.length">
        Disturbs {{ settingNames(sheet, plan.disturbed).join(', ').toLowerCase() }}: set and read again.
      </p>
      <p v-else>Nothing that sets the gears is disturbed.</p>
      <p>Then turned, and proved tight again. What was done before stays.</p>
    </div>
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
  </FormDialog>
</template>

<style scoped>
.check {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 44px;
}
.said {
  border-left: 4px solid var(--ink);
  padding-left: 0.7rem;
}
</style>
