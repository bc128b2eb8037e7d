<script setup lang="ts">
import { endpoints } from '@moray/contract/endpoints'
import type { Device, Pairing } from '@moray/contract/replies'
import { useIntervalFn } from '@vueuse/core'
import Button from 'primevue/button'
import { renderSVG } from 'uqr'
import { computed, ref } from 'vue'
import ReasonDialog from '../ui/ReasonDialog.vue'
import { showTime } from '../ui/times.ts'
import { keys, useDevices, useQueryClient } from '../wire/queries.ts'
import { useWrite } from '../writing/use-write.ts'

/** Tablets and phones of the shop: let in once by a code that is scanned, and put out again. */
const store = useDevices()
const client = useQueryClient()
const write = useWrite()
const out = useWrite()
const pairing = ref<Pairing | null>(null)
const now = ref(Date.now())
useIntervalFn(() => {
  now.value = Date.now()
  if (pairing.value && left.value <= 0) pairing.value = null
}, 1000)
const left = computed(() =>
  pairing.value ? Math.ceil((Date.parse(pairing.value.endsAt) - now.value) / 1000) : 0,
)
const links = computed(() =>
  (pairing.value?.addresses ?? []).map((a) => {
    const href = `${a}/pair#${pairing.value!.code}`
    return { href, svg: `data:image/svg+xml,${encodeURIComponent(renderSVG(href))}` }
  }),
)
async function begin() {
  pairing.value = (await write.send(endpoints.beginPairing, {}, { wanted: true })) ?? null
}
const leaving = ref<Device | null>(null)
async function revoke(reason: string) {
  const list = await out.send(endpoints.revokeDevice, { id: leaving.value!.id }, { reason })
  if (!list) return
  client.setQueryData(keys.devices, list)
  leaving.value = null
}
const spaced = computed(() => pairing.value?.code.replace(/(.{4})(?=.)/g, '$1 ') ?? '')
</script>

<template>
  <section aria-label="Devices">
    <h2>Devices</h2>
    <p class="soft">A tablet at the stand or a phone at the boat is let in once, and reads nothing before.</p>
    <ul>
      <li v-for="d in store.devices ?? []" :key="d.id" :class="{ gone: d.revoked }">
        <span>{{ d.name }}</span>
        <span class="soft small"
          >{{ d.revoked ? 'let in no more' : `last used ${showTime(d.seenAt)}` }}, paired by
          {{ d.pairedBy }}</span
        >
        <button v-if="!d.revoked" type="button" class="texty small" @click="leaving = d">
          let it in no more
        </button>
      </li>
    </ul>
    <Button v-if="!pairing" label="Pair a device" class="quiet" :disabled="write.busy.value" @click="begin" />
    <div v-else class="pairing">
      <template v-if="links.length">
        <p>Scan this with the device, or open the address there. It works once, for {{ left }} s more.</p>
        <figure v-for="l in links" :key="l.href">
          <img :src="l.svg" alt="Code for pairing, to be scanned" width="220" height="220" />
          <figcaption class="mono small">{{ l.href.split('#')[0] }}</figcaption>
        </figure>
      </template>
      <p v-else class="caution">
        This server listens to this machine only. Started with MORAY_LISTEN=0.0.0.0 it can be reached from the
        shop’s network; the README says how.
      </p>
      <p>Code <span class="mono code">{{ spaced }}</span></p>
      <Button label="Done" class="quiet" @click="((pairing = null), store.load())" />
    </div>
    <p v-if="write.error.value" class="fault" role="alert">{{ write.error.value.message }}</p>
    <ReasonDialog
      :open="leaving !== null"
      title="Let a device in no more"
      :explain="`${leaving?.name ?? ''} reads and writes nothing from now on; it can be paired again.`"
      action="Put it out"
      :busy="out.busy.value"
      :error="out.error.value?.message"
      @give="revoke"
      @update:open="(o: boolean) => !o && (leaving = null)"
    />
  </section>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
}
.gone {
  opacity: 0.7;
}
.pairing {
  display: grid;
  gap: 0.6rem;
  justify-items: start;
}
img {
  background: #fff;
}
.code {
  font-size: var(--t-title);
  letter-spacing: 0.08em;
}
</style>
