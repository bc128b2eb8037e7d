import { withFigure } from '../../src/drives/own/body.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { FAMILIES, type DriveSheet } from '../../src/drives/sheet.ts'

/** Figures that a step of the route asks for where it is needed, by the end of their path; everything else stays unknown. */
const ASKED: [RegExp, unknown][] = [
  [/^tests\.case\.workKpa$/, 70],
  [/^tests\.case\.maxKpa$/, 100],
  [/^tests\.case\.holdMin$/, 15],
  [/^tests\.case\.allowedDrop\.kpa$/, 7],
  [/^spaces\.case\.volumeMl$/, 700],
  [/^spaces\.case\.fillMl$/, 650],
  [/^propellers\..*\.held$/, 'castle-pin'],
  [/^groups\..*\.torqueNm$/, { min: 90, max: 100 }],
  [/\.newNm$/, { min: 0.8, max: 1.2 }],
  [/\.crushMm$/, 0.08],
]

/** A drive of one's own of each family: bare, and with the few figures without which its route stops. */
export const ownSheets = Object.keys(FAMILIES).map((family) => {
  const bare = templateOf(family as DriveSheet['family'], 'own', 'Own')
  const typed = (filled(bare).lacks ?? []).reduce((body, path) => {
    const figure = ASKED.find(([end]) => end.test(path))
    return figure ? withFigure(body, path, figure[1]) : body
  }, bare)
  return { family, body: typed, bare: filled(bare), typed: filled(typed) }
})
