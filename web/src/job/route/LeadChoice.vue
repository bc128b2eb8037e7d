<script setup lang="ts">
/** Which lead agrees, at this screen and under his own name. */
defineProps<{ leads: readonly { id: string; name: string }[] }>()
const lead = defineModel<string>({ required: true })
</script>

<template>
  <label class="entries">
    The lead, who does this himself
    <select v-model="lead">
      <option value="">choose</option>
      <option v-for="p in leads" :key="p.id" :value="p.id">{{ p.name }}</option>
    </select>
  </label>
</template>
