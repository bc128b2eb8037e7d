import type { DriveSheet } from '../sheet.ts'
import { alke2Lower, alke2Upper } from './alke-2.ts'
import { havsuleDuoLower, havsuleDuoUpper } from './havsule-duo.ts'
import { havhestUpper, tjeld8 } from './more-drives.ts'
import { lomvi90 } from './lomvi-90.ts'
import { rordrumV, sivkrokB, teist6 } from './small-drives.ts'

/** The invented sheets that ship, one at least for each family. */
export const demoSheets: DriveSheet[] = [
  lomvi90,
  alke2Upper,
  alke2Lower,
  havsuleDuoUpper,
  havsuleDuoLower,
  rordrumV,
  teist6,
  sivkrokB,
  tjeld8,
  havhestUpper,
]
