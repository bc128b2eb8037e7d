<script setup lang="ts">
import { isOpen } from '@moray/core/job/job-work'
import type { ShownJob } from './shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import type { ChangeLife } from '@moray/contract/requests/life'
import { isOver } from '@moray/core/job/record'
import { computed, ref } from 'vue'
import ReasonDialog from '../ui/ReasonDialog.vue'
import { useStands } from '../bench/stands.ts'
import { useJobWrite } from '../writing/use-job-write.ts'
import CaseDialog from './CaseDialog.vue'
import CorrectJobDialog from './CorrectJobDialog.vue'
import LoopDialog from './LoopDialog.vue'
import MoveDialog from './MoveDialog.vue'
import { routeView } from './route/route-view.ts'

/** The life of a job: its stand, held, going on, closed, reopened. */
const props = defineProps<{
  job: ShownJob
  /** Whether it is open. */
  shown: boolean
}>()
const write = useJobWrite()
const shop = useStands(() => props.shown)
/** Number of another job on a stand. */
function takenBy(stand: string): string | undefined {
  const other = shop.on.get(stand)
  return other?.id === props.job.id ? undefined : other?.number
}
const over = computed(() => isOver(props.job.state))
const send = (body: ChangeLife) => write.send(endpoints.changeLife, { id: props.job.id }, body)
const asking = ref<'hold' | 'close' | 'reopen' | null>(null)
const step = ref('')
const correcting = ref(false)
const repairing = ref(false)
const pairing = ref(false)
/** A repair begins on the route, which the menu must not cover. */
const emit = defineEmits<{ repaired: [] }>()
function closeRepair() {
  repairing.value = false
  emit('repaired')
}
const moving = ref(false)
/** Only what was closed is opened again. */
const canRepair = computed(() => props.job.state !== 'closed' && !isOpen(props.job))
const closed = computed(() =>
  routeView(props.job).progress.steps.filter((s) => s.state === 'done' && s.step.asks.length > 0),
)
const TITLES = {
  hold: ['Hold the job', 'What does it wait for?', 'Hold it'],
  close: ['Close without a rebuild', 'It leaves the bench. It can be reopened.', 'Close it'],
  reopen: ['Reopen', 'From which step on is it done again, and why did it come back?', 'Reopen it'],
} as const
async function give(reason: string) {
  if (!asking.value) return
  const reply = await send({
    act: asking.value,
    reason,
    ...(asking.value === 'reopen' && step.value ? { step: step.value } : {}),
  })
  if (reply) asking.value = null
}
</script>

<template>
  <div class="menu entries">
    <label v-if="!over" class="small">
      Stand
      <select
        :value="job.stand ?? ''"
        @change="send({ act: 'stand', stand: ($event.target as HTMLSelectElement).value })"
      >
        <option value="">no stand</option>
        <option v-for="s in shop.stands" :key="s" :value="s" :disabled="!!takenBy(s)">
          {{ s }}{{ takenBy(s) ? `, taken by ${takenBy(s)}` : '' }}
        </option>
      </select>
    </label>
    <button v-if="job.heldReason !== null" type="button" class="texty small" @click="send({ act: 'resume' })">
      go on
    </button>
    <button v-else-if="!over" type="button" class="texty small" @click="asking = 'hold'">hold the job</button>
    <button v-if="!over" type="button" class="texty small" @click="asking = 'close'">close the job</button>
    <button v-else type="button" class="texty small" @click="asking = 'reopen'">reopen</button>
    <button v-if="!over" type="button" class="texty small" @click="correcting = true">
      correct what is written
    </button>
    <button v-if="canRepair" type="button" class="texty small" @click="repairing = true">
      open it again for a repair
    </button>
    <button v-if="!over && !job.partner" type="button" class="texty small" @click="pairing = true">
      its other half in this job
    </button>
    <button v-if="!over" type="button" class="texty small" @click="moving = true">it is another drive</button>
    <LoopDialog v-if="repairing" :job="job" @close="closeRepair" />
    <CaseDialog v-if="pairing" :job="job" @close="pairing = false" />
    <MoveDialog v-if="moving" :job="job" @close="moving = false" />
    <CorrectJobDialog v-if="correcting" :job="job" @close="correcting = false" />
    <p v-if="write.error.value && !asking" class="fault small" role="alert">
      {{ write.error.value.message }}
    </p>
    <ReasonDialog
      :open="asking !== null"
      :title="TITLES[asking ?? 'hold'][0]"
      :explain="TITLES[asking ?? 'hold'][1]"
      :action="TITLES[asking ?? 'hold'][2]"
      :busy="write.busy.value"
      :error="write.error.value?.message"
      @update:open="asking = null"
      @give="give"
    >
      <label v-if="asking === 'reopen' && closed.length">
        From step
        <select v-model="step">
          <option value="">the last one</option>
          <option v-for="s in closed" :key="s.step.id" :value="s.step.id">{{ s.step.what }}</option>
        </select>
      </label>
    </ReasonDialog>
  </div>
</template>

<style scoped>
.menu {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.9rem;
  align-items: center;
}
label {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
}
</style>
