<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { computed, reactive, ref } from 'vue'
import FormDialog from '../../ui/FormDialog.vue'
import ListSection from './ListSection.vue'
import { plainNumber } from '@moray/core/units/plain-number'
import { problemAt } from '../../wire/client.ts'
import { useDrives } from '../../wire/queries.ts'
import { useDraftWrite } from './use-draft-write.ts'

/** What a sheet says in single lines: cautions, where plate and stamps are, the trim tab, the other half of the drive. */
const props = defineProps<{ draft: SheetDraft }>()
const write = useDraftWrite()
const drives = useDrives()
const others = computed(() => (drives.sheets ?? []).filter((d) => d.id !== props.draft.body.id))
const LINES = { plateAt: 'Plate', stampsAt: 'Stamps', trimTab: 'Trim tab' } as const
type Line = keyof typeof LINES
const unit = computed(() => props.draft.body.unit ?? {})
const WHOLE = { exchange: 'Exchange unit', used: 'Used unit' } as const
type Whole = keyof typeof WHOLE
const priceText = (w: Whole) => {
  const known = unit.value[w]
  return known ? `${known.price}, ${known.waitDays} days` : ''
}
const rows = computed(() =>
  [
    ...(Object.keys(WHOLE) as Whole[]).map((k) => [WHOLE[k], priceText(k)]),
    ...(Object.keys(LINES) as Line[]).map((k) => [LINES[k], unit.value[k] ?? '']),
    ['Other half', others.value.find((d) => d.id === unit.value.partner)?.name ?? unit.value.partner ?? ''],
    ...(unit.value.cautions ?? []).map((c) => ['Caution', c]),
  ].filter(([, said]) => said),
)

const open = ref(false)
const form = reactive({
  cautions: '',
  plateAt: '',
  stampsAt: '',
  trimTab: '',
  partner: '',
  exchange: { price: '', waitDays: '' },
  used: { price: '', waitDays: '' },
})
/** What stood there when the form was opened: the server refuses to write over anything else. */
let seen: object = {}
function edit() {
  write.clear()
  const { cautions, trimTab, partner, plateAt, stampsAt, exchange, used } = unit.value
  const asTyped = (w: typeof exchange) => ({
    price: w ? String(w.price) : '',
    waitDays: w ? String(w.waitDays) : '',
  })
  Object.assign(form, {
    cautions: (cautions ?? []).join('\n'),
    trimTab: trimTab ?? '',
    partner: partner ?? '',
    exchange: asTyped(exchange),
    used: asTyped(used),
    plateAt: plateAt ?? '',
    stampsAt: stampsAt ?? '',
  })
  seen = { cautions, trimTab, partner, plateAt, stampsAt, exchange, used }
  open.value = true
}
async function send() {
  const cautions = form.cautions
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
  const whole = (Object.keys(WHOLE) as Whole[]).flatMap((k) => {
    const { price, waitDays } = form[k]
    if (!price.trim() && !waitDays.trim()) return []
    // what is no number is refused by the server, at its place
    return [[k, { price: numberIn(price), waitDays: numberIn(waitDays) }] as const]
  })
  const now = {
    ...Object.fromEntries(whole),
    ...(cautions.length ? { cautions } : {}),
    ...(form.partner ? { partner: form.partner } : {}),
    ...Object.fromEntries(
      (Object.keys(LINES) as Line[]).flatMap((k) => (form[k].trim() ? [[k, form[k].trim()]] : [])),
    ),
  }
  if (await write.remarks(props.draft.body.id, { now }, seen)) open.value = false
}
/** Nothing typed is not 0: nobody knows it. */
const numberIn = (text: string) => (text.trim() ? (plainNumber(text) ?? text) : undefined) as number
const said = (field: string) => problemAt(write.error.value, `now.${field}`)
</script>

<template>
  <ListSection title="Places and cautions" action="Change them" @act="edit">
    <p v-if="!rows.length" class="small soft">
      Where the plate is, what its other half is, and what to beware of.
    </p>
    <p v-for="([what, text], i) in rows" :key="i" class="small">
      <span class="soft">{{ what }}:</span> {{ text }}
    </p>
    <FormDialog
      v-if="open"
      header="Places and cautions"
      action="Keep it"
      :busy="write.busy.value"
      @send="send"
      @close="open = false"
    >
      <label v-for="(label, k) in LINES" :key="k"
        >{{ label }} <input v-model="form[k]" maxlength="120" autocomplete="off" />
        <span v-if="said(k)" class="bad" role="alert">{{ said(k) }}</span>
      </label>
      <div v-for="(label, k) in WHOLE" :key="k" class="whole">
        <label
          >{{ label }}: price
          <input v-model="form[k].price" inputmode="decimal" maxlength="12" autocomplete="off" />
          <span v-if="said(`${k}.price`)" class="bad" role="alert">{{ said(`${k}.price`) }}</span>
        </label>
        <label
          >Days until it arrives
          <input v-model="form[k].waitDays" inputmode="numeric" maxlength="6" autocomplete="off" />
          <span v-if="said(`${k}.waitDays`)" class="bad" role="alert">{{ said(`${k}.waitDays`) }}</span>
        </label>
      </div>
      <label
        >Other half
        <select v-model="form.partner">
          <option value="">none, or not said</option>
          <option v-for="d in others" :key="d.id" :value="d.id">{{ d.name }}</option>
        </select></label
      >
      <label class="wide"
        >Cautions, one a line <textarea v-model="form.cautions" rows="4" maxlength="6000" />
        <span v-if="said('cautions')" class="bad" role="alert">{{ said('cautions') }}</span>
      </label>
      <p v-if="write.error.value" class="fault wide" role="alert">{{ write.error.value.message }}</p>
    </FormDialog>
  </ListSection>
</template>

<style scoped>
p {
  margin: 0.2rem 0;
}
</style>
