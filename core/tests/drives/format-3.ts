import { readdirSync, readFileSync } from 'node:fs'
import type { BenchFacts } from '../../src/drives/bench-facts.ts'
import type { Fastener } from '../../src/drives/fasteners.ts'
import type { Further } from '../../src/drives/further.ts'
import type { Part } from '../../src/drives/parts.ts'
import type { Body3 } from '../../src/drives/upgrade/body-3.ts'

/** What the Moray of format 3 made of a stored sheet. */
export interface OldView {
  parts: Part[]
  bench: BenchFacts
  fasteners?: Fastener[]
  further?: Further
  oilCapacityMl?: number
}

const folder = new URL('./format-3/', import.meta.url)
const read = (file: string): unknown => JSON.parse(readFileSync(new URL(file, folder), 'utf8'))

/** Sheets as a Moray of format 3 stored them, each with what it made of them: those of the demo, and a bare one of every family. */
export const stored3: readonly { id: string; body: Body3; view: OldView }[] = readdirSync(folder)
  .filter((f) => f.endsWith('.json') && !f.endsWith('.view.json'))
  .map((f) => ({
    id: f.replace('.json', ''),
    body: read(f) as Body3,
    view: read(f.replace('.json', '.view.json')) as OldView,
  }))
