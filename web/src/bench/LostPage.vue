<script setup lang="ts">
import { RouterLink } from 'vue-router'
</script>

<template>
  <h1>Nothing lies here</h1>
  <p>This address leads to no place in Moray. <RouterLink to="/">Back to the bench</RouterLink></p>
</template>
