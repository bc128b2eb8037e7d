<script setup lang="ts">
import type { PatternReadInput } from '@moray/core/contact/pattern-question'
import type { PatternRead } from '@moray/core/contact/pattern-read'
import FlankDrawing from '../../drawing/FlankDrawing.vue'

/** Where the two patches were seen, and what it means. */
defineProps<{ input: PatternReadInput; result: PatternRead }>()
</script>

<template>
  <FlankDrawing title="Drive flank, as seen" :centre="[input.drive.length, input.drive.profile]" />
  <FlankDrawing title="Coast flank, as seen" :centre="[input.coast.length, input.coast.profile]" />
  <p><strong>{{ result.meaning.means }}</strong> {{ result.meaning.moves }} {{ result.meaning.effect }}</p>
</template>
