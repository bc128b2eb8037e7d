<script setup lang="ts">
import { lineOf } from '@moray/core/assembly/invariants'
import { lineText } from '@moray/core/job/acts/line-text'
import { repeatedWords } from '@moray/core/job/same-words'
import { REPAIR_REASONS } from '@moray/core/route/repair'
import { CAME, usualScopes } from '@moray/core/route/scope'
import { computed } from 'vue'
import { showTime } from '../../ui/times.ts'
import { proofWords, settingNames } from '../scope/scope-words.ts'
import type { ShownJob } from '../shown-job.ts'

/** What the job was to reach and what that left alone, what was open and how it was settled, and the repairs after closing. */
const props = defineProps<{ job: ShownJob }>()
const label = (usual: string) =>
  usualScopes(props.job.sheet).find((s) => s.usual === usual)?.label ?? 'picked by hand'
const names = (ids: readonly string[]) =>
  ids.map((id) => props.job.sheet.parts.find((p) => p.id === id)?.name ?? id).join(', ')
const accepted = computed(() => props.job.told?.filter((t) => t.kind === 'accepted') ?? [])
const repeated = computed(() => repeatedWords(props.job))
const untouched = computed(() => settingNames(props.job.sheet, props.job.plan.undisturbed))
</script>

<template>
  <section v-if="job.scopes.length" aria-label="Scope">
    <h2>Scope</h2>
    <p v-for="s in job.scopes" :key="s.at">
      <strong>{{ label(s.usual) }}</strong
      ><template v-if="s.usual === 'own'">: {{ names(s.targets).toLowerCase() }}</template>
      <template v-if="s.came"
        >. It came {{ CAME[s.came]
        }}<template v-if="s.lying?.length">: {{ names(s.lying).toLowerCase() }}</template></template
      >
      <span class="small soft"> {{ s.reason }} ({{ s.by }}, {{ showTime(s.at) }})</span>
    </p>
    <p v-if="untouched.length && job.plan.off.length">
      Not disturbed: {{ untouched.join(', ') }}. Nothing that carries or sets them came off.
    </p>
    <p>{{ proofWords(job.plan) }}</p>
  </section>
  <section v-if="job.openItems.length" aria-label="Open items">
    <h2>Open items</h2>
    <p v-for="i in job.openItems" :key="i.id">
      {{ i.text }}: {{ i.closed ? `${i.closed.how} (${i.closed.by})` : 'open' }}
      <span class="small soft">{{ i.by }}, {{ showTime(i.at) }}</span>
    </p>
  </section>
  <section v-if="accepted.length || repeated.length" aria-label="Accepted as it is">
    <h2>Accepted as it is</h2>
    <p v-for="t in accepted" :key="t.id">
      {{ lineText(job.sheet, lineOf(t.subject)) }}: {{ t.reason }}
      <span class="small soft">{{ t.by }}, {{ showTime(t.at) }}</span>
    </p>
    <p v-for="r in repeated" :key="r.words">
      At {{ r.points }} inspection points stands the same: “{{ r.words }}”.
    </p>
  </section>
  <section v-if="job.loops.length" aria-label="Repairs after closing">
    <h2>Repairs after closing</h2>
    <p v-for="l in job.loops" :key="l.number">
      <strong>{{ l.number }}.</strong> For {{ REPAIR_REASONS[l.why]
      }}{{ l.targets.length ? ` at ${names(l.targets).toLowerCase()}` : ', its place found first' }}:
      {{ l.note }}
      <span class="small soft">{{ l.by }}, {{ showTime(l.at) }}</span>
    </p>
  </section>
</template>
