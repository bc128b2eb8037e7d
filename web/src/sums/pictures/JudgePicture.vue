<script setup lang="ts">
import type { Judgement, JudgeInput } from '@moray/core/measuring/judge'
import WindowRuler from '../../ui/WindowRuler.vue'

defineProps<{ input: JudgeInput; result: Judgement }>()
</script>

<template>
  <WindowRuler
    label="Readings"
    :window="input.window"
    :decimals="3"
    :dots="input.readings"
    :reading="{ value: result.mean, U: result.U, verdict: result.verdict }"
  />
</template>
