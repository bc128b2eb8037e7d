<script setup lang="ts">
import type { Piece } from '@moray/core/drives/graph/rows'
import { plainNumber } from '@moray/core/units/plain-number'

/** The loose pieces of a group: what lies in the tray when it is off. */
const pieces = defineModel<Piece[]>({ required: true })
const emit = defineEmits<{ add: [] }>()
const change = (i: number, more: Partial<Piece>) =>
  (pieces.value = pieces.value.map((p, k) => (k === i ? { ...p, ...more } : p)))
function price(i: number, text: string) {
  const { price: _before, ...rest } = pieces.value[i]!
  const next = text.trim() ? { ...rest, price: plainNumber(text) ?? NaN } : rest
  pieces.value = pieces.value.map((p, k) => (k === i ? next : p))
}
function number(i: number, text: string) {
  const { number: _before, ...rest } = pieces.value[i]!
  const next = text.trim() ? { ...rest, number: text.trim() } : rest
  pieces.value = pieces.value.map((p, k) => (k === i ? next : p))
}
const strike = (i: number) => (pieces.value = pieces.value.filter((_, k) => k !== i))
</script>

<template>
  <div class="pieces">
    <div v-for="(p, i) in pieces" :key="p.id" class="piece">
      <label
        >Piece
        <input
          :value="p.name"
          maxlength="80"
          autocomplete="off"
          @input="change(i, { name: ($event.target as HTMLInputElement).value })"
      /></label>
      <label
        >Your part number
        <input
          :value="p.number"
          maxlength="60"
          autocomplete="off"
          @change="number(i, ($event.target as HTMLInputElement).value)"
      /></label>
      <label
        >Price
        <input
          :value="p.price"
          inputmode="decimal"
          maxlength="12"
          @change="price(i, ($event.target as HTMLInputElement).value)"
      /></label>
      <label class="check"
        ><input
          type="checkbox"
          :checked="p.useOnce"
          @change="change(i, { useOnce: ($event.target as HTMLInputElement).checked })"
        />
        used once</label
      >
      <button type="button" class="texty small" @click="strike(i)">Take out</button>
    </div>
    <button type="button" class="texty" @click="emit('add')">Add a piece</button>
  </div>
</template>

<style scoped>
.piece {
  display: grid;
  grid-template-columns: minmax(7rem, 1fr) minmax(5rem, 7rem) 4.5rem auto auto;
  gap: 0.4rem 0.6rem;
  align-items: end;
}
.check {
  display: flex !important;
  min-height: 40px;
  align-items: center;
  gap: 0.4rem;
}
@media (max-width: 30rem) {
  .piece {
    grid-template-columns: 1fr 5rem;
  }
}
</style>
