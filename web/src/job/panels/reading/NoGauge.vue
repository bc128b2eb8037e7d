<script setup lang="ts">
import { RouterLink } from 'vue-router'

/** Said where something is to be read and the shop has nothing to read it with. */
</script>

<template>
  <p class="caution" role="alert">
    None of the shop's gauges reads this. Add one on the page
    <RouterLink to="/gauges">Gauges</RouterLink>; what is typed here stays.
  </p>
</template>
