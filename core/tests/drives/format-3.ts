import { readdirSync, readFileSync } from 'node:fs'
import type { BenchFacts } from '../../src/drives/upgrade/bench-3.ts'
import type { Fastener } from '../../src/drives/fasteners.ts'
import type { Further } from '../../src/drives/further.ts'
import type { Part } from '../../src/drives/parts.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import type { Body3 } from '../../src/drives/upgrade/body-3.ts'
import type { Plan } from '../../src/route/plan.ts'

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

/** Lists that such a sheet told plan and route, put in the place of those that its graph tells them. */
export const asSheetView = ({ parts, fasteners, further, oilCapacityMl }: OldView): Partial<DriveSheet> => ({
  parts,
  ...(fasteners ? { fasteners } : {}),
  ...(further ? { further } : {}),
  ...(oilCapacityMl === undefined ? {} : { oilCapacityMl }),
})

/** A plan by the ids of what is in it, in no order: the lists of the formats have their parts in different ones. */
export function planInShort(p: Plan) {
  const ids = (parts: readonly { id: string }[]) => parts.map((x) => x.id).sort()
  return {
    ...p,
    scope: { ...p.scope, targets: [...p.scope.targets].sort() },
    off: ids(p.off),
    stays: ids(p.stays),
    renew: p.renew.map((r) => `${r.part} ${r.why}`).sort(),
    worth: p.worth.map((w) => w.part).sort(),
  }
}
