<script setup lang="ts">
import { placeOf } from '@moray/core/contact/marked'
import type { PatternMark } from '@moray/core/job/record'
import { computed } from 'vue'
import FlankDrawing from '../../drawing/FlankDrawing.vue'
import { buildName } from '../setting-view.ts'
import type { ShownJob } from '../shown-job.ts'

/** The contact patterns as they were seen, build by build, with those that were marked anew. */
const props = defineProps<{ job: ShownJob }>()

const builds = computed(() => props.job.builds.filter((b) => b.patterns.length > 0))
const labelOf = (mesh: string) => props.job.sheet.meshes.find((m) => m.id === mesh)?.label ?? mesh
const titleOf = (p: PatternMark) => `${labelOf(p.mesh)}, ${p.flank} flank, place ${p.place}`
const centreOf = (p: PatternMark): [number, number] => {
  const { length, profile } = placeOf(p.outline)
  return [length, profile]
}
</script>

<template>
  <section v-if="builds.length" aria-label="Contact as seen">
    <h2>Contact as seen</h2>
    <template v-for="b in builds" :key="b.number">
      <h3>{{ buildName(b) }}</h3>
      <ul class="marks">
        <li v-for="p in b.patterns" :key="p.id" :class="{ gone: p.superseded }">
          <FlankDrawing compact :title="titleOf(p)" :outline="p.outline" :centre="centreOf(p)" />
          <p class="small soft">
            {{ p.by }}<template v-if="p.note">: {{ p.note }}</template>
            <template v-if="p.superseded">
              · marked anew by {{ p.superseded.by }}: {{ p.superseded.reason }}</template
            >
          </p>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.marks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.6rem 1rem;
}
.gone {
  opacity: 0.75;
}
</style>
