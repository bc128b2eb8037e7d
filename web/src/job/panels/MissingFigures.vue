<script setup lang="ts">
import { figureFields } from '@moray/core/drives/own/figures'
import type { Ability, FigureField } from '@moray/core/drives/own/figure-field'
import { readiness } from '@moray/core/drives/own/readiness'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import FigureInput from '../../drives/own/FigureInput.vue'
import { figureUnit } from '../../drives/own/show-figure.ts'
import { useOwn } from '../../stores/own.ts'
import { useSheetFile } from '../../wire/queries.ts'
import type { AddFigure } from '@moray/contract/requests/sheets'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import { useStorage } from '@vueuse/core'
import { RouterLink } from 'vue-router'
import type { ShownJob } from '../shown-job.ts'

/** Figures that the sheet of this job has not: asked for where they are needed, and put into the draft of the sheet's next version. */
const props = defineProps<{
  job: ShownJob
  /** Paths of the figures, in the order in which they are asked for. */
  paths: readonly string[]
  title?: string
  /** All that the sheet still needs for this, beside the paths. */
  ability?: Ability
  write: WriteState
}>()
const emit = defineEmits<{ figure: [figure: AddFigure, answered: Answered]; complete: [] }>()
const own = useOwn()
const file = useSheetFile(() => ({ id: props.job.sheetId, version: props.job.sheetVersion }))
/** Each figure makes a version of its own: until that has come, the last one stays, so that the field that is typed in keeps the focus. */
const body = shallowRef(file.body)
watch(
  () => file.body,
  (now) => now && (body.value = now),
)
const all = computed(() => (body.value ? figureFields(body.value) : []))
const named = (paths: readonly string[]) =>
  [...new Set(paths)].flatMap((p) => all.value.find((f) => f.path === p) ?? [])
const lacks = computed(() =>
  props.ability && body.value ? readiness(body.value).find((r) => r.ability === props.ability)!.lacks : [],
)
const fields = computed((): FigureField[] => named([...props.paths, ...lacks.value.map((l) => l.path)]))
/** What would do as well: gears counted and measured in place of rules. */
const others = computed(() => named(lacks.value.flatMap((l) => l.or ?? [])))
/** The last one is in: the hand goes on with what comes after it. */
watch(
  () => fields.value.length,
  async (left, before) => {
    await nextTick()
    if (left === 0 && before > 0 && document.activeElement === document.body) emit('complete')
  },
)
const page = useStorage(`moray.page.${props.job.sheetId}`, '')
const refused = ref<{ path: string; why: string } | null>(null)
/** Something was entered here: it is said where it goes. */
const entered = ref(false)
function set(field: FigureField, text: string, assumed = false) {
  if (text === '') return
  const unit = figureUnit(field, own.first)
  const source = assumed ? 'assumed' : field.usual
  const figure = {
    path: field.path,
    text,
    source,
    ...(unit === undefined ? {} : { unit }),
    ...(page.value.trim() && source === 'manual' ? { where: page.value.trim() } : {}),
  }
  emit('figure', figure, (done) => {
    entered.value ||= done
    if (done && refused.value?.path !== field.path) return
    const { error } = props.write
    refused.value = done ? null : { path: field.path, why: error?.fields[0]?.message ?? error?.message ?? '' }
  })
}
</script>

<template>
  <p v-if="entered" class="small soft">
    Kept for this job, and put into the draft of the sheet's next version:
    <RouterLink :to="`/drives/${job.sheetId}/draft`">look at the draft</RouterLink>.
  </p>
  <section v-if="fields.length" class="missing" aria-label="Figures that the sheet lacks">
    <h3>{{ title ?? 'Not on the sheet yet' }}</h3>
    <label class="leaf small"
      >Page of the manual <input v-model="page" maxlength="40" autocomplete="off"
    /></label>
    <FigureInput
      v-for="f in fields"
      :key="f.path"
      :field="f"
      :value="undefined"
      :first="own.first"
      :busy="write.busy"
      :problem="refused?.path === f.path ? refused.why : undefined"
      @set="(text) => set(f, text)"
      @assume="(text) => set(f, text, true)"
    />
    <details v-if="others.length">
      <summary>No rule in the manual: count and measure the gears instead</summary>
      <FigureInput
        v-for="f in others"
        :key="f.path"
        :field="f"
        :value="undefined"
        :first="own.first"
        :busy="write.busy"
        :problem="refused?.path === f.path ? refused.why : undefined"
        @set="(text) => set(f, text)"
      />
    </details>
  </section>
</template>

<style scoped>
.missing {
  margin: 0.8rem 0;
  border-top: 2px solid var(--ink);
  padding-top: 0.4rem;
}
.leaf {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}
.leaf input {
  width: 5rem;
  min-height: 36px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
</style>
