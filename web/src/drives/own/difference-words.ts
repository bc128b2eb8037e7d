import { factsOfClass, type Class, type FieldFacts } from '@moray/contract/fields/describe'
import { SheetFile } from '@moray/contract/sheet/sheet-file'
import { rowName } from '@moray/core/drives/graph/row-name'
import { GRAPH_LISTS } from '@moray/core/drives/graph/rows'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import type { Difference } from '@moray/core/drives/own/differences'

/** One row of the lists of a sheet. */
const ROWS: Record<string, string> = {
  axes: 'Shaft',
  gears: 'Gear',
  meshes: 'Pair of gears',
  adjusters: 'Stack',
  bearings: 'Bearing',
  seals: 'Seal',
  belts: 'Belt',
  measures: 'Measure',
  runoutLimits: 'Runout limit',
  parts: 'Part',
  groups: 'Fasteners',
  pieces: 'piece',
  joints: 'Joint',
  interfaces: 'Joint of the unit',
  spaces: 'Space',
  settings: 'Setting',
  sealFits: 'Seal',
  sealPairs: 'Pair of seals',
  propellers: 'Propeller',
  anodes: 'Anode',
  tools: 'Tool',
  ways: 'Which way',
  clearances: 'Clearance',
  lubricants: 'Grease or sealant',
  tests: 'Pressure test',
  service: 'Service',
  variants: 'Variant',
}

/** What a row is called that an edge leads to, in whichever list it stands. */
export const edgeName = (body: SheetBody, id: string): string | undefined =>
  GRAPH_LISTS.map((list) => rowName(figureAt(body, `${list}.${id}`))).find((name) => name !== undefined)

/** What differs, in words: figures by their label, everything else by its row and by what its field is called in the sheet's classes. */
export function differenceLabel({ path, label }: Difference, from: SheetBody, to: SheetBody): string {
  if (label !== undefined) return label
  const names = path.split('.')
  const words: string[] = []
  let owner: Class | undefined = SheetFile as Class
  for (let i = 0; i < names.length; i++) {
    const facts: FieldFacts | undefined = owner && factsOfClass(owner).get(names[i]!)
    owner = facts?.of?.()
    const here = names.slice(0, i + 1).join('.')
    const row = names[i + 1]
    if (row !== undefined && (Array.isArray(figureAt(from, here)) || Array.isArray(figureAt(to, here)))) {
      const at = `${here}.${row}`
      const name = rowName(figureAt(to, at)) ?? rowName(figureAt(from, at)) ?? row
      words.push(`${ROWS[names[i]!] ?? facts?.what ?? names[i]!} ${name}`)
      i++
    } else if (facts?.type === 'edges' && row !== undefined) {
      words.push(facts.what ?? names[i]!, edgeName(to, row) ?? edgeName(from, row) ?? row)
      i++
    } else words.push(facts?.what ?? names[i]!)
  }
  const said = words.join(': ')
  return said.charAt(0).toUpperCase() + said.slice(1)
}
