import { refuse } from '../checks/input-error.ts'
import type { PartKind } from '../drives/parts.ts'

export const GRADES = {
  keep: 'keep',
  'keep-same': 'keep, same way round',
  dress: 'dress and re-check',
  replace: 'replace',
  'replace-set': 'replace as a set',
  'send-out': 'send out',
} as const
export type Grade = keyof typeof GRADES

/** Worse grades win when several things are seen. */
const RANK: Grade[] = ['keep', 'keep-same', 'dress', 'send-out', 'replace', 'replace-set']

/** Something that may be seen or felt on a part, and what it leads to. */
export interface Criterion {
  id: string
  label: string
  grade: Grade
  /** The rule behind it, as the reason that is offered. */
  rule: string
  /** On the body of a drive: it is not rebuilt, whatever it would save. */
  endsRebuild?: boolean
}

const see = (id: string, label: string, grade: Grade, rule: string): Criterion => ({ id, label, grade, rule })

const ROLLING: Criterion[] = [
  see('smooth', 'smooth, polished band', 'keep-same', 'runs smoothly, polished band in its place'),
  see(
    'rough',
    'crunch, catch or roughness under light load',
    'replace',
    'rough when turned under light load',
  ),
  see('pits', 'pits, spalls or dents', 'replace', 'pits, spalls or dents in the track'),
  see('heat', 'blue from heat', 'replace', 'blue: the steel has lost its hardness'),
  see('rust', 'rust from standing water', 'replace', 'rust from standing water'),
  see('missing', 'needles or rollers missing', 'replace', 'rolling elements missing'),
  see('band-off', 'wear band off the middle', 'replace', 'wear band off the middle: it did not sit square'),
]

/** What to look and feel for, by kind of part. The defaults; a drive's own sheet stands above them. */
export const criteria: Record<PartKind, Criterion[]> = {
  bearing: ROLLING,
  needle: [
    see(
      'marked',
      'smooth, place and way round known by its ink',
      'keep-same',
      'smooth, place and way round known',
    ),
    see('unknown', 'place or way round not known', 'replace', 'place or way round not known'),
    ...ROLLING.filter((c) => c.id !== 'smooth'),
  ],
  cup: [
    see('clean', 'clean, tight in its bore', 'keep', 'clean and tight in its bore'),
    see('scored', 'scored, polishes out', 'dress', 'scored, the surface has to come clean'),
    see('gouged', 'gouged, does not polish out', 'replace', 'gouged deeper than polishing reaches'),
    see(
      'spun',
      'spins freely in its bore',
      'send-out',
      'spins in its bore: the housing has to be decided on',
    ),
  ],
  gear: [
    see('band', 'polished band in the middle', 'keep', 'polished band in the middle of the flank'),
    see(
      'chip',
      'chip on the working flank',
      'replace-set',
      'chip on the working flank: pinion and gear are a matched pair',
    ),
    see('step', 'step that can be felt', 'replace-set', 'a step that can be felt: the pair no longer rolls'),
    see('pitting', 'pitting or scuffing', 'replace-set', 'pitting or scuffing of the flank'),
    see('blue', 'blue from heat', 'replace-set', 'blue from heat'),
    see('off', 'band toward an end', 'keep', 'band toward an end: to be set, watch the pattern'),
    see(
      'hub-land',
      'groove in the land of its hub under a seal',
      'replace',
      'a groove under the seal on its hub: no lip seals on it',
    ),
    see(
      'windows',
      'clutch windows rounded',
      'replace-set',
      'windows rounded: it drops out of gear; dog and gear go together',
    ),
  ],
  clutch: [
    see('sharp', 'edges sharp, faces even', 'keep-same', 'edges sharp, faces even'),
    see('rounded', 'engaging edges rounded', 'replace-set', 'rounded: both mating parts are replaced'),
    see(
      'glazed',
      'glazed, shiny, burnt oil',
      'replace-set',
      'glazed: replaced with its springs, look at the cam ramp',
    ),
  ],
  shaft: [
    see('straight', 'straight, lands smooth', 'keep', 'straight, lands smooth'),
    see(
      'groove',
      'groove under the seal that can be felt',
      'replace',
      'a groove under the seal that can be felt',
    ),
    see(
      'polish',
      'groove below the depth of the sheet',
      'dress',
      'groove below the depth of the sheet: polished and measured again',
    ),
    see('bent', 'runout over its limit', 'replace', 'runout over its limit; straightening is not offered'),
    see('sheared', 'sheared or twisted off', 'replace', 'sheared: look at the mating gear and the coupling'),
    see('spline-rust', 'rust on the spline, cleans up', 'dress', 'rust on the spline, to be cleaned'),
    see(
      'spline-step',
      'stepped or twisted spline',
      'replace',
      'spline stepped: both halves of it are replaced',
    ),
  ],
  housing: [
    see('sound', 'sound, grooves and bores clean', 'keep', 'sound, grooves and bores clean'),
    see('corroded', 'slight corrosion, dresses', 'dress', 'slight corrosion: dressed and tested again'),
    see(
      'groove',
      'O-ring groove or seal bore cannot seal',
      'send-out',
      'groove or bore cannot seal: an insert, or another case',
    ),
    see('thread', 'stripped thread', 'send-out', 'stripped thread: an insert'),
    { ...see('crack', 'crack', 'replace', 'cracked: never rebuilt'), endsRebuild: true },
  ],
  shift: [
    see('sound', 'sharp ramps, rod straight', 'keep', 'sharp ramps, rod straight'),
    see('ramp', 'worn ramp', 'replace', 'worn ramp: it wears the next clutch'),
    see(
      'bent',
      'bent, rusted or hardened',
      'replace',
      'bent, rusted or hardened: a snapped shift part strands a boat',
    ),
  ],
  washer: [
    see('even', 'even, not worn', 'keep-same', 'even, not worn'),
    see('worn', 'worn on one side', 'replace', 'worn on one side'),
    see('turned', 'was in the wrong way round', 'replace', 'ran the wrong way round'),
  ],
  key: [
    see('sound', 'square and whole, counted', 'keep', 'square and whole'),
    see('popped', 'spring that has popped out or set', 'replace', 'spring popped out or set: it will again'),
    see('worn', 'rounded, cracked or missing', 'replace', 'rounded, cracked or missing'),
  ],
  clip: [
    see('sound', 'square, springy, tight in its groove', 'keep', 'square, springy, tight in its groove'),
    see('spread', 'spread, bent or loose in its groove', 'replace', 'spread or bent: it can jump out'),
    see('rusted', 'pitted or rusted thin', 'replace', 'pitted or rusted thin: it can break'),
  ],
  anode: [
    see('half', 'more than half left', 'keep', 'more than half left'),
    see('gone', 'more than half gone, or cracked', 'replace', 'more than half gone, or cracked'),
    see('painted', 'painted over', 'replace', 'painted: it protects nothing'),
  ],
  pump: [
    see('sound', 'vanes lively, plate smooth', 'keep', 'vanes lively, plate smooth'),
    see('set', 'vanes set, plate scored or cover melted', 'replace', 'worn: replaced as a kit'),
  ],
  seal: [see('always', 'it was opened', 'replace', 'new at every opening, however young')],
  ring: [see('always', 'it was opened', 'replace', 'new at every opening, however young')],
  shim: [
    see('flat', 'flat, clean, measured', 'keep', 'flat, clean, measured'),
    see('torn', 'torn, dented or soiled', 'replace', 'torn or dented: it does not lie flat'),
  ],
  nut: [
    see('sound', 'threads clean, flats square', 'keep', 'threads clean'),
    see('bent-tab', 'its lock was bent', 'replace', 'metal that was bent is new'),
    see('thread', 'thread pulled or corroded', 'replace', 'thread pulled or corroded'),
  ],
  hub: [
    see('sound', 'whole, taper clean', 'keep-same', 'whole, taper clean'),
    see(
      'worn',
      'worn, cracked or the wrong one',
      'replace',
      'worn, cracked or not the one for this propeller',
    ),
  ],
  belt: [
    see('sound', 'teeth whole, no cracks', 'keep-same', 'teeth whole, no cracks; keep its running direction'),
    see('cracked', 'cracked, shiny or stretched', 'replace', 'cracked, shiny or stretched'),
  ],
}

