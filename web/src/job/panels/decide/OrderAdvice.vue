<script setup lang="ts">
import type { OrderSuggestion } from '@moray/core/setting/shim-solve'
import { useUnits } from '../../../ui/units.ts'

/** Which thickness to get, where the drawer does not hold what is wanted. */
defineProps<{ suggestions: readonly OrderSuggestion[] }>()
const units = useUnits()
</script>

<template>
  <section class="order">
    <h3>Buy, or cut down from a thicker one</h3>
    <p v-if="!suggestions.length">
      No single thickness would do. Look for a stuck shim, a wrong part, a bearing not seated.
    </p>
    <ul v-else>
      <li v-for="o in suggestions" :key="o.thicknessMm">
        <span class="mono">{{ o.count }} × {{ units.both(o.thicknessMm, 2) }}</span>
        <span class="small soft">{{ Math.round(o.probability * 100) }} % chance that all come in</span>
      </li>
    </ul>
  </section>
</template>
