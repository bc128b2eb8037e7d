<script setup lang="ts">
import type { SheetBody } from '@moray/core/drives/own/body'
import { comparedFields, differences } from '@moray/core/drives/own/differences'
import { FIGURE_GROUPS } from '@moray/core/drives/own/figure-field'
import { computed } from 'vue'
import { useOwn } from '../../stores/own.ts'
import { differenceLabel } from './difference-words.ts'
import { anyText } from './show-figure.ts'

/** In what one version of a sheet differs from another, side by side. */
const props = defineProps<{ from: SheetBody; to: SheetBody; fromName: string; toName: string }>()
const own = useOwn()
const fields = computed(
  () => new Map([...comparedFields(props.from), ...comparedFields(props.to)].map((f) => [f.path, f])),
)
const rows = computed(() => differences(props.from, props.to))
</script>

<template>
  <p v-if="!rows.length" class="soft">They say the same.</p>
  <div v-else class="scroll">
    <table class="ledger fine">
      <thead>
        <tr>
          <th scope="col">Figure</th>
          <th scope="col">{{ fromName }}</th>
          <th scope="col">{{ toName }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="d in rows" :key="d.path">
          <td>
            {{ differenceLabel(d, from, to) }}
            <span v-if="fields.has(d.path)" class="small soft">{{
              FIGURE_GROUPS[fields.get(d.path)!.group].toLowerCase()
            }}</span>
          </td>
          <td class="mono">{{ anyText(fields.get(d.path), d.from, own.first) }}</td>
          <td class="mono">{{ anyText(fields.get(d.path), d.to, own.first) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
</style>
