<script setup lang="ts">
import { isCarrier } from '@moray/core/drives/sheet'
import type { ShimPlan } from '@moray/core/setting/shim-solve'
import { turnedBetween, turnedText } from '@moray/core/setting/turned'
import { computed } from 'vue'
import ConfirmDialog from '../../../ui/ConfirmDialog.vue'
import { useUnits } from '../../../ui/units.ts'
import type { ShownBuild, ShownJob } from '../../shown-job.ts'

/** Asks once before a plan is built: what it takes, and how carriers are turned. */
const props = defineProps<{ job: ShownJob; build: ShownBuild; turns: boolean; busy: boolean }>()
/** The plan that is asked about. */
const plan = defineModel<ShimPlan | null>({ required: true })
const emit = defineEmits<{ yes: [plan: ShimPlan] }>()

const units = useUnits()
const open = computed({
  get: () => plan.value !== null,
  set: (on) => !on && (plan.value = null),
})
/** Where the pieces come from: some lie in the case already. */
const piecesSaid = computed(() => {
  const ids = Object.values(plan.value?.stacks ?? {}).flatMap((s) => s.pieceIds)
  const ofDrawer = ids.filter((id) => props.job.pieces.find((p) => p.id === id)?.origin === 'drawer').length
  if (!ofDrawer) return 'All pieces come out of this case.'
  const rest = ids.length - ofDrawer
  return `${ofDrawer} of its pieces ${ofDrawer === 1 ? 'is' : 'are'} taken out of the drawer${rest ? `, ${rest} come out of this case` : ''}.`
})
const stacks = computed(() =>
  Object.entries(plan.value?.stacks ?? {}).map(([id, { thicknessMm }]) => {
    const adjuster = props.job.sheet.adjusters.find((a) => a.id === id)!
    const from = props.build.state.stacks[id]!
    return {
      label: adjuster.label,
      said: isCarrier(adjuster)
        ? turnedText(turnedBetween(adjuster, from, thicknessMm))
        : units.both(thicknessMm, 3),
    }
  }),
)
</script>

<template>
  <ConfirmDialog
    v-model:open="open"
    title="Build these stacks"
    action="Build this"
    :busy="busy"
    @yes="plan && emit('yes', plan)"
  >
    <p v-if="plan?.pieces">{{ piecesSaid }} The next trial is then measured anew.</p>
    <p v-if="turns">
      Turn from loose to tight, so that the thread's play lies on one side; out means one step further out,
      and back in. Lock it, and measure again after locking.
    </p>
    <ul class="small">
      <li v-for="s in stacks" :key="s.label">{{ s.label }}: <span class="mono">{{ s.said }}</span></li>
    </ul>
  </ConfirmDialog>
</template>
