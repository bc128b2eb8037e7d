<script setup lang="ts">
import type { TorqueAdapter, TorqueAdapterInput } from '@moray/core/torque/adapter'
import { showOther } from '@moray/core/units/format'
import { computed } from 'vue'

/** Wrench and adapter to scale: handle, drive, fastener, and the arm that counts. */
const props = defineProps<{ input: TorqueAdapterInput; result: TorqueAdapter }>()
const [WIDTH, HEIGHT] = [380, 190]
const drawn = computed(() => {
  const { wrenchLengthMm: L, offsetMm: E } = props.input
  const angle = ((props.input.angleDeg ?? 0) * Math.PI) / 180
  const [fx, fy] = [E * Math.cos(angle), -E * Math.sin(angle)]
  const [left, right] = [Math.min(-L, fx), Math.max(0, fx)]
  const [low, high] = [Math.min(0, fy), Math.max(0, fy)]
  const scale = Math.min((WIDTH - 70) / (right - left), (HEIGHT - 90) / Math.max(high - low, 1), 1)
  const x = (v: number) => 35 + (v - left) * scale
  const y = (v: number) => 40 + (v - low) * scale
  return {
    grip: [x(-L), y(0)] as const,
    drive: [x(0), y(0)] as const,
    fastener: [x(fx), y(fy)] as const,
    base: Math.max(y(0), y(fy)) + 34,
  }
})
</script>

<template>
  <svg
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="`Set the wrench to ${result.settingNm.toFixed(1)} newton metres for ${input.targetNm} at the fastener`"
  >
    <line :x1="drawn.grip[0]" :y1="drawn.grip[1]" :x2="drawn.drive[0]" :y2="drawn.drive[1]" class="wrench" />
    <line
      :x1="drawn.grip[0] - 14"
      :y1="drawn.grip[1]"
      :x2="drawn.grip[0] + 26"
      :y2="drawn.grip[1]"
      class="grip"
    />
    <line
      :x1="drawn.drive[0]"
      :y1="drawn.drive[1]"
      :x2="drawn.fastener[0]"
      :y2="drawn.fastener[1]"
      class="adapter"
    />
    <circle :cx="drawn.drive[0]" :cy="drawn.drive[1]" r="9" class="drive" />
    <circle :cx="drawn.fastener[0]" :cy="drawn.fastener[1]" r="13" class="fastener" />
    <line :x1="drawn.grip[0]" :y1="drawn.base" :x2="drawn.fastener[0]" :y2="drawn.base" class="arm" />
    <line :x1="drawn.grip[0]" :y1="drawn.base - 6" :x2="drawn.grip[0]" :y2="drawn.base + 6" class="arm" />
    <line
      :x1="drawn.fastener[0]"
      :y1="drawn.base - 6"
      :x2="drawn.fastener[0]"
      :y2="drawn.base + 6"
      class="arm"
    />
    <text :x="(drawn.grip[0] + drawn.fastener[0]) / 2" :y="drawn.base + 18" text-anchor="middle">
      arm that counts
      {{
        (input.wrenchLengthMm + input.offsetMm * Math.cos(((input.angleDeg ?? 0) * Math.PI) / 180)).toFixed(0)
      }}
      mm
    </text>
    <text :x="drawn.grip[0] - 14" :y="drawn.grip[1] - 14">
      set {{ result.settingNm.toFixed(1) }} Nm · {{ showOther(result.settingNm, 'Nm') }}
    </text>
  </svg>
  <p class="small soft">
    Hand 25 mm nearer or farther would ask for {{ result.settingAtGripMinus25Nm.toFixed(1) }} or
    {{ result.settingAtGripPlus25Nm.toFixed(1) }} Nm: hold it at the mark.
  </p>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 32rem;
  display: block;
}
.wrench {
  stroke: var(--steel-dark);
  stroke-width: 9;
}
.grip {
  stroke: var(--ink);
  stroke-width: 17;
}
.adapter {
  stroke: var(--gear);
  stroke-width: 15;
  stroke-linecap: round;
}
.drive {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.fastener {
  fill: var(--lamp);
  stroke: var(--ink);
  stroke-width: 2;
}
.arm {
  stroke: var(--ink);
  stroke-width: 1.2;
}
text {
  font-family: var(--font);
  font-size: 12.5px;
  fill: var(--ink);
}
</style>
