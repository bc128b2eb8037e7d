<script setup lang="ts">
import type { ToothContact, ToothContactInput } from '@moray/core/contact/tooth-contact'
import FlankDrawing from '../../drawing/FlankDrawing.vue'

/** The computed patch on the flank. */
defineProps<{ input: ToothContactInput; result: ToothContact }>()
</script>

<template>
  <FlankDrawing
    :title="input.side === (input.mesh.hand ?? 1) ? 'Concave flank of the gear' : 'Convex flank of the gear'"
    :outline="result.outline"
    :centre="[result.centroidLength, result.centroidProfile]"
  />
</template>
