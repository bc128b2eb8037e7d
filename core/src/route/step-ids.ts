/** The steps that a route can have, by stage. A drive has those that it needs; lists of steps elsewhere name these and no others. */
const BY_STAGE = {
  receive: [
    'receive',
    'identify',
    'ratio',
    'tools',
    'find-place',
    'drain',
    'leak-found',
    'leak-found-joined',
    'as-found',
    'prop-off',
    'strike',
    'service',
  ],
  teardown: [
    'soak',
    'open-gear',
    'nut-found',
    'locks',
    'left-hand',
    'apart',
    'shims',
    'loose-metal',
    'waiting',
  ],
  inspect: ['clean', 'inspect'],
  parts: ['approve', 'parts-in'],
  press: ['press', 'cages', 'pre-lube'],
  set: ['trial-in', 'preload', 'set-gears', 'crush', 'pattern', 'accept', 'turn', 'trial-out'],
  seal: ['seals', 'o-rings', 'oil-again'],
  close: ['inside', 'close', 'pump', 'tighten', 'ring-stand', 'turn-closed', 'check-set'],
  tight: ['unit-look', 'unit-ratio', 'leak-case'],
  join: ['join-gear', 'splines', 'join', 'ring-mounted', 'shift-check', 'unit-overall', 'leak-joined'],
  finish: ['fill-stand', 'anode', 'fill-mounted', 'first-run', 'propeller', 'handover'],
} as const

/** A step of a drive's own route. */
export type DriveStepId = (typeof BY_STAGE)[keyof typeof BY_STAGE][number]
/** Steps that prove that something is tight. */
export const LEAK_TESTS = [
  'leak-found',
  'leak-found-joined',
  'leak-case',
  'leak-joined',
] as const satisfies DriveStepId[]
export type LeakTestId = (typeof LEAK_TESTS)[number]
/** A step of a repair that was opened after closing. */
export type LoopStepId = `loop-${number}-${'open' | 'renew' | 'close'}`

/** Any step of a route. Records keep ids as they stood: one of an older Moray is plain text. */
export type StepId = DriveStepId | LoopStepId
