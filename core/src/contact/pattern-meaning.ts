/** Where the patches lie, in the trade's words. */
export type PatternKind = 'centred' | 'toe' | 'heel' | 'top' | 'root' | 'crossed' | 'edge'

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
    means: 'Both patches lie toward the top of the gear tooth.',
    moves: 'Pinion inward: deeper into the mesh.',
    effect: 'Noisy under load; tips scuff.',
  },
  root: {
    means: 'Both patches lie toward the root of the gear tooth.',
    moves: 'Pinion outward: out of the mesh.',
    effect: 'Noisy on the overrun; the pinion tip digs in.',
  },
  crossed: {
    means: 'Toe on one flank, heel on the other.',
    moves: '',
    effect: 'The axes do not meet: case, bearing seat or pairing is wrong. No shim mends that.',
  },
  edge: {
    means: 'A patch lies on the very edge of the flank.',
    moves: 'Do not run it. Find the reason first, then set it again.',
    effect: 'Load on an edge breaks teeth.',
  },
}

/**
 * What the two patches mean. An edge comes before everything else, then a crossed pattern; else the larger of the common
 * lengthwise and profile displacement decides. Thresholds are our own: a quarter of half the flank is what an eye can tell.
 */
export function patternMeaning(pair: {
  drive: { length: number; profile: number }
  coast: { length: number; profile: number }
}): PatternMeaning {
  const { drive, coast } = pair
  const say = (kind: PatternKind): PatternMeaning => ({ kind, ...WORDS[kind] })
  const all = [drive.length, drive.profile, coast.length, coast.profile]
  if (all.some((v) => Math.abs(v) > EDGE)) return say('edge')
  if (drive.length * coast.length < 0 && Math.min(Math.abs(drive.length), Math.abs(coast.length)) > CENTRED)
    return say('crossed')
  const along = (drive.length + coast.length) / 2
  const up = (drive.profile + coast.profile) / 2
  if (Math.max(Math.abs(along), Math.abs(up)) <= CENTRED) return say('centred')
  if (Math.abs(along) >= Math.abs(up)) return say(along < 0 ? 'toe' : 'heel')
  return say(up > 0 ? 'top' : 'root')
}
