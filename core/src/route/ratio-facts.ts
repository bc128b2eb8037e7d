import type { DriveSheet } from '../drives/sheet.ts'
import { ratio } from '../gears/ratio.ts'
import type { Facts, FactValue } from './facts.ts'

type Mutable = Record<string, FactValue>

/** A fact where it is a number. */
export const numberIn = (facts: Facts, fact: string) => {
  const v = facts[fact]
  return typeof v === 'number' ? v : undefined
}

/** Turns counted and teeth counted against this sheet's own pair. */
export function ratioFacts(sheet: DriveSheet, of: string, agrees: string, all: Mutable) {
  const [driver, driven] = [numberIn(all, `${of}.driver`), numberIn(all, `${of}.driven`)]
  const [input, output] = [numberIn(all, `${of}.input-turns`), numberIn(all, `${of}.output-turns`)]
  const mesh = sheet.meshes[0]?.mesh
  if (!mesh || input === undefined || output === undefined) return
  const lowerPairs = [{ id: 'sheet', driver: mesh.pinionTeeth, driven: mesh.gearTeeth }]
  const counted =
    (driver === undefined || driver === mesh.pinionTeeth) &&
    (driven === undefined || driven === mesh.gearTeeth)
  // turns that cannot be do not agree
  all[agrees] = false
  const { candidates } = ratio({ lowerPairs, inputTurns: input, outputTurns: output, countErrorTurns: 0.1 })
  all[agrees] = counted && candidates[0]!.matches
}

/** The whole unit: teeth of both cases against turns counted through both, and which codes of this case would make them. */
export function overallFacts(sheet: DriveSheet, all: Mutable) {
  const mesh = sheet.meshes[0]?.mesh
  const [driver, driven] = [numberIn(all, 'partner.driver'), numberIn(all, 'partner.driven')]
  if (!mesh || driver === undefined || driven === undefined) return
  const other = { id: 'other', driver, driven }
  all['overall.expected'] = Math.round(((mesh.gearTeeth / mesh.pinionTeeth) * driven * 1000) / driver) / 1000
  const [input, output] = [numberIn(all, 'overall.input-turns'), numberIn(all, 'overall.output-turns')]
  if (input === undefined || output === undefined) return
  const pairs = (sheet.ratio?.stamps ?? []).flatMap((s) => {
    const [a, b] = (s.teeth.match(/\d+/g) ?? []).map(Number)
    return a && b ? [{ id: s.code, driver: a, driven: b }] : []
  })
  const own = { id: 'sheet', driver: mesh.pinionTeeth, driven: mesh.gearTeeth }
  const { candidates } = ratio({
    upperPairs: [other],
    lowerPairs: [own, ...pairs],
    inputTurns: input,
    outputTurns: output,
    countErrorTurns: 0.1,
  })
  all['overall.agrees'] = candidates.some((c) => c.lowerId === 'sheet' && c.matches)
  const fits = candidates.filter((c) => c.lowerId !== 'sheet' && c.matches).map((c) => c.lowerId)
  all['overall.fits'] = fits.join(', ') || 'none that this sheet knows'
}
