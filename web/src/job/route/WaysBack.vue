<script setup lang="ts">
import ReasonDialog from '../../ui/ReasonDialog.vue'
import type { WriteState } from '../../writing/for-panels.ts'

/** The three ways back from a closed step, each with a reason: an answer was otherwise, it never happened, what it did was undone since. */
defineProps<{
  over: boolean
  /** How many later steps are done again with it. */
  falling: number
  writes: Record<'correct' | 'back' | 'undo', WriteState>
}>()
const giving = defineModel<boolean>('giving', { required: true })
const taking = defineModel<boolean>('taking', { required: true })
const undoing = defineModel<boolean>('undoing', { required: true })
defineEmits<{ correct: [reason: string]; back: [reason: string]; undo: [reason: string] }>()
</script>

<template>
  <ReasonDialog
    v-model:open="giving"
    title="Correct what was answered"
    :explain="
      over
        ? 'The old answer stays in the record with your reason. The job stays over: nothing is asked or judged again.'
        : 'The old answer stays in the record with your reason. Only what stood on it is asked again.'
    "
    action="Correct it"
    :busy="writes.correct.busy"
    @give="(reason) => $emit('correct', reason)"
  />
  <ReasonDialog
    v-model:open="undoing"
    title="It was undone since"
    explain="It happened, and what it did was undone: slackened, drained, taken off again. The step stays done in the record, and what was undone is left to do once more."
    action="It was undone"
    :busy="writes.undo.busy"
    :error="writes.undo.error?.message"
    @give="(reason) => $emit('undo', reason)"
  />
  <ReasonDialog
    v-model:open="taking"
    title="Do the step again"
    :explain="
      falling
        ? `The work itself is done again, and with it ${falling} later step${falling > 1 ? 's' : ''}. All of it stays in the record. A wrong answer alone is better corrected.`
        : 'It is done again; what was answered stays in the record.'
    "
    action="Do it again"
    :busy="writes.back.busy"
    :error="writes.back.error?.message"
    @give="(reason) => $emit('back', reason)"
  />
</template>
