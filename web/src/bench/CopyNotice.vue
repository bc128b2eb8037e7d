<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { showBytes } from '../ui/bytes.ts'
import { showAgo, showDate } from '../ui/times.ts'
import { useCopyNotice } from '../wire/queries.ts'

/** Says when the last good copy of the shop is old, or the disk is nearly full. */
const store = useCopyNotice()
const text = computed(() => {
  const n = store.notice
  switch (n?.kind) {
    case 'never':
      return `No copy of this shop has been made since it began, ${showAgo(n.since)}.`
    case 'old':
      return `The last good copy of this shop was made ${showAgo(n.at)}.`
    case 'ahead':
      return `The last good copy is dated ${showDate(n.at)}, which is yet to come: the clock of this machine was set back, or is wrong.`
    case 'disk':
      return `The disk is nearly full: ${showBytes(n.freeBytes)} left. When it is full nothing more can be stored.`
    default:
      return ''
  }
})
</script>

<template>
  <p v-if="text" class="caution" role="status">
    {{ text }} <RouterLink to="/shop#copies">Copies</RouterLink>
  </p>
</template>
