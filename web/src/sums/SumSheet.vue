<script setup lang="ts">
import { examples } from '@moray/contract/calculations/examples'
import { describeCalculation } from '@moray/contract/calculations/registry'
import type { FieldDescription } from '@moray/contract/fields/describe'
import { useClipboard, useStorage } from '@vueuse/core'
import { showTime } from '../ui/times.ts'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useUnits } from '../ui/units.ts'
import { wordOf } from './names.ts'
import { useCalc } from '../workers/use-calc.ts'
import FieldEditor from './FieldEditor.vue'
import { guides } from './guides.ts'
import { pictures } from './pictures/index.ts'
import ResultValue from './ResultValue.vue'
import { toInput, toTyped, type Problems, type Typed } from './sum-model.ts'

/** One calculation: its form, its result, its formula in words; the address holds the inputs. */
const props = defineProps<{ name: string }>()
const route = useRoute()
const router = useRouter()
const calc = useCalc()
const description = describeCalculation(props.name)
const guide = guides[props.name]

/** Ways of asking (depth has one for each method): the one whose choices fit the input. */
function wayOf(input: Record<string, unknown>): number {
  const fits = (fields: FieldDescription[]) =>
    fields.every((f) => f.type !== 'choice' || f.optional || f.values?.includes(input[f.name] as string))
  return Math.max(0, description.input.findIndex(fits))
}
function start(): Record<string, unknown> {
  try {
    const asked = JSON.parse(String(route.query.in ?? '')) as unknown
    if (asked && typeof asked === 'object' && !Array.isArray(asked)) return asked as Record<string, unknown>
  } catch {
    // no inputs in the address, or not ours: begin with the example
  }
  return examples[props.name] ?? {}
}
const first = start()
const way = ref(wayOf(first))
const fields = computed(() => description.input[way.value]!)
const typed = ref<{ [field: string]: Typed }>(toTyped(fields.value, first))
/** A choice with one value is made by the way of asking. */
const isSettled = (f: FieldDescription) => f.type === 'choice' && !f.optional && f.values?.length === 1
function chooseWay(i: number) {
  way.value = i
  const only = fields.value
    .filter((f) => f.type === 'choice' && f.values?.length === 1)
    .map((f) => [f.name, f.values![0]])
  typed.value = toTyped(fields.value, Object.fromEntries(only) as Record<string, unknown>)
}

const read = computed(() => toInput(fields.value, typed.value))
const result = ref<Record<string, unknown> | null>(null)
/** The input that `result` belongs to: a picture never mixes new fields with an old answer. */
const answered = ref<Record<string, unknown>>({})
const picture = pictures[props.name]
const refusals = ref<Problems>({})
const general = ref('')
const problems = computed<Problems>(() => ({ ...refusals.value, ...read.value.problems }))

let turn = 0
watch(
  () => JSON.stringify(read.value),
  async () => {
    const mine = ++turn
    const { input, problems: misread } = read.value
    if (Object.keys(misread).length) {
      result.value = null
      general.value = 'Some fields are not understood yet.'
      return
    }
    void router.replace({ query: { in: JSON.stringify(input) } })
    try {
      const answer = await calc.run<Record<string, unknown>>(props.name, input)
      if (mine !== turn || answer === 'cancelled') return
      answered.value = input
      result.value = answer
      refusals.value = {}
      general.value = ''
    } catch (e) {
      if (mine !== turn) return
      result.value = null
      // a refusal comes over from the worker as its message: path: what is wrong; path: …
      const message = e instanceof Error ? e.message : String(e)
      refusals.value = Object.fromEntries(
        message
          .split('; ')
          .map((m): [string, string] => [m.split(': ')[0]!, m.split(': ').slice(1).join(': ')]),
      )
      general.value = message
    }
  },
  { immediate: true },
)
/** Lists that the picture shows are not written out again; the JSON has them. */
const listed = computed(() =>
  Object.fromEntries(
    Object.entries(result.value ?? {}).filter(
      ([field]) => !picture || !['outline', 'raster'].includes(field),
    ),
  ),
)
const unitOf = (field: string) => description.output.find((o) => o.name === field)?.unit
const meaning = (field: string) => description.output.find((o) => o.name === field)?.what ?? field

