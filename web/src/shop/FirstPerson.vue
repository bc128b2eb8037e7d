<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import Button from 'primevue/button'
import { ref } from 'vue'
import { useShop } from '../stores/shop.ts'
import { problemAt } from '../wire/client.ts'
import { keys, useQueryClient } from '../wire/queries.ts'
import { useWrite } from '../wire/use-write.ts'

/** An empty shop begins with a name: whoever types it first is its lead. */
const client = useQueryClient()
const shop = useShop()
const write = useWrite()
const name = ref('')
async function begin() {
  const people = await write.send(endpoints.addPerson, {}, { name: name.value, role: 'lead' })
  if (!people) return
  shop.chosen = people[0]!.id
  shop.asking = false
  client.setQueryData(keys.people, people)
}
</script>

<template>
  <section class="first" aria-labelledby="first-head">
    <h1 id="first-head">An empty shop</h1>
    <p>Every entry carries the name of whoever made it. Who leads this shop?</p>
    <form class="entries" @submit.prevent="begin">
      <label>
        Name
        <input v-model="name" maxlength="60" autocomplete="name" autofocus />
        <span v-if="problemAt(write.error.value, 'name')" class="bad" role="alert">{{
          problemAt(write.error.value, 'name')
        }}</span>
      </label>
      <Button type="submit" label="Begin" class="lamp" :disabled="!name.trim() || write.busy.value" />
    </form>
    <p v-if="write.error.value && !problemAt(write.error.value, 'name')" class="fault" role="alert">
      {{ write.error.value.message }}
    </p>
  </section>
</template>

<style scoped>
.first {
  max-width: 34rem;
  display: grid;
  gap: 0.8rem;
}
form {
  display: grid;
  gap: 0.6rem;
  justify-items: start;
}
.bad {
  color: var(--out);
}
</style>
