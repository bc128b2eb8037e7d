/**
 * What a sheet may say besides figures that are computed with: read by whoever works, printed with it, carried along. Everything is optional.
 */

/** A joint that closes the case. */
export interface Closure {
  id: string
  name: string
  kind: 'cover' | 'carrier' | 'retainer' | 'halves' | 'plug'
  /** Ids of the fasteners that close it. */
  fasteners?: string[]
  /** What seals it. */
  sealedBy?: string
  /** It is proved tight with the case. */
  tested?: boolean
}

/** A seal beyond its place on the drawing: what it is, and how it goes in. */
export interface SealDetail {
  id: string
  name: string
  /** Where it sits: on a shaft, or at rest in a cover, a plug, a passage, a shift shaft. */
  at: 'shaft' | 'cover' | 'plug' | 'passage' | 'shift-shaft' | 'carrier'
  /** Id of the seal on the drawing. */
  seal?: string
  size?: string
  /** First, second … of those in one bore. */
  order?: number
  springs?: 'inward' | 'outward'
  /** Flush, to the ring groove, so many mm. */
  depth?: string
  film?: string
  /** What moves there. */
  moves?: 'turns' | 'slides' | 'nothing'
}

/** Where rod or lever stand at an act: they differ for opening, closing and joining. */
export interface ShiftState {
  id: string
  act: 'opening' | 'closing' | 'joining' | 'measuring'
  gear: 'neutral' | 'forward' | 'reverse'
  /** Height of the rod, notch, place of the lever, in the sheet's words. */
  rod?: string
  heightMm?: number
}

export interface ToolRow {
  id: string
  name: string
  /** What serves in its place, and what it must hold. */
  substitute?: string
  /** Serial numbers that it fits, in words. */
  serials?: string
}

/** A propeller that belongs on the drive. */
export interface PropellerRow {
  id: string
  name: string
  /** Front one, rear one, or the only one. */
  place?: 'only' | 'front' | 'rear'
  held: 'tab-washer' | 'castle-pin' | 'spring-washer' | 'shear-pin' | 'self-locking'
  turnsForward?: 'right' | 'left'
  torqueNm?: { min?: number; max?: number }
  /** Washers and hub, in order. */
  washers?: string[]
}

export interface AnodeRow {
  id: string
  place: string
  count?: number
  /** Alloys by water, as the maker and the shop say. */
  salt?: string
  brackish?: string
  fresh?: string
}

/** Which way up the case stands for an act, and what falls out when it is turned. */
export const ATTITUDE_ACTS = {
  off: 'taking parts out',
  in: 'building it back',
  setting: 'measuring and setting',
  joining: 'joining the halves',
  test: 'the pressure test',
  filling: 'filling',
} as const
export type AttitudeAct = keyof typeof ATTITUDE_ACTS

export interface Attitude {
  id: string
  act: string
  /** The work that it belongs to; one that nobody has said is shown as parts come out and go in. */
  during?: AttitudeAct
  up: string
  falls?: string
}

/** All of it; each list may be missing. */
export interface Further {
  closures?: Closure[]
  sealDetails?: SealDetail[]
  shiftStates?: ShiftState[]
  tools?: ToolRow[]
  propellers?: PropellerRow[]
  anodes?: AnodeRow[]
  attitudes?: Attitude[]
  /** Cautions of the sheet, a line each. */
  cautions?: string[]
  trimTab?: string
  /** The other half of this drive, by the id of its sheet. */
  partner?: string
  /** Where plate and stamps are. */
  plateAt?: string
  stampsAt?: string
}
