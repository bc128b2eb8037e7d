<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, ref, useTemplateRef } from 'vue'
import NotationField from '../ui/NotationField.vue'
import { understand } from '../ui/understand.ts'
import { useDrawer } from '../wire/queries.ts'
import { useShop } from '../stores/shop.ts'
import { problemAt } from '../wire/client.ts'
import { useWrite } from '../wire/use-write.ts'

/** A new line: measured thickness, pieces, and where it lies. */
const emit = defineEmits<{ close: [] }>()
const store = useDrawer()
const shop = useShop()
const write = useWrite()
const text = ref('')
const count = ref('1')
const place = ref('')
const countField = useTemplateRef<{ $el: HTMLInputElement }>('countField')
const pieces = computed(() => (/^\d{1,3}$/.test(count.value.trim()) ? Number(count.value) : undefined))
const ready = computed(
  () => understand(text.value, shop.unit, 'shim-piece').state === 'value' && pieces.value !== undefined,
)
/** What is missing is said once somebody wants the line. */
const tried = ref(false)
async function send() {
  tried.value = !ready.value
  if (!ready.value) return
  const body = {
    text: text.value,
    unit: shop.unit,
    count: pieces.value!,
    ...(place.value.trim() ? { place: place.value.trim() } : {}),
  }
  const reply = await write.send(endpoints.addLine, {}, body)
  if (!reply) return
  await store.load()
  emit('close')
}
</script>

<template>
  <Dialog visible modal header="A new line in the drawer" @update:visible="emit('close')">
    <div class="form">
      <NotationField
        v-model="text"
        v-model:unit="shop.unit"
        label="Measured thickness"
        kind="shim-piece"
        focus-on="new"
        :error="problemAt(write.error.value, 'text')"
        @enter="countField?.$el.focus()"
      />
      <form @submit.prevent="send">
        <label for="pieces">Pieces</label>
        <InputText id="pieces" ref="countField" v-model="count" inputmode="numeric" />
        <p v-if="tried && pieces === undefined" class="small late" role="alert">
          “{{ count }}” is no number of pieces; a whole number from 0 to 999 is needed.
        </p>
        <p v-else-if="tried" class="small late" role="alert">The thickness is not understood yet.</p>
        <label for="place">Tray</label>
        <InputText id="place" v-model="place" maxlength="80" autocomplete="off" />
        <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
        <div class="actions">
          <Button type="button" label="Leave it" class="quiet" @click="emit('close')" />
          <Button type="submit" label="Add the line" class="lamp" :disabled="write.busy.value" />
        </div>
      </form>
    </div>
  </Dialog>
</template>

<style scoped>
.late {
  color: var(--out);
}
.form,
form {
  display: grid;
  gap: 0.5rem;
  width: min(28rem, 82vw);
}
form label {
  font-weight: 700;
}
.actions {
  display: flex;
  justify-content: flex-end;
  gap: 0.6rem;
}
</style>
