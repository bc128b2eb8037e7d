import { CASE_SPACE } from '../graph/rows.ts'

/** What the paths of a sheet of format 3 lead to depends on which row each of its single facts has become, and which nut which group. */
export interface Moves {
  /** Old fact to row. */
  facts: Readonly<Record<string, string>>
  /** Old part to its group, for parts that are pieces now. */
  pieces: ReadonlyMap<string, string>
}

/** Where a figure of format 3 stands now, by the beginning of its path; the longest that fits counts. */
const TABLE: readonly [from: string, to: string | ((m: Moves) => string)][] = [
  ['oilCapacityMl', `spaces.${CASE_SPACE}.fillMl`],
  ['bench.leak.volumeMl', `spaces.${CASE_SPACE}.volumeMl`],
  ['bench.leak', 'tests.case'],
  ['bench.noTest', 'tests.case.noTest'],
  ['bench.joins.oilJoint', 'tests.joined'],
  ['bench.joins.to', 'interfaces.mount.name'],
  ['bench.joins.gear', 'interfaces.mount.gear'],
  ['bench.lubricant', `spaces.${CASE_SPACE}.holds`],
  ['bench.drainPlug', ({ facts }) => `groups.${facts.drain ?? 'drain'}.plug`],
  ['bench.lockTabs.what', ({ facts }) => `groups.${facts.lockTabs ?? 'big-ring'}.name`],
  ['bench.lockTabs', ({ facts }) => `groups.${facts.lockTabs ?? 'big-ring'}`],
  ['bench.leftHand.what', ({ facts }) => `groups.${facts.leftHand ?? 'left-hand'}.name`],
  ['bench.leftHand', ({ facts }) => `groups.${facts.leftHand ?? 'left-hand'}`],
  ['bench.captive', ({ facts }) => `groups.${facts.captive ?? 'captive'}.name`],
  ['bench.hidden', ({ facts }) => `groups.${facts.hidden ?? 'hidden'}`],
  ['bench.pinchScrews', ({ facts }) => `groups.${facts.pinchScrews ?? 'pinch'}`],
  ['bench.propeller.kind', ({ facts }) => `propellers.${facts.firstPropeller ?? 'only'}.held`],
  ['bench.propeller.afterRun', ({ facts }) => `propellers.${facts.firstPropeller ?? 'only'}.afterRun`],
  ['bench.propeller', ({ facts }) => `groups.${facts.propeller ?? 'propeller-nut'}`],
  ['bench.thrustHub', ({ facts }) => `propellers.${facts.firstPropeller ?? 'only'}.hub`],
  ['bench.sealSprings', 'sealPairs.pair.springs'],
  ['bench.raceLetters', 'ways.race-letters.text'],
  ['bench.oilFeed', 'ways.oil-feed.text'],
  ['bench.waterTube', 'ways.water-tube.text'],
  ['bench.shiftRod', 'ways.shift-rod.text'],
  ['bench.anodes', 'anodes.anodes.place'],
  ['bench.labour', 'unit.hours'],
  ['bench', 'unit'],
  ['fasteners', 'groups'],
  ['further.closures', 'joints'],
  ['further.sealDetails', 'sealFits'],
  ['further.propellers', 'propellers'],
  ['further.anodes', 'anodes'],
  ['further.tools', 'tools'],
  ['further.shiftStates', 'unit.levers'],
  ['further', 'unit'],
]

/** The path of a figure of format 3 as it is now; one that has not moved comes back as it is. */
export function movedPath(path: string, moves: Moves): string {
  const variant = /^(variants\.[^.]+\.)(.+)$/.exec(path)
  if (variant) return variant[1]! + movedPath(variant[2]!, moves)
  const [list, id, ...rest] = path.split('.')
  const group = list === 'parts' && id !== undefined ? moves.pieces.get(id) : undefined
  if (group !== undefined) return ['groups', group, 'pieces', id, ...rest].join('.')
  const renamed = list === 'fasteners' ? moves.facts[`fasteners.${id}`] : undefined
  if (renamed !== undefined) return ['groups', renamed, ...rest].join('.')
  const found = TABLE.find(([from]) => path === from || path.startsWith(`${from}.`))
  if (!found) return path
  const [from, to] = found
  return (typeof to === 'string' ? to : to(moves)) + path.slice(from.length)
}

/** The moves of a sheet that was brought up from format 3, as it keeps them. */
export function movesOf(sheet: {
  upgraded?: { rows: Record<string, string> }
  groups?: readonly { id: string; pieces?: readonly { id: string }[] }[]
}): Moves {
  return {
    facts: sheet.upgraded?.rows ?? {},
    pieces: new Map((sheet.groups ?? []).flatMap((g) => (g.pieces ?? []).map((p) => [p.id, g.id] as const))),
  }
}
