<script setup lang="ts">
import { HONEST, honest, honestOf, honestWords, WANTS_WORDS, type Honest } from '@moray/core/route/honest'
import { computed, nextTick, ref, useTemplateRef } from 'vue'

/** What happens in a shop, in place of an answer: not done here, cannot tell, done elsewhere, it happened and was mended. */
const props = defineProps<{ firm: boolean }>()
const answer = defineModel<boolean | number | string | undefined>({ required: true })
const said = computed(() => honestOf(answer.value))
const open = ref(false)
const how = ref('')
const field = useTemplateRef<HTMLInputElement>('field')
/** The kind that wants words, while they are written. */
const telling = ref<Honest>()
const kinds = computed(() => (Object.keys(HONEST) as Honest[]).filter((k) => !props.firm || k === 'not-done'))
async function take(kind: Honest) {
  if (WANTS_WORDS[kind] && telling.value !== kind) {
    telling.value = kind
    await nextTick()
    field.value?.focus()
    return
  }
  if (WANTS_WORDS[kind] && how.value.trim().length < 3) return
  answer.value = honest(kind, WANTS_WORDS[kind] ? how.value : '')
  open.value = false
  telling.value = undefined
}
</script>

<template>
  <p v-if="said" class="said">
    <strong>{{ honestWords(String(answer)) }}</strong>
    <button type="button" class="texty small" @click="answer = undefined">answer it after all</button>
  </p>
  <template v-else>
    <button
      type="button"
      class="texty small other"
      :aria-expanded="open"
      title="not done here, cannot tell, done elsewhere, mended"
      aria-label="Other than asked: not done here, cannot tell, done elsewhere, mended"
      @click="open = !open"
    >
      <span aria-hidden="true">…</span>
    </button>
    <span v-if="open" class="kinds">
      <button v-for="k in kinds" :key="k" type="button" class="kind" @click="take(k)">{{ HONEST[k] }}</button>
      <input
        v-if="telling"
        ref="field"
        v-model="how"
        type="text"
        maxlength="300"
        :aria-label="WANTS_WORDS[telling]"
        :placeholder="WANTS_WORDS[telling]"
        @keydown.enter.prevent="take(telling)"
      />
    </span>
  </template>
</template>

<style scoped>
.said {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
  border-left: 4px solid var(--ink);
  padding-left: 0.7rem;
}
.other {
  position: absolute;
  top: -0.5rem;
  right: 0;
  width: 44px;
  min-height: 36px;
  font-weight: 700;
  color: var(--ink-soft);
  text-decoration: none;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.kind {
  font: inherit;
  color: inherit;
  min-height: 44px;
  padding: 0 0.8rem;
  background: none;
  border: 1px dashed var(--line-strong);
  cursor: pointer;
}
.kind:hover {
  border-color: var(--ink);
}
input {
  font: inherit;
  min-height: 44px;
  flex: 1 1 14rem;
  padding: 0 0.6rem;
  color: var(--ink);
  background: var(--sheet);
  border: 2px solid var(--line-strong);
}
</style>
