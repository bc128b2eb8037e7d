/** Where the patches lie, in the trade's words. */
export type PatternKind = 'centred' | 'toe' | 'heel' | 'top' | 'root' | 'crossed' | 'edge'

/** What the inverse on this mesh says of a pair of patches (pattern-read.ts). */
export type PatternFinding = 'centred' | 'setting' | 'axes'

export interface PatternMeaning {
  kind: PatternKind
  /** What it is. */
  means: string
  /** Which part moves which way; empty where no shim helps. */
  moves: string
  /** What it does to noise and life. */
  effect: string
}

/** Within this much of the middle a patch counts as centred; beyond EDGE it bears on an edge. */
const CENTRED = 0.25
const EDGE = 0.8

const WORDS: Record<PatternKind, Omit<PatternMeaning, 'kind'>> = {
  centred: {
    means: 'Both patches lie in the middle of the flank.',
    moves: 'Nothing moves.',
    effect: 'Quiet, and the load has room to spread.',
  },
  toe: {
    means: 'Both patches lie toward the toe, the small end.',
    moves: 'Gear outward: away from the mesh. Backlash grows with it.',
    effect: 'Whines, and the small end of the teeth takes the load.',
  },
  heel: {
    means: 'Both patches lie toward the heel, the large end.',
    moves: 'Gear inward: into the mesh. Backlash shrinks with it.',
    effect: 'Whines, and the heel may chip under load.',
  },
  top: {
    means:
      'The patches lie toward the top of the gear tooth; on spiral teeth they go to opposite ends with it.',
    moves: 'Pinion inward: deeper into the mesh.',
    effect: 'Noisy under load; tips scuff.',
  },
  root: {
    means:
      'The patches lie toward the root of the gear tooth; on spiral teeth they go to opposite ends with it.',
    moves: 'Pinion outward: out of the mesh.',
    effect: 'Noisy on the overrun; the pinion tip digs in.',
  },
  crossed: {
    means: 'The patches lie apart in a way that no move of pinion and gear explains.',
    moves: '',
    effect:
      'The axes do not meet as they should: case, bearing seat or pairing is wrong, or a patch was misread. No shim mends that; read them once more.',
  },
  edge: {
    means: 'A patch lies on the very edge of the flank.',
    moves: 'Do not run it. Find the reason first, then set it again.',
    effect: 'Load on an edge breaks teeth.',
  },
}

/** What the inverse found, as far as the words need it (pattern-read.ts). */
export interface FoundMoves {
  kind: PatternFinding
  pinionMm?: number
  gearMm?: number
  knownMm?: { value: number; u: number }
  sign?: 1 | -1 | 0
}

/**
 * What the two patches mean. Whether a shim mends it is never read off one coordinate: on spiral teeth a pinion out of depth goes to
 * opposite ends on the two flanks and to top or root on both, so `crossed` is said only when the inverse on this very mesh finds no
 * move of pinion and gear that explains the patches. An edge comes before everything else.
 * @param found of pattern-read.ts; without it only the common part of the two patches is judged, profile before length, by thresholds
 *   of our own: a quarter of half the flank is what an eye can tell
 */
export function patternMeaning(
  pair: {
    drive: { length: number; profile: number }
    coast: { length: number; profile: number }
  },
  found?: FoundMoves,
): PatternMeaning {
  const { drive, coast } = pair
  const say = (kind: PatternKind): PatternMeaning => ({ kind, ...WORDS[kind] })
  const all = [drive.length, drive.profile, coast.length, coast.profile]
  if (all.some((v) => Math.abs(v) > EDGE)) return say('edge')
  if (found?.kind === 'axes') return say('crossed')
  if (found?.kind === 'centred') return say('centred')
  if (found?.pinionMm !== undefined && found.gearMm !== undefined) {
    // outward puts the pinion's patch to the top, the gear's to the heel
    if (Math.abs(found.pinionMm) >= Math.abs(found.gearMm)) return say(found.pinionMm > 0 ? 'top' : 'root')
    return say(found.gearMm > 0 ? 'heel' : 'toe')
  }
  if (found?.knownMm) return together(found.knownMm, found.sign ?? 0)
  const along = (drive.length + coast.length) / 2
  const up = (drive.profile + coast.profile) / 2
  if (Math.max(Math.abs(along), Math.abs(up)) <= CENTRED) return say('centred')
  if (Math.abs(up) > CENTRED) return say(up > 0 ? 'top' : 'root')
  return say(along < 0 ? 'toe' : 'heel')
}

/**
 * Teeth that answer along their length with one sum of both moves: the sum says whether the pair stands apart (+) or too deep (−), the
 * height which of the two does. By the sign of the sum, then of the height.
 */
const TOGETHER: Record<`${-1 | 0 | 1},${-1 | 0 | 1}`, Omit<PatternMeaning, 'effect'>> = {
  '1,1': {
    kind: 'top',
    means: 'The pair stands too far apart and the patches lie toward the top: the pinion is out.',
    moves: 'Pinion inward: deeper into the mesh. Its depth says how far.',
  },
  '1,-1': {
    kind: 'heel',
    means: 'The pair stands too far apart and the patches lie toward the root: the gear is out.',
    moves: 'Gear inward: into the mesh. The depth of the pinion says how far.',
  },
  '1,0': {
    kind: 'heel',
    means: 'The pair stands too far apart; the height of the patches does not say which part.',
    moves: 'Pinion or gear inward. Measure the depth of the pinion to know which.',
  },
  '-1,1': {
    kind: 'toe',
    means: 'The pair stands too close and the patches lie toward the top: the gear is in.',
    moves: 'Gear outward: away from the mesh. The depth of the pinion says how far.',
  },
  '-1,-1': {
    kind: 'root',
    means: 'The pair stands too close and the patches lie toward the root: the pinion is in.',
    moves: 'Pinion outward: out of the mesh. Its depth says how far.',
  },
  '-1,0': {
    kind: 'toe',
    means: 'The pair stands too close; the height of the patches does not say which part.',
    moves: 'Pinion or gear outward. Measure the depth of the pinion to know which.',
  },
  '0,1': {
    kind: 'top',
    means: 'Along the tooth it is right, but the patches lie toward the top: pinion out and gear in.',
    moves: 'Pinion inward and gear outward together. The depth of the pinion says how far.',
  },
  '0,-1': {
    kind: 'root',
    means: 'Along the tooth it is right, but the patches lie toward the root: pinion in and gear out.',
    moves: 'Pinion outward and gear inward together. The depth of the pinion says how far.',
  },
  '0,0': {
    kind: 'heel',
    means: 'The patches lie off the middle, by too little to say which part is out.',
    moves: 'Measure the depth of the pinion, and mark the pattern once more.',
  },
}

function together({ value, u }: { value: number; u: number }, height: 1 | -1 | 0): PatternMeaning {
  const apart = Math.abs(value) <= 2 * u ? 0 : value > 0 ? 1 : -1
  const found = TOGETHER[`${apart},${height}`]
  return { ...found, effect: WORDS[found.kind].effect }
}
