<script setup lang="ts">
import { readFigure } from '../ui/figures.ts'
import { endpoints } from '@moray/contract/endpoints'
import type { UnitSystem } from '@moray/core/units/format'
import { chosenSchool, type SchoolId } from '@moray/core/route/schools'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import LoadState from '../ui/LoadState.vue'
import type { Shop } from '@moray/contract/replies'
import { keys, useQueryClient, useShopWays } from '../wire/queries.ts'
import { useOwn } from '../stores/own.ts'
import { useWrite } from '../writing/use-write.ts'
import CopiesSection from './CopiesSection.vue'
import FaultsSection from './FaultsSection.vue'
import DevicesSection from './DevicesSection.vue'
import PeopleSection from './PeopleSection.vue'
import SchoolList from './SchoolList.vue'
import UnitsChoice from './UnitsChoice.vue'

/** The shop's own ways: rules, stands, schools, and what it has learned about faults. */
const store = useShopWays()
const client = useQueryClient()
const write = useWrite()
const own = useOwn()
async function keep(shop: Promise<Shop | undefined>) {
  const reply = await shop
  if (reply) client.setQueryData(keys.shop, reply)
  return reply
}
const FROM = { job: '', shop: "the shop's choice", usual: 'usual, not decided here' }
const chosen = (id: SchoolId) => {
  const { value, from } = chosenSchool(id, store.ways?.schools ?? {})
  return { value, from: FROM[from] }
}
const rules = ref({
  heading: '',
  departuresNeedLead: false,
  rate: '',
  consumables: '',
  currency: '',
  units: null as UnitSystem | null,
  stands: '',
})
/** What nobody has said yet is an empty field, and stays not known when it is left so. */
const typed = (v: number | null) => (v === null ? '' : String(v))
const asked = (text: string, max?: number): { value?: number; why?: string } =>
  text.trim() === '' ? {} : readFigure(text, max === undefined ? {} : { max })
// only what the form holds: what others learn about faults meanwhile takes away nothing that is being typed
watch(
  () => JSON.stringify([store.ways?.rules, store.ways?.stands]),
  () => {
    const w = store.ways
    if (w)
      rules.value = {
        heading: w.rules.heading,
        departuresNeedLead: w.rules.departuresNeedLead,
        rate: typed(w.rules.rate),
        consumables: typed(w.rules.consumables),
        currency: w.rules.currency ?? '',
        units: w.rules.units,
        stands: w.stands.join(', '),
      }
  },
  { immediate: true },
)
const readRules = computed(() => ({
  rate: asked(rules.value.rate, 100_000),
  consumables: asked(rules.value.consumables),
}))
const triedRules = ref(false)
const keptRules = ref(false)
async function keepRules() {
  const { rate, consumables } = readRules.value
  triedRules.value = Boolean(rate.why ?? consumables.why)
  keptRules.value = false
  if (triedRules.value) return
  const reply = await keep(
    write.send(
      endpoints.setShopRules,
      {},
      {
        heading: rules.value.heading,
        departuresNeedLead: rules.value.departuresNeedLead,
        ...(rate.value === undefined ? {} : { rate: rate.value }),
        ...(consumables.value === undefined ? {} : { consumables: consumables.value }),
        ...(rules.value.currency.trim() ? { currency: rules.value.currency } : {}),
        ...(rules.value.units ? { units: rules.value.units } : {}),
        stands: rules.value.stands
          .split(',')
          .map((s) => s.trim())
          .filter(Boolean),
      },
    ),
  )
  keptRules.value = !!reply
}
const confirm = ref('')
async function leaveDemo() {
  const reply = await write.send(endpoints.leaveDemo, {}, { confirm: 'leave the demo' })
  // nothing that this page has read is true any more
  if (reply) location.assign('/')
}
</script>

<template>
  <div>
    <h1>Shop</h1>
    <LoadState v-if="!store.ways" what="the shop's ways" :error="store.error" @again="store.load" />
    <template v-else>
      <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
      <section v-if="store.ways.demo" aria-label="Demo">
        <h2>This is the demo</h2>
        <p class="soft">
          People, drives and numbers are invented. Leaving it empties this shop for your own work; nothing of
          the demo is kept. Where jobs, drives or people of your own are in it, Moray names them and leaves
          everything as it is.
        </p>
        <form class="rules entries" @submit.prevent="leaveDemo">
          <label>
            To leave it, type “leave the demo”
            <input v-model="confirm" maxlength="20" autocomplete="off" />
          </label>
          <Button
            type="submit"
            label="Leave the demo"
            class="quiet"
            :disabled="confirm.trim() !== 'leave the demo' || write.busy.value"
          />
        </form>
      </section>
      <section aria-label="Yours">
        <h2>Yours, at this screen</h2>
        <UnitsChoice v-model="own.first" />
      </section>
      <PeopleSection />
      <DevicesSection />
      <CopiesSection />
      <section aria-label="Rules">
        <h2>Rules</h2>
        <form class="rules entries" @submit.prevent="keepRules">
          <label class="flag">
            <input v-model="rules.departuresNeedLead" type="checkbox" />
            <span>To go on although a gate is shut, the lead has to agree</span>
          </label>
          <label
            >Labour an hour <input v-model="rules.rate" inputmode="decimal" />
            <span v-if="triedRules && readRules.rate.why" class="bad" role="alert">{{
              readRules.rate.why
            }}</span></label
          >
          <label
            >Consumables of a usual job <input v-model="rules.consumables" inputmode="decimal" />
            <span v-if="triedRules && readRules.consumables.why" class="bad" role="alert">{{
              readRules.consumables.why
            }}</span></label
          >
          <label>Currency <input v-model="rules.currency" maxlength="12" /></label>
          <label
            >Units of the shop, for people who have not chosen their own
            <select v-model="rules.units">
              <option :value="null">not said</option>
              <option value="metric">millimetres, Nm, kPa</option>
              <option value="imperial">inches, ft-lb, psi</option>
            </select>
          </label>
          <label class="wide"
            >Name and address, at the head of each record
            <textarea v-model="rules.heading" rows="2" maxlength="300"></textarea>
          </label>
          <label class="wide">Stands, separated by commas <input v-model="rules.stands" /></label>
          <Button type="submit" label="Keep the rules" class="quiet" :disabled="write.busy.value" />
          <p v-if="keptRules" class="small" role="status">Kept.</p>
        </form>
      </section>
      <section aria-label="Schools">
        <h2>Schools</h2>
        <p class="soft">
          Where good technicians differ. The drive's sheet stands above, a job may do it differently with a
          reason.
        </p>
        <SchoolList
          :chosen="chosen"
          @choose="(school, choice) => keep(write.send(endpoints.chooseShopSchool, {}, { school, choice }))"
        />
      </section>
      <FaultsSection :ways="store.ways" @kept="(shop) => client.setQueryData(keys.shop, shop)" />
    </template>
  </div>
</template>

<style scoped>
.bad {
  color: var(--out);
}
section {
  margin-top: 1.2rem;
}
:deep(h2),
:deep(h3) {
  margin: 0.4rem 0;
}
:deep(.rules) {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: end;
}
:deep(.rules) label {
  display: grid;
  font-size: var(--t-small);
  max-width: 100%;
  min-width: 0;
}
:deep(.rules) select {
  width: 100%;
}
:deep(.rules) .wide {
  flex: 1 1 18rem;
}
:deep(.rules) .flag {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: 44px;
  width: 100%;
  font-size: var(--t-body);
}
:deep(.flag) input {
  width: 24px;
  height: 24px;
}
</style>
