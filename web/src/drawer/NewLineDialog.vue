<script setup lang="ts">
import type { LineCut } from '@moray/contract/requests/drawer'
import { endpoints } from '@moray/contract/endpoints'
import InputText from 'primevue/inputtext'
import { computed, ref, useTemplateRef } from 'vue'
import FormDialog from '../ui/FormDialog.vue'
import OneOf from '../ui/OneOf.vue'
import NotationField from '../ui/NotationField.vue'
import { understand } from '../ui/understand.ts'
import { useDrawer } from '../wire/queries.ts'
import { useShop } from '../stores/shop.ts'
import { problemAt } from '../wire/client.ts'
import { useWrite } from '../writing/use-write.ts'

/** A new line: measured thickness, pieces, and where it lies. */
const emit = defineEmits<{ close: [] }>()
const store = useDrawer()
const shop = useShop()
const write = useWrite()
const text = ref('')
const count = ref('1')
const place = ref('')
/** What can be made of the pieces. */
const kind = ref<'whole' | LineCut['kind']>('whole')
const KINDS = [
  { value: 'whole' as const, label: 'as they are' },
  { value: 'laminated' as const, label: 'peeled' },
  { value: 'ground' as const, label: 'ground' },
]
const step = ref('')
const least = ref('')
const saysLength = (t: string) => ['value', 'doubtful'].includes(understand(t, shop.unit, 'shim-piece').state)
const countField = useTemplateRef<{ $el: HTMLInputElement }>('countField')
const pieces = computed(() => (/^\d{1,3}$/.test(count.value.trim()) ? Number(count.value) : undefined))
const ready = computed(
  () =>
    pieces.value !== undefined &&
    (kind.value === 'whole'
      ? understand(text.value, shop.unit, 'shim-piece').state === 'value'
      : [text.value, step.value, least.value].every(saysLength)),
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
    ...(kind.value === 'whole' ? {} : { cut: { kind: kind.value, step: step.value, least: least.value } }),
  }
  const reply = await write.send(endpoints.addLine, {}, body)
  if (!reply) return
  await store.load()
  emit('close')
}
</script>

<template>
  <FormDialog
    header="A new line in the drawer"
    action="Add the line"
    :busy="write.busy.value"
    :columns="1"
    @send="send"
    @close="emit('close')"
  >
    <template #above>
      <NotationField
        v-model="text"
        v-model:unit="shop.unit"
        label="Measured thickness"
        kind="shim-piece"
        focus-on="new"
        :error="problemAt(write.error.value, 'text')"
        @enter="countField?.$el.focus()"
      />
    </template>
    <label for="pieces">Pieces</label>
    <InputText id="pieces" ref="countField" v-model="count" inputmode="numeric" />
    <p v-if="tried && pieces === undefined" class="small late" role="alert">
      “{{ count }}” is no number of pieces; a whole number from 0 to 999 is needed.
    </p>
    <p v-else-if="tried" class="small late" role="alert">
      {{ kind === 'whole' ? 'The thickness is' : 'A thickness is' }} not understood yet.
    </p>
    <OneOf v-model="kind" legend="They go in" :options="KINDS" />
    <template v-if="kind !== 'whole'">
      <div class="pair">
        <label>
          {{ kind === 'laminated' ? 'One layer is' : 'Ground in steps of' }}
          <InputText v-model="step" maxlength="60" autocomplete="off" fluid />
        </label>
        <label>
          Thinnest that may be left
          <InputText v-model="least" maxlength="60" autocomplete="off" fluid />
        </label>
      </div>
      <p
        v-for="path in ['cut.step', 'cut.least'].filter((p) => problemAt(write.error.value, p))"
        :key="path"
        class="small late"
      >
        {{ problemAt(write.error.value, path) }}
      </p>
      <p class="small soft">In bench notation; a bare number counts as {{ shop.unit }}.</p>
    </template>
    <label for="place">Tray</label>
    <InputText id="place" v-model="place" maxlength="80" autocomplete="off" />
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
  </FormDialog>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.8rem;
}
.late {
  color: var(--out);
}
</style>
