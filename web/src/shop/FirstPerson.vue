<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { UnitSystem } from '@moray/core/units/format'
import type { Person } from '@moray/contract/replies'
import Button from 'primevue/button'
import { computed, defineAsyncComponent, ref } from 'vue'
import { useOwn } from '../stores/own.ts'
import { useShop } from '../stores/shop.ts'
import { problemAt } from '../wire/client.ts'
import { keys, useQueryClient } from '../wire/queries.ts'
import { useWrite, useWriteAs } from '../writing/use-write.ts'
import UnitsChoice from './UnitsChoice.vue'

/**
 * An empty shop begins with who leads it, and with what nobody else can know: its name, its units, its currency, and where units stand. What is left
 * empty stays not known, and can be said later under Shop.
 */
/** While it is being set up the page stays, though its lead is known already. */
const BringBack = defineAsyncComponent(() => import('./BringBack.vue'))
const emit = defineEmits<{ beginning: [on: boolean] }>()
const client = useQueryClient()
const shop = useShop()
const own = useOwn()
const units = ref<UnitSystem>(own.usualFirst)
const write = useWrite()
const name = ref('')
const code = ref('')
const heading = ref('')
const currency = ref('')
const stands = ref('Stand 1, Stand 2')
const standList = computed(() => [
  ...new Set(
    stands.value
      .split(',')
      .map((s) => s.trim())
      .filter(Boolean),
  ),
])
/** Nobody is known here before the list of people is: what follows goes out under the name that was just written. */
const asLead = useWriteAs(() => shop.chosen)
/** People as they are once the lead is written down: another try after a failure does not write the name twice. */
const people = ref<Person[]>()
const error = computed(() => write.error.value ?? asLead.error.value)
async function begin() {
  emit('beginning', true)
  if (await takenOver()) {
    client.setQueryData(keys.people, people.value)
    emit('beginning', false)
  } else if (!people.value) emit('beginning', false)
}
/** One after the other: the name, what the shop is, the code. What failed is said, and what was typed stays. */
async function takenOver(): Promise<boolean> {
  people.value ??= await write.send(endpoints.addPerson, {}, { name: name.value, role: 'lead' })
  if (!people.value) return false
  const { id } = people.value[0]!
  shop.chosen = id
  shop.asking = false
  own.first = units.value
  const said = await asLead.send(
    endpoints.setShopRules,
    {},
    {
      departuresNeedLead: false,
      heading: heading.value.trim(),
      units: units.value,
      ...(currency.value.trim() ? { currency: currency.value.trim() } : {}),
      stands: standList.value,
    },
  )
  if (!said) return false
  client.setQueryData(keys.shop, said)
  if (code.value === '') return true
  const coded = await asLead.send(endpoints.setCode, { id }, { code: code.value })
  if (coded) people.value = coded
  return coded !== undefined
}
</script>

<template>
  <section class="first" aria-labelledby="first-head">
    <h1 id="first-head">An empty shop</h1>
    <p>Every entry shows who made it. Who leads this shop, and what is it called?</p>
    <form class="entries" @submit.prevent="begin">
      <label>
        Your name
        <input v-model="name" maxlength="60" autocomplete="name" autofocus />
        <span v-if="problemAt(write.error.value, 'name')" class="bad" role="alert">{{
          problemAt(write.error.value, 'name')
        }}</span>
      </label>
      <label>
        Code of four digits, if you want one
        <input v-model="code" maxlength="4" inputmode="numeric" pattern="\d{4}" autocomplete="off" />
      </label>
      <UnitsChoice v-model="units" class="wide" />
      <label>
        Name of the shop, at the head of each record
        <input v-model="heading" maxlength="300" autocomplete="organization" />
      </label>
      <label>
        Currency
        <input v-model="currency" maxlength="12" autocomplete="off" />
      </label>
      <label class="wide">
        Stands, separated by commas
        <input v-model="stands" maxlength="300" autocomplete="off" />
        <span v-if="!standList.length" class="bad" role="alert"
          >name one place where a unit stands; “Bench” will do</span
        >
      </label>
      <p class="small soft wide">
        What you leave empty stays not known. All of it can be changed under Shop, the price of an hour too.
      </p>
      <Button
        type="submit"
        label="Begin"
        class="lamp"
        :disabled="!name.trim() || !standList.length || write.busy.value || asLead.busy.value"
      />
    </form>
    <p v-if="error && !problemAt(error, 'name')" class="fault" role="alert">{{ error.message }}</p>
    <BringBack v-if="!people" />
  </section>
</template>

<style scoped>
.first {
  max-width: 44rem;
  display: grid;
  gap: 0.8rem;
}
form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
  gap: 0.8rem 1.2rem;
  align-items: end;
}
form > label {
  display: grid;
  gap: 0.2rem;
}
form > :deep(button) {
  justify-self: start;
}
.wide {
  grid-column: 1 / -1;
}
.bad {
  color: var(--out);
}
</style>
