<script setup lang="ts">
import { ABILITIES, type Readiness } from '@moray/core/drives/own/readiness'
import type { FigureField } from '@moray/core/drives/own/figure-field'
import { computed } from 'vue'

/** What the sheet can do by now, and which figures would unlock the rest. */
const props = defineProps<{ rows: Readiness[]; fields: FigureField[] }>()
const emit = defineEmits<{ go: [path: string] }>()
const STATE = { ready: 'ready', partly: 'partly', open: 'not yet', none: 'not on this drive' }
const shown = computed(() => props.rows.filter((r) => r.state !== 'none'))
const nameOf = (path: string) => props.fields.find((f) => f.path === path)?.label.toLowerCase() ?? path
</script>

<template>
  <ul class="abilities" aria-label="What the sheet can do">
    <li v-for="r in shown" :key="r.ability" :class="r.state">
      <details>
        <summary>
          <span class="mark" aria-hidden="true"></span>
          <span class="what">{{ ABILITIES[r.ability] }}</span>
          <span class="state small"
            >{{ STATE[r.state] }}<template v-if="r.lacks.length"> · {{ r.lacks.length }}</template></span
          >
        </summary>
        <ul v-if="r.lacks.length" class="lacks small">
          <li v-for="l in r.lacks" :key="l.path">
            <button type="button" class="texty small" @click="emit('go', l.path)">{{ l.label }}</button>
            <span v-if="l.or?.length" class="soft">
              or
              <template v-for="(p, i) in l.or" :key="p"
                ><template v-if="i"> + </template
                ><button type="button" class="texty small" @click="emit('go', p)">
                  {{ nameOf(p) }}
                </button></template
              ></span
            >
          </li>
        </ul>
        <p v-else class="small soft">
          Nothing is missing<template v-if="r.assumed.length">, {{ r.assumed.length }} assumed</template>.
        </p>
      </details>
    </li>
  </ul>
</template>

<style scoped>
summary {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr) auto;
  gap: 0.5rem;
  align-items: center;
  min-height: 36px;
  cursor: pointer;
  list-style: none;
}
.abilities > li {
  border-bottom: 1px solid var(--line);
}
.mark {
  width: 12px;
  height: 12px;
  border: 2px solid var(--ink);
}
.ready .mark {
  background: var(--ink);
}
.partly .mark {
  background: linear-gradient(to top, var(--ink) 50%, transparent 50%);
}
.open .state {
  color: var(--ink-soft);
}
.lacks {
  padding: 0 0 0.5rem 1.4rem;
}
.lacks .texty {
  text-align: left;
  min-height: 30px;
}
</style>
