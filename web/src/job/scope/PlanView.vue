<script setup lang="ts">
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Plan } from '@moray/core/route/plan'
import { computed } from 'vue'
import { money } from '../../ui/money.ts'
import { proofWords, RENEWED, settingNames } from './scope-words.ts'

/** What a scope comes to, before anything is opened. */
const props = defineProps<{ sheet: DriveSheet; plan: Plan; currency: string | null; rate: number | null }>()
const emit = defineEmits<{ also: [part: string] }>()
const amount = (v: number) => money(v, props.currency)
/** Where prices are missing, what is known is the least. */
const atLeast = computed(() => (props.plan.unpriced ? 'at least ' : ''))
</script>

<template>
  <div class="plan">
    <dl class="sums">
      <div>
        <dt>comes off</dt>
        <dd>{{ plan.off.length }} <span class="small">of {{ plan.off.length + plan.stays.length }}</span></dd>
      </div>
      <div>
        <dt>about</dt>
        <dd>{{ plan.hours.toFixed(1) }} <span class="small">h</span></dd>
      </div>
      <div>
        <dt>
          parts {{ plan.unpriced && !plan.parts ? 'not known' : `${atLeast}${amount(plan.parts)}` }}, with
          labour
        </dt>
        <dd v-if="rate === null">not known</dd>
        <dd v-else>{{ atLeast }}{{ amount(plan.parts + plan.hours * rate) }}</dd>
      </div>
    </dl>
    <p v-if="sheet.lacks?.includes('unit.hours')" class="small soft">
      Hours as usual for such work; this drive's own are not known.
    </p>
    <p v-if="plan.waitDays" class="small">Parts on the way: up to {{ plan.waitDays }} days.</p>
    <h3>Setting</h3>
    <p v-if="plan.disturbed.length">
      <strong>Disturbed, set again:</strong> {{ settingNames(sheet, plan.disturbed).join(', ') }}.
    </p>
    <p v-if="plan.undisturbed.length && plan.off.length">
      <strong>Not disturbed:</strong> {{ settingNames(sheet, plan.undisturbed).join(', ') }}.
      <template v-if="!plan.disturbed.length"
        >No trial build and no pattern. What is only seated again is read once at the end, where it can be
        read as it stands.</template
      >
    </p>
    <p v-if="!plan.off.length">Nothing is opened.</p>
    <h3>Proved tight</h3>
    <p>{{ proofWords(plan) }}</p>
    <p class="small">
      {{ plan.apart ? 'The unit comes off the boat, or its halves apart.' : 'The unit stays on the boat.' }}
      {{ plan.drains ? 'The oil is let out and filled again.' : 'The oil stays in.' }}
    </p>
    <template v-if="plan.off.length">
      <h3>Comes off, in this order</h3>
      <ol class="off small">
        <li v-for="p in plan.off" :key="p.id">{{ p.name }}</li>
      </ol>
    </template>
    <template v-if="plan.renew.length">
      <h3>New</h3>
      <ul class="small">
        <li v-for="r in plan.renew" :key="r.part">
          {{ r.name }} <span class="soft">{{ RENEWED[r.why] }}</span>
        </li>
      </ul>
    </template>
    <template v-if="plan.worth.length">
      <h3>Worth doing while it is open</h3>
      <ul class="worth small">
        <li v-for="w in plan.worth" :key="w.part">
          <button type="button" class="texty small" @click="emit('also', w.part)">
            take in {{ w.name.toLowerCase() }}
          </button>
          <span class="soft"
            >{{ w.more.length ? `${w.more.length} more off` : 'nothing more off'
            }}{{ w.price ? `, ${amount(w.price)}` : '' }}</span
          >
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.6rem;
  margin: 0 0 0.4rem;
}
dt {
  font-size: var(--t-small);
  color: var(--ink-soft);
}
dd {
  margin: 0;
  font-size: var(--t-title);
  font-weight: 700;
}
h3 {
  font-size: var(--t-body);
  margin: 0.7rem 0 0.15rem;
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
}
.off {
  columns: 2;
  column-gap: 2rem;
  padding-left: 1.9rem;
  list-style: decimal;
}
.worth li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: baseline;
}
</style>
