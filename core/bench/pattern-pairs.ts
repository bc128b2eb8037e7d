import type { PatternReadInput } from '../src/contact/pattern-question.ts'
import { patternRead } from '../src/contact/pattern-read.ts'
import { toothContact } from '../src/contact/tooth-contact.ts'
import type { Mesh } from '../src/gears/mesh.ts'
import { random } from '../tests/refused.ts'

const CROWN = { crownLengthMm: 0.02, crownProfileMm: 0.015, centreLength: 0, centreProfile: 0, filmMm: 0.006 }
/** What a hand marks, in half flanks. */
const HAND_U = 0.05
/** Furthest that pinion and gear stand from right, mm. */
const MOVED_MM = 0.3

/** A pair as a small drive has it, of the given form. */
function somePair(r: () => number, straight: boolean): Mesh {
  const pinionTeeth = 12 + Math.floor(r() * 5)
  const gearTeeth = 22 + Math.floor(r() * 8)
  const moduleMm = 3.4 + r() * 1.2
  const cone = (moduleMm * Math.hypot(pinionTeeth, gearTeeth)) / 2
  const [above, below] = straight ? [1, 1] : [1.14, 0.56]
  return {
    pinionTeeth,
    gearTeeth,
    moduleMm,
    faceWidthMm: cone * 0.28,
    hand: r() < 0.5 ? 1 : -1,
    gearAddendumMm: below * moduleMm,
    pinionAddendumMm: above * moduleMm,
    ...(straight ? {} : { spiralAngleDeg: 35, cutterRadiusMm: 0.9 * cone * 0.86 }),
  }
}

export interface PairsTold {
  pairs: number
  /** Answers whose error lay within the stated U, and how many there were. */
  held: number
  answers: number
  medianUMm: number
  worstOffCalledCentred: number
  axes: number
  notSeparable: number
}

/**
 * Random pairs that stand up to 0.3 mm off, their patches marked as a hand marks them, read back: how often the stated U holds the truth, how
 * often a setting is called a fault of the axes, and what at most is called centred.
 */
export function pairsTold(pairs: number, straight: boolean, seed: number): PairsTold {
  const r = random(seed)
  const gauss = () => Math.sqrt(-2 * Math.log(1 - r())) * Math.cos(2 * Math.PI * r())
  const told: PairsTold = {
    pairs,
    held: 0,
    answers: 0,
    medianUMm: 0,
    worstOffCalledCentred: 0,
    axes: 0,
    notSeparable: 0,
  }
  const us: number[] = []
  for (let i = 0; i < pairs; i++) {
    const mesh = somePair(r, straight)
    const [pinionMm, gearMm] = [(r() * 2 - 1) * MOVED_MM, (r() * 2 - 1) * MOVED_MM]
    const driveSide = r() < 0.5 ? 1 : -1
    const marked = (side: 1 | -1) => {
      const at = toothContact({ mesh, side, pinionMm, gearMm, offsetMm: 0, shaftAngleErrorDeg: 0, ...CROWN })
      const drawn = (v: number) => Math.max(-1, Math.min(1, v + HAND_U * gauss()))
      return { length: drawn(at.centroidLength), profile: drawn(at.centroidProfile) }
    }
    const input: PatternReadInput = {
      mesh,
      ...CROWN,
      driveSide,
      drive: marked(driveSide),
      coast: marked(driveSide === 1 ? -1 : 1),
    }
    const read = patternRead(input)
    const off = Math.max(
      ...[input.drive, input.coast].flatMap((p) => [Math.abs(p.length), Math.abs(p.profile)]),
    )
    if (read.kind === 'centred') told.worstOffCalledCentred = Math.max(told.worstOffCalledCentred, off)
    if (read.kind === 'axes') told.axes++
    const answer = (error: number, U: number) => {
      told.answers++
      if (Math.abs(error) <= U) told.held++
      us.push(U)
    }
    if (read.knownMm) {
      told.notSeparable++
      const { pinion, gear, value, u } = read.knownMm
      answer(value - pinion * pinionMm - gear * gearMm, 2 * u)
    } else {
      answer(read.pinionMm! - pinionMm, read.pinionUMm!)
      answer(read.gearMm! - gearMm, read.gearUMm!)
    }
  }
  told.medianUMm = us.sort((a, b) => a - b)[us.length >> 1]!
  return told
}
