<script setup lang="ts">
import type { UnitSystem } from '@moray/core/units/format'

/** Which units are read first. */
const first = defineModel<UnitSystem>({ required: true })
const SYSTEMS: { system: UnitSystem; label: string }[] = [
  { system: 'metric', label: 'millimetres, Nm, kPa' },
  { system: 'imperial', label: 'inches, ft-lb, psi' },
]
</script>

<template>
  <fieldset class="one-of">
    <legend class="small soft">Units that you read first; the others stand beside them</legend>
    <label v-for="s in SYSTEMS" :key="s.system" :class="{ on: first === s.system }">
      <input v-model="first" type="radio" :value="s.system" class="sr-only" /> {{ s.label }}
    </label>
  </fieldset>
</template>
