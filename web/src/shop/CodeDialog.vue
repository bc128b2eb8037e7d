<script setup lang="ts">
import { newRequestId } from '../wire/request-id.ts'
import { endpoints } from '@moray/contract/endpoints'
import { computed, ref } from 'vue'
import { useShop } from '../stores/shop.ts'
import FormDialog from '../ui/FormDialog.vue'
import { send, asWireError } from '../wire/client.ts'

/** Four digits before anything is written under a name that asks for them; what was typed stays where it is. */
const shop = useShop()
const code = ref('')
const said = ref('')
const busy = ref(false)
const name = computed(() => shop.people.find((p) => p.id === shop.codeFor)?.name ?? '')
async function say() {
  busy.value = true
  try {
    await send(endpoints.sayCode, { id: shop.codeFor }, { code: code.value }, shop.codeFor, newRequestId())
    shop.codeFor = ''
  } catch (e) {
    said.value = asWireError(e).message
  }
  code.value = ''
  busy.value = false
}
</script>

<template>
  <FormDialog
    :header="`Code of ${name}`"
    action="Go on"
    :busy="busy"
    :unready="!/^\d{4}$/.test(code)"
    :columns="1"
    @send="say"
    @close="shop.codeFor = ''"
  >
    <label
      >Four digits
      <input
        v-model="code"
        type="password"
        inputmode="numeric"
        autocomplete="off"
        maxlength="4"
        autofocus
        :aria-invalid="said !== ''"
      />
    </label>
    <p v-if="said" class="fault" role="alert">{{ said }}</p>
    <p class="small soft">What you typed is still there; send it again afterwards.</p>
  </FormDialog>
</template>
