import { filled } from '../own/fill.ts'
import type { SheetBody } from '../own/body.ts'
import type { DriveSheet } from '../sheet.ts'
import alke2LowerBody from './alke-2-lower.json' with { type: 'json' }
import alke2UpperBody from './alke-2-upper.json' with { type: 'json' }
import havhestBody from './havhest-r-upper.json' with { type: 'json' }
import havsuleLowerBody from './havsule-duo-lower.json' with { type: 'json' }
import havsuleUpperBody from './havsule-duo-upper.json' with { type: 'json' }
import lomviBody from './lomvi-90.json' with { type: 'json' }
import rordrumBody from './rordrum-v.json' with { type: 'json' }
import sivkrokBody from './sivkrok-b.json' with { type: 'json' }
import teistBody from './teist-6.json' with { type: 'json' }
import tjeldBody from './tjeld-8.json' with { type: 'json' }

/** The invented sheets that ship, one at least for each family: files of the format, checked like any other before they are stored. */
export const demoBodies = [
  lomviBody,
  alke2UpperBody,
  alke2LowerBody,
  havsuleUpperBody,
  havsuleLowerBody,
  rordrumBody,
  teistBody,
  sivkrokBody,
  tjeldBody,
  havhestBody,
] as unknown as SheetBody[]

/** The same as everything else knows sheets. */
export const demoSheets: DriveSheet[] = demoBodies.map(filled)

export const [lomvi90, alke2Upper, alke2Lower, havsuleDuoUpper, havsuleDuoLower] = demoSheets as [
  DriveSheet,
  DriveSheet,
  DriveSheet,
  DriveSheet,
  DriveSheet,
  ...DriveSheet[],
]
