import type { TorqueUnit } from '../units/torque-unit.ts'
import type { Window } from '../checks/window.ts'

/** What keeps a fastener from coming loose. */
export const LOCK_KINDS = {
  none: 'none',
  'tab-washer': 'tab washer',
  'castle-pin': 'castle nut and split pin',
  threadlocker: 'threadlocker',
  'self-locking': 'self-locking',
  'bent-ring': 'bent ring',
  'stop-screw': 'screw that stops a washer',
  'spring-washer': 'spring washer',
} as const
export type LockKind = keyof typeof LOCK_KINDS

/** One group of equal fasteners at one place of a drive. */
export interface Fastener {
  id: string
  name: string
  count: number
  /** Where it sits, in the sheet's words. */
  where?: string
  /** As the trade writes it: nominal and pitch. */
  thread?: string
  hand?: 'right' | 'left'
  torqueNm?: Window
  /** Unit in which the manual prints it. */
  torqueUnit?: TorqueUnit
  /** Turned on by so much after the torque. */
  angleDeg?: number
  /** Dry, oiled, or with which threadlocker. */
  treatment?: string
  /** Torques of the stages before the last, as parts of it: 0.5 is half. */
  stages?: number[]
  /** Crosswise, in a circle, or the numbers of the places. */
  order?: string
  lock?: LockKind
  tabs?: number
  /** What is held meanwhile, and what is turned. */
  held?: string
  turned?: string
  tool?: string
  /** From the drive of the wrench to the fastener, mm. */
  adapterMm?: number
  lengthsMm?: number[]
  hidden?: boolean
  /** It can only go in before this joint closes. */
  captiveUntil?: string
  /** A seal of its own under its head. */
  sealed?: boolean
  useOnce?: boolean
  /** What it closes. */
  closes?: string
}
