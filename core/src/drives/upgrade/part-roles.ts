import type { Part } from '../parts.ts'

/**
 * What the parts of the demo's sheets are beside their kind, by id: the causes of the fault table that point at them, and the few that the order
 * of work must know. A sheet carries it with its parts; nothing is read out of a part's name.
 */
const POINTED_AT_BY: Record<string, string[]> = {
  'prop-seals': ['propshaft-seal'],
  'prop-shaft': ['propshaft-seal', 'shaft-bent', 'shaft-sheared', 'dry-splines'],
  'shift-rod': ['shift-seal', 'shift-adjustment'],
  'shift-seal': ['shift-seal'],
  'shift-cam': ['shift-seal', 'shift-adjustment', 'shift-cam'],
  'pump-cover': ['driveshaft-seal', 'water-tube'],
  'pump-seals': ['driveshaft-seal'],
  carrier: ['carrier-o-ring'],
  'carrier-ring': ['carrier-o-ring'],
  'plug-gaskets': ['screw-gasket'],
  housing: ['housing-crack'],
  'reverse-gear': ['dog-rounded', 'contact-off', 'shaft-sheared'],
  'clutch-dog': ['dog-rounded'],
  'forward-gear': ['dog-rounded', 'contact-off', 'shaft-sheared'],
  driveshaft: ['shaft-bent', 'shaft-sheared', 'dry-splines'],
  'carrier-needle': ['carrier-bearing'],
  'reverse-shims': ['contact-off'],
  pinion: ['contact-off', 'shaft-sheared'],
  'pinion-shims': ['contact-off'],
  'forward-shims': ['contact-off'],
  'prop-lock': ['preload-lost'],
  'ring-nut': ['preload-lost'],
  'reverse-ball': ['preload-lost'],
  'pinion-nut': ['preload-lost'],
  'driveshaft-tapers': ['preload-lost'],
  'forward-taper': ['preload-lost'],
  'pump-key': ['pump-key'],
  propeller: ['dry-splines'],
  'thrust-hub': ['dry-splines'],
  'input-seal': ['driveshaft-seal'],
  'vertical-seal': ['driveshaft-seal'],
  'cover-ring': ['carrier-o-ring'],
  yoke: ['universal-joint', 'shaft-bent', 'shaft-sheared', 'dry-splines'],
  'vertical-shaft': ['shaft-bent', 'shaft-sheared', 'dry-splines'],
  'cover-shims': ['contact-off'],
  'input-gear': ['contact-off', 'shaft-sheared'],
  'input-shims': ['contact-off'],
  'vertical-gear': ['contact-off', 'shaft-sheared'],
  'yoke-nut': ['preload-lost'],
  retainer: ['preload-lost'],
  'top-taper': ['preload-lost'],
  'input-tapers': ['preload-lost'],
  'lower-taper': ['preload-lost'],
  'top-seal': ['driveshaft-seal'],
  'shift-fork': ['shift-seal', 'shift-adjustment', 'shift-cam'],
  'input-carrier': ['carrier-o-ring'],
  'input-ring': ['carrier-o-ring'],
  cone: ['clutch-slip'],
  'cone-springs': ['clutch-slip'],
  coupling: ['universal-joint', 'shaft-bent', 'shaft-sheared', 'dry-splines', 'propshaft-seal'],
  'upper-needle': ['carrier-bearing'],
  'lower-needle': ['carrier-bearing'],
  'upper-shims': ['contact-off'],
  'upper-gear': ['contact-off', 'shaft-sheared'],
  'lower-gear': ['contact-off', 'shaft-sheared'],
  'lower-shims': ['contact-off'],
  'input-nut': ['preload-lost'],
  'upper-ball': ['preload-lost'],
  'inner-seal': ['propshaft-seal'],
  'outer-seals': ['propshaft-seal'],
  'tube-shaft': ['propshaft-seal', 'shaft-bent', 'shaft-sheared', 'dry-splines'],
  'inner-shaft': ['propshaft-seal', 'shaft-bent', 'shaft-sheared', 'dry-splines'],
  'top-cap': ['carrier-o-ring'],
  'tube-needle': ['carrier-bearing'],
  'rear-taper': ['carrier-bearing', 'preload-lost'],
  'rear-shims': ['contact-off'],
  'front-gear': ['contact-off', 'shaft-sheared'],
  'front-shims': ['contact-off'],
  'rear-lock': ['preload-lost'],
  'front-taper': ['preload-lost'],
  'vertical-tapers': ['preload-lost'],
  'rear-propeller': ['dry-splines'],
  'front-propeller': ['dry-splines'],
  'output-seal': ['propshaft-seal'],
  'output-shaft': ['propshaft-seal', 'shaft-bent', 'shaft-sheared', 'dry-splines'],
  'output-carrier': ['carrier-o-ring'],
  'output-ring': ['carrier-o-ring'],
  'output-gear': ['contact-off', 'shaft-sheared'],
  'output-locks': ['preload-lost'],
  'output-tapers': ['preload-lost'],
  'input-locks': ['preload-lost'],
  'prop-seal': ['propshaft-seal'],
  pump: ['driveshaft-seal', 'water-tube', 'pump-key'],
  'driveshaft-seal': ['driveshaft-seal'],
  cover: ['carrier-o-ring'],
  cap: ['preload-lost'],
  'front-ball': ['preload-lost'],
  'rear-seals': ['propshaft-seal'],
  'rear-cap': ['carrier-o-ring'],
  'rear-ring': ['carrier-o-ring'],
  'rear-ball': ['carrier-bearing', 'preload-lost'],
}

const ROLES: Record<string, NonNullable<Part['role']>> = {
  housing: 'body',
  carrier: 'carrier',
  'input-carrier': 'carrier',
  'output-carrier': 'carrier',
  'rear-cap': 'carrier',
  'carrier-key': 'carrier-key',
}

/** Nuts and rings of the demo's drives with a left-hand thread: those that their bench facts name. */
const LEFT_HAND = ['ring-nut', 'retainer', 'input-nut']

/** Seals that hold water out of the pump, not oil in the case. */
const KEEPS_WATER = ['pump-gasket']

/** What sits between the halves: nobody gets at it while the drive hangs on the boat. */
const APART = [
  'pump-cover',
  'pump',
  'shift-rod',
  'shift-clamp',
  'shift-fork',
  'top-seal',
  'top-ring',
  'top-cap',
  'passage-ring',
  'water-passage',
  'vertical-shaft',
  'driveshaft',
  'belt-cover',
]

/** A part with its roles; what it says itself stays. */
export function withRoles(part: Part): Part {
  const role = part.role ?? ROLES[part.id]
  const pointedAtBy = part.pointedAtBy ?? POINTED_AT_BY[part.id]
  const thread = part.thread ?? (LEFT_HAND.includes(part.id) ? ('left' as const) : undefined)
  return {
    ...part,
    ...(role ? { role } : {}),
    ...(thread ? { thread } : {}),
    ...(pointedAtBy ? { pointedAtBy } : {}),
    ...(KEEPS_WATER.includes(part.id) ? { keeps: 'water' as const } : {}),
    ...(APART.includes(part.id) ? { apart: true as const } : {}),
  }
}
