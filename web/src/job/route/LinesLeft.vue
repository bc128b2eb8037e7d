<script setup lang="ts">
import type { AcceptLine } from '@moray/contract/requests/route'
import { isFirm, lineId, type Line } from '@moray/core/assembly/invariants'
import { lineText } from '@moray/core/job/acts/line-text'
import { mendedIn } from '@moray/core/job/acts/mended-in'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import LeadChoice from './LeadChoice.vue'
import ReasonDialog from '../../ui/ReasonDialog.vue'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import type { ShownJob } from '../shown-job.ts'

/** Before it leaves the shop: what is not as it must be, each with the step that mends it, and the word that it may stay so. */
const props = defineProps<{
  job: ShownJob
  /** Those who may accept; undefined where whoever works may. */
  leads: readonly { id: string; name: string }[] | undefined
  write: WriteState
}>()
const emit = defineEmits<{ accept: [lead: string, body: AcceptLine, answered: Answered] }>()

const rows = computed(() =>
  props.job.work.lines
    .filter((l) => l.colour !== 'not-for-this-end')
    .map((line) => ({
      id: lineId(line),
      line,
      text: lineText(props.job.sheet, line),
      step: line.colour === 'red' ? mendedIn(props.job.route, props.job.sheet, line) : undefined,
      accepted: props.job.told?.findLast((t) => t.kind === 'accepted' && t.subject === lineId(line)),
    })),
)
const open = computed(() => rows.value.filter((r) => r.line.colour === 'red').length)
const asked = ref<{ id: string; text: string }>()
const lead = ref('')
const mayAccept = ({ code }: Line) => !isFirm(code)
function give(reason: string) {
  emit('accept', props.leads ? lead.value : '', { line: asked.value!.id, reason }, (done) => {
    if (done) asked.value = undefined
  })
}
</script>

<template>
  <section v-if="rows.length" class="lines" aria-label="Before it leaves the shop">
    <h3>Before it leaves the shop</h3>
    <p class="small soft" role="status">
      {{ open ? `${open} still open: each is mended, or accepted by name.` : 'Nothing is open any more.' }}
    </p>
    <ul>
      <li v-for="r in rows" :key="r.id" :class="r.line.colour">
        <p>{{ r.text }}</p>
        <p v-if="r.line.colour === 'accepted'" class="small soft">
          Accepted<template v-if="r.accepted"> by {{ r.accepted.by }}: {{ r.accepted.reason }}</template>
        </p>
        <div v-else class="ways">
          <RouterLink v-if="r.step" :to="{ query: { step: r.step.id } }">{{ r.step.what }}</RouterLink>
          <span v-else-if="r.line.code === 'open-item'" class="small">
            It is settled with the button for open items, at the top of the job.
          </span>
          <Button
            v-if="mayAccept(r.line)"
            label="Accept"
            class="quiet"
            :aria-label="`Accept: ${r.text}`"
            @click="asked = r"
          />
          <span v-else class="small">Nobody accepts this: it is mended.</span>
        </div>
      </li>
    </ul>
    <ReasonDialog
      :open="asked !== undefined"
      title="Accept it as it is"
      :explain="`${asked?.text}. Your reason stands in the record with your name, for the owner to read.`"
      action="Accept it"
      :unready="leads !== undefined && !lead"
      :busy="write.busy"
      :error="write.error?.message"
      @update:open="asked = undefined"
      @give="give"
    >
      <LeadChoice v-if="leads" v-model="lead" :leads="leads" />
    </ReasonDialog>
  </section>
</template>

<style scoped>
h3 {
  font-size: var(--t-body);
}
.lines {
  margin-bottom: 0.6rem;
}
li {
  border-left: 4px solid var(--out);
  padding: 0.2rem 0 0.2rem 0.7rem;
  margin: 0.4rem 0;
}
li.accepted {
  border-left-color: var(--ink);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1rem;
  align-items: center;
}
.ways a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
</style>