export interface Proposal {
  grade: Grade
  reason: string
}

/**
 * What the criteria propose for a part, from what was seen; the worst of it decides. The technician always decides
 * himself; a departure is recorded with its reason.
 * @param seen ids of criteria of this kind
 * @returns undefined while nothing was seen
 * @throws InputError naming what is no criterion of this kind
 */
export function propose(
  kind: PartKind,
  seen: readonly string[],
  options: { inSet?: boolean; runoutMm?: number; runoutLimitMm?: number } = {},
): Proposal | undefined {
  const found = seen.map(
    (id, i) =>
      criteria[kind].find((c) => c.id === id) ??
      refuse(
        `seen[${i}]`,
        `"${id}" is not looked for here; there are ${criteria[kind].map((c) => c.id).join(', ')}`,
      ),
  )
  if (
    options.runoutMm !== undefined &&
    options.runoutLimitMm !== undefined &&
    options.runoutMm > options.runoutLimitMm
  )
    found.push({
      id: 'measured',
      label: 'runout',
      grade: 'replace',
      rule: `runout ${options.runoutMm.toFixed(3)} mm, limit ${options.runoutLimitMm.toFixed(3)} mm`,
    })
  if (!found.length) return undefined
  const worst = found.reduce((a, b) => (RANK.indexOf(b.grade) > RANK.indexOf(a.grade) ? b : a))
  const grade = worst.grade === 'replace' && options.inSet ? 'replace-set' : worst.grade
  const reason = found
    .filter((c) => RANK.indexOf(c.grade) >= RANK.indexOf('dress') || c === worst)
    .map((c) => c.rule)
    .join('; ')
  return { grade, reason }
}

export const condemned = (grade: Grade) => grade === 'replace' || grade === 'replace-set'
