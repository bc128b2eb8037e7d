<script setup lang="ts">
import { openingFor } from '@moray/core/route/opening'
import type { Adjuster, DriveSheet } from '@moray/core/drives/sheet'
import type { AvailablePiece } from '@moray/core/job/pieces'
import { computed } from 'vue'
import { useUnits } from '../../../ui/units.ts'

/** What plans may use: which stacks, how many pieces, out of the drawer or of this case; and pieces that were left out. */
const props = defineProps<{
  sheet: DriveSheet
  reachable: readonly Adjuster[]
  fromDrawer: boolean
  leftOut: readonly AvailablePiece[]
}>()
const wishes = defineModel<{ kept: string[]; most: number; left: string[]; ownOnly: boolean }>({
  required: true,
})
const emit = defineEmits<{ keep: [stack: string]; leave: [piece: string] }>()

const units = useUnits()
/** The same in words, for whoever has not opened it. */
const mayUse = computed(() => {
  const { kept, most, ownOnly } = wishes.value
  const label = (id: string) => props.sheet.adjusters.find((a) => a.id === id)?.label ?? id
  const stays = kept.map((id) => label(id).toLowerCase())
  return [
    stays.length ? `all stacks but ${stays.join(' and ')}` : 'any stack',
    most ? `${most} ${most === 1 ? 'piece' : 'pieces'} in each at most` : '',
    props.fromDrawer ? (ownOnly ? 'what came out of this case' : 'any piece') : '',
  ]
    .filter(Boolean)
    .join(', ')
})
/** What the sheet's hours come to for one stack alone. */
const minutes = (stack: string) => Math.round(openingFor(props.sheet, [stack]).minutes / 5) * 5
</script>

<template>
  <details v-if="reachable.length > 1 || fromDrawer" class="wishes">
    <summary>Plans may use {{ mayUse }}</summary>
    <fieldset v-if="reachable.length > 1" class="one-of only">
      <legend class="small soft">May be changed; minutes to open and close its side</legend>
      <label v-for="o in reachable" :key="o.id" :class="{ on: !wishes.kept.includes(o.id) }">
        <input
          type="checkbox"
          class="sr-only"
          :checked="!wishes.kept.includes(o.id)"
          @change="emit('keep', o.id)"
        />
        {{ o.label.toLowerCase() }}
        <span v-if="minutes(o.id)" class="small minutes">{{ minutes(o.id) }} min</span>
      </label>
    </fieldset>
    <label v-if="fromDrawer" class="most small">
      Pieces in a stack
      <select v-model="wishes.most" class="plain-field">
        <option :value="0">as the sheet allows</option>
        <option v-for="n in [1, 2, 3]" :key="n" :value="n">{{ n }} at most</option>
      </select>
    </label>
    <label v-if="fromDrawer" class="most small">
      Pieces from
      <select v-model="wishes.ownOnly" class="plain-field">
        <option :value="false">drawer and case</option>
        <option :value="true">this case alone</option>
      </select>
    </label>
  </details>
  <p v-if="leftOut.length" class="small lefts">
    Left out:
    <button
      v-for="p in leftOut"
      :key="p.id"
      type="button"
      class="texty small left-out mono"
      :aria-label="`Take ${p.label} again`"
      @click="emit('leave', p.id)"
    >
      {{ units.length(p.thicknessMm, 3) }} ×
    </button>
  </p>
</template>

<style scoped>
.wishes summary {
  min-height: 44px;
  padding: 0.6rem 0;
  cursor: pointer;
}
.lefts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
}
.left-out {
  margin-left: 0.6rem;
}
.minutes {
  margin-left: 0.5rem;
}
.most {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
}
</style>
