import type { LeakPlan } from '../leak-plan.ts'
import type { BenchFacts } from './bench-3.ts'
import type { Fastener } from '../fasteners.ts'
import type { Further } from '../further.ts'
import type { SheetBody } from '../own/body.ts'
import type { Part } from '../parts.ts'

/** A sheet of format 3: what a drive is made of stood in four lists that did not meet. */

type Gaps<T, K extends keyof T> = Omit<T, K> & Partial<Pick<T, K>>

export type Part3 = Gaps<Part, 'count' | 'after' | 'inside'>

export type Leak3 = Partial<LeakPlan>
/** Facts of the bench that are one figure or word each. */
type Single = {
  [
    K in Exclude<keyof BenchFacts, 'leak' | 'lockTabs' | 'propeller' | 'joins' | 'leftHand' | 'hidden'>
  ]?: NonNullable<BenchFacts[K]>
}
export type Bench3 = Single & {
  leak?: Leak3
  lockTabs?: Partial<NonNullable<BenchFacts['lockTabs']>>
  propeller?: {
    kind?: 'tabs' | 'pin'
    tabs?: number
    threads?: number
    torqueNm?: { min?: number; max?: number }
    afterRun?: boolean
  }
  joins?: Partial<Omit<NonNullable<BenchFacts['joins']>, 'oilJoint'>> & { oilJoint?: Leak3 }
  leftHand?: Partial<NonNullable<BenchFacts['leftHand']>>
  hidden?: Partial<NonNullable<BenchFacts['hidden']>>
}

/** Lists and figures that both forms have alike. */
type Train =
  | 'axes'
  | 'gears'
  | 'meshes'
  | 'adjusters'
  | 'bearings'
  | 'seals'
  | 'belts'
  | 'measures'
  | 'runoutLimits'
  | 'service'
type Head =
  | 'id'
  | 'version'
  | 'name'
  | 'family'
  | 'demo'
  | 'summary'
  | 'manual'
  | 'ratio'
  | 'sources'
  | 'variants'
  | 'variant'

export interface Body3 extends Pick<SheetBody, Head | Train> {
  format: 3
  oilCapacityMl?: number
  parts: Part3[]
  fasteners?: Fastener[]
  further?: Further
  bench: Bench3
}
