<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import Button from 'primevue/button'
import { ref } from 'vue'
import { useShop } from '../stores/shop.ts'
import { problemAt } from '../wire/client.ts'
import { keys, useQueryClient } from '../wire/queries.ts'
import { useWrite, useWriteAs } from '../wire/use-write.ts'

/** An empty shop begins with a name: whoever types it first is its lead. */
const client = useQueryClient()
const shop = useShop()
const write = useWrite()
const name = ref('')
const code = ref('')
/** Nobody is known here before the list of people is: the code goes out under the name that was just written. */
const coding = useWriteAs(() => shop.chosen)
async function begin() {
  const people = await write.send(endpoints.addPerson, {}, { name: name.value, role: 'lead' })
  if (!people) return
  const { id } = people[0]!
  shop.chosen = id
  shop.asking = false
  // under the new name; where the code is not taken, it can still be set under Shop
  const coded =
    code.value === ''
      ? people
      : await coding.send(endpoints.setCode, { id }, { code: code.value }).then((all) => all ?? people)
  client.setQueryData(keys.people, coded)
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
      <label>
        Code of four digits, if you want one
        <input v-model="code" maxlength="4" inputmode="numeric" pattern="\d{4}" autocomplete="off" />
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