interface Kept {
  name: string
  at: string
  input: Record<string, unknown>
  result: Record<string, unknown>
}
const notebook = useStorage<Kept[]>('moray.notebook', [])
const own = computed(() => notebook.value.filter((k) => k.name === props.name))
function keep() {
  if (result.value)
    notebook.value = [
      { name: props.name, at: new Date().toISOString(), input: read.value.input, result: result.value },
      ...notebook.value,
    ].slice(0, 100)
}
function bring(k: Kept) {
  way.value = wayOf(k.input)
  typed.value = toTyped(fields.value, k.input)
}
const units = useUnits()
const { copy, copied } = useClipboard({ legacy: true })
const asJson = computed(() =>
  JSON.stringify({ calculation: props.name, input: read.value.input, result: result.value }, null, 2),
)
const brief = (k: Kept) =>
  Object.entries(k.result)
    .filter(([, v]) => typeof v === 'number' || typeof v === 'string')
    .slice(0, 3)
    .map(
      ([f, v]) =>
        `${meaning(f)}: ${typeof v === 'number' ? units.value(v, unitOf(f) ?? '') : wordOf(String(v))}`,
    )
    .join(', ')
</script>

<template>
  <section class="sheet" :aria-label="description.what">
    <h2>{{ description.what }}</h2>
    <p v-if="guide" class="formula">{{ guide.formula }}</p>
    <div class="cols">
      <form @submit.prevent>
        <fieldset v-if="description.input.length > 1" class="one-of ways">
          <legend class="small soft">Way of asking</legend>
          <label v-for="(w, i) in description.input" :key="i" :class="{ on: way === i }">
            <input type="radio" name="way" class="sr-only" :checked="way === i" @change="chooseWay(i)" />
            {{
              w
                .find((f) => f.type === 'choice')
                ?.values?.map((v) => wordOf(String(v)))
                .join(', ')
            }}
          </label>
        </fieldset>
        <div class="fields">
          <FieldEditor
            v-for="f in fields.filter((x) => !isSettled(x))"
            :key="f.name"
            v-model="typed[f.name]!"
            :field="f"
            :path="f.name"
            :problems="problems"
          />
        </div>
      </form>
      <div class="result" aria-live="polite">
        <h3>Result</h3>
        <p v-if="calc.progress.value" class="soft" role="status">Working: {{ calc.progress.value.stage }}</p>
        <p v-if="general" class="fault">{{ general }}</p>
        <div v-if="result && picture" class="picture">
          <component :is="picture" :input="answered" :result="result" />
        </div>
        <dl v-if="result">
          <div v-for="(value, field) in listed" :key="field">
            <dt>{{ meaning(String(field)) }}</dt>
            <dd><ResultValue :value="value" :unit="unitOf(String(field))" /></dd>
          </div>
        </dl>
        <div class="actions">
          <Button label="Keep in the notebook" class="lamp" :disabled="!result" @click="keep" />
          <Button
            :label="copied ? 'Copied' : 'Copy as JSON'"
            class="quiet"
            :disabled="!result"
            @click="copy(asJson)"
          />
        </div>
        <p class="small soft">Without the pages: <code>npm run -s calc -- {{ name }}</code></p>
        <section v-if="own.length" aria-label="Notebook">
          <h3>Notebook</h3>
          <ol>
            <li v-for="(k, i) in own" :key="k.at + i">
              <button type="button" class="texty small" @click="bring(k)">
                {{ showTime(k.at) }}
              </button>
              <span class="small mono brief">{{ brief(k) }}</span>
              <button
                type="button"
                class="texty small"
                :aria-label="`Tear out the note of ${showTime(k.at)}`"
                @click="notebook = notebook.filter((n) => n !== k)"
              >
                tear out
              </button>
            </li>
          </ol>
        </section>
      </div>
    </div>
  </section>
</template>

<style scoped>
.ways {
  margin-bottom: 0.8rem;
}
.formula {
  margin: 0.3rem 0 0.9rem;
  max-width: 60rem;
}
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(17rem, 1fr);
  gap: 1.6rem;
  align-items: start;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.9rem;
}
.result {
  border-left: 2px solid var(--ink);
  padding-left: 1.1rem;
  min-width: 0;
}
dl {
  margin: 0;
}
dl > div {
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 0;
}
dt {
  font-size: var(--t-small);
  color: var(--ink-soft);
}
dt::first-letter {
  text-transform: uppercase;
}
dd {
  margin: 0;
  overflow-x: auto;
}
.picture {
  min-height: 9rem;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin: 0.9rem 0;
}
ol li {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  justify-content: space-between;
  border-bottom: 1px solid var(--line);
}
.brief {
  white-space: normal;
}
@media (max-width: 1000px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
  .result {
    border-left: 0;
    border-top: 2px solid var(--ink);
    padding: 0.8rem 0 0;
  }
}
</style>
