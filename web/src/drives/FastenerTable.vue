<script setup lang="ts">
import { LOCK_KINDS, type Fastener } from '@moray/core/drives/fasteners'
import { useOwn } from '../stores/own.ts'
import { rangeInBoth } from '../ui/both-units.ts'

/** Groups of fasteners with all that a wrench has to know of them. */
defineProps<{ fasteners: readonly Fastener[] }>()
const own = useOwn()
const torque = ({ torqueNm, torqueUnit }: Fastener) =>
  torqueNm ? rangeInBoth(torqueNm, 'Nm', own.first, torqueUnit) : ''
const lockText = (f: Fastener) =>
  [
    f.hand === 'left' ? 'left-hand' : '',
    f.lock && f.lock !== 'none' ? LOCK_KINDS[f.lock] : '',
    f.tabs === undefined ? '' : `${f.tabs} ${f.tabs === 1 ? 'tab' : 'tabs'}`,
    f.hidden ? 'easily overlooked' : '',
    f.captiveUntil ? `in before ${f.captiveUntil} closes` : '',
    f.useOnce ? 'used once' : '',
  ]
    .filter(Boolean)
    .join(', ')
const howText = (f: Fastener) =>
  [
    f.treatment,
    f.stages?.length ? `first ${f.stages.map((s) => `${Math.round(100 * s)} %`).join(', ')}` : '',
    f.order,
    f.angleDeg === undefined ? '' : `then ${f.angleDeg}° on`,
    f.held ? `held: ${f.held}` : '',
    f.turned ? `turned: ${f.turned}` : '',
  ]
    .filter(Boolean)
    .join('; ')
</script>

<template>
  <div class="scroll">
    <table class="ledger fine">
      <thead>
        <tr>
          <th scope="col">Fasteners</th>
          <th scope="col">Torque</th>
          <th scope="col">How</th>
          <th scope="col">Thread, lock</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="f in fasteners" :key="f.id">
          <td>
            {{ f.name }}<template v-if="f.count > 1"> × {{ f.count }}</template
            ><span v-if="f.where" class="small soft">, {{ f.where }}</span>
          </td>
          <td class="mono">{{ torque(f) }}</td>
          <td>{{ howText(f) }}</td>
          <td><span class="mono">{{ f.thread }}</span> {{ lockText(f) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
</style>
