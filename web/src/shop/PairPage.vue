<script setup lang="ts">
import { newRequestId } from '../wire/request-id.ts'
import { endpoints } from '@moray/contract/endpoints'
import Button from 'primevue/button'
import { ref } from 'vue'
import { asWireError, send } from '../wire/client.ts'

/** Opened on a device that is not known yet, by the code that a known one shows. */
const code = ref(decodeURIComponent(location.hash.slice(1)))
// the code is used once: it does not stay in the address
history.replaceState(history.state, '', '/pair')
const name = ref('')
const said = ref('')
const busy = ref(false)
async function pair() {
  busy.value = true
  said.value = ''
  try {
    await send(endpoints.pairDevice, {}, { code: code.value, name: name.value }, '', newRequestId())
    // everything is asked for anew, now that it is answered
    location.replace('/')
  } catch (e) {
    said.value = asWireError(e).message
    busy.value = false
  }
}
</script>

<template>
  <section class="pair" aria-labelledby="pair-head">
    <h1 id="pair-head">Pair this device</h1>
    <form class="entries" @submit.prevent="pair">
      <label>
        What it is called in the shop
        <input v-model="name" maxlength="60" autofocus placeholder="Tablet at stand 2" />
      </label>
      <label>
        Code
        <input v-model="code" maxlength="40" autocomplete="off" autocapitalize="characters" class="mono" />
      </label>
      <p v-if="said" class="fault" role="alert">{{ said }}</p>
      <Button
        type="submit"
        label="Pair it"
        class="lamp"
        :disabled="busy || name.trim().length < 2 || code.trim().length < 4"
      />
    </form>
    <p class="small soft">The code stands on a device that is known: Shop, Devices, Pair a device.</p>
  </section>
</template>

<style scoped>
.pair {
  max-width: 30rem;
  display: grid;
  gap: 0.8rem;
}
form {
  display: grid;
  gap: 0.7rem;
}
label {
  display: grid;
}
</style>
