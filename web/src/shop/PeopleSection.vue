<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { Person } from '@moray/contract/replies'
import Button from 'primevue/button'
import { reactive, ref } from 'vue'
import { problemAt } from '../wire/client.ts'
import { keys, usePeople, useQueryClient } from '../wire/queries.ts'
import { useWrite } from '../writing/use-write.ts'

/** Who works here: added, renamed, made lead, gone. Nobody is deleted: what he wrote keeps his name. */
const people = usePeople()
const client = useQueryClient()
const add = useWrite()
const change = useWrite()
const fresh = reactive({ name: '', role: 'technician' as Person['role'] })
/** Whose line is open for changes, with what was typed. */
const open = ref<Person | null>(null)
async function keep(reply: Promise<Person[] | undefined>): Promise<boolean> {
  const list = await reply
  if (list) client.setQueryData(keys.people, list)
  return !!list
}
async function addOne() {
  if (await keep(add.send(endpoints.addPerson, {}, { ...fresh }))) fresh.name = ''
}
async function changeOne(now: Person) {
  const { id, name, role, retired } = now
  if (await keep(change.send(endpoints.changePerson, { id }, { name, role, retired }))) open.value = null
}
const coding = ref(false)
const code = ref('')
async function keepCode(p: Person) {
  if (!(await keep(change.send(endpoints.setCode, { id: p.id }, { code: code.value })))) return
  coding.value = false
  open.value = null
}
function begin(p: Person) {
  change.clear()
  coding.value = false
  code.value = ''
  open.value = { ...p }
}
</script>

<template>
  <section aria-label="People">
    <h2>People</h2>
    <p class="soft">Every entry carries a name. Who is added, or changed, is for the lead to say.</p>
    <ul>
      <li v-for="p in people.people ?? []" :key="p.id" :class="{ gone: p.retired }">
        <form v-if="open?.id === p.id" class="entries line" @submit.prevent="changeOne(open!)">
          <label>Name <input v-model="open!.name" maxlength="60" autocomplete="off" /></label>
          <label>
            Role
            <select v-model="open!.role">
              <option value="technician">technician</option>
              <option value="lead">lead</option>
            </select>
          </label>
          <Button type="submit" label="Keep" class="lamp" :disabled="change.busy.value" />
          <Button type="button" label="Leave it" class="quiet" @click="open = null" />
          <Button
            type="button"
            :label="p.retired ? 'Works here again' : 'Works here no more'"
            class="quiet"
            :disabled="change.busy.value"
            @click="changeOne({ ...open!, retired: !p.retired })"
          />
          <Button
            v-if="!coding"
            type="button"
            :label="p.coded ? 'Another code' : 'Give a code'"
            class="quiet"
            @click="coding = true"
          />
          <template v-else>
            <label
              >Code, four digits; empty for none
              <input v-model="code" inputmode="numeric" maxlength="4" autocomplete="off"
            /></label>
            <Button
              type="button"
              label="Keep the code"
              class="quiet"
              :disabled="change.busy.value"
              @click="keepCode(p)"
            />
          </template>
          <p v-if="change.error.value" class="bad all" role="alert">{{ change.error.value.message }}</p>
        </form>
        <template v-else>
          <span>{{ p.name }}</span>
          <span class="soft small"
            >{{ p.role }}{{ p.retired ? ', works here no more' : ''
            }}{{ p.coded ? ', with a code' : '' }}</span
          >
          <Button
            label="Change"
            class="quiet small-button"
            :aria-label="`Change ${p.name}`"
            @click="begin(p)"
          />
        </template>
      </li>
    </ul>
    <form class="entries line" @submit.prevent="addOne">
      <label>
        Somebody new
        <input v-model="fresh.name" maxlength="60" autocomplete="off" />
        <span v-if="problemAt(add.error.value, 'name')" class="bad" role="alert">{{
          problemAt(add.error.value, 'name')
        }}</span>
      </label>
      <label>
        Role
        <select v-model="fresh.role">
          <option value="technician">technician</option>
          <option value="lead">lead</option>
        </select>
      </label>
      <Button
        type="submit"
        label="Add"
        class="quiet"
        :disabled="fresh.name.trim().length < 2 || add.busy.value"
      />
      <p v-if="add.error.value && !problemAt(add.error.value, 'name')" class="bad all" role="alert">
        {{ add.error.value.message }}
      </p>
    </form>
  </section>
</template>

<style scoped>
ul {
  max-width: 60rem;
  margin-bottom: 0.8rem;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1rem;
  align-items: center;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
li > .soft {
  flex: 1;
}
.gone > span:first-child {
  color: var(--ink-soft);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
  padding: 0.4rem 0;
}
.line label {
  display: grid;
}
.bad {
  color: var(--out);
}
.all {
  width: 100%;
}
</style>
