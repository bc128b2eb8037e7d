import { caseTest, drainScrew, joinedTest, lubricantOf, propellerHeld } from '../drives/graph/unit-facts.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { inWords } from '../units/format.ts'
import { say } from './make.ts'
import type { Condition } from './facts.ts'
import type { Instruct } from './route.ts'
import { does } from './stages/rebuild.ts'
import type { DriveStepId } from './step-ids.ts'

/** One caution: a short line with its reason, and the acts that it goes with. */
interface Caution {
  /** Steps whose act it belongs to. */
  at: readonly DriveStepId[]
  says: string | ((sheet: DriveSheet, step: string) => string)
  /** Drives, and steps of theirs, that it is true for; all of them where left out. */
  of?: (sheet: DriveSheet, step: string) => boolean
  /** Jobs that it is true for. */
  when?: Condition
}

const isOutboard = ({ family }: DriveSheet) => family.startsWith('outboard')
const hasPropeller = ({ graph }: DriveSheet) => !!propellerHeld(graph)
const hasKind =
  (...kinds: string[]) =>
  (sheet: DriveSheet) =>
    sheet.parts.some((p) => kinds.includes(p.kind))
const oil = ({ graph }: DriveSheet) => lubricantOf(graph) === 'oil'
const LEAKS = ['leak-found', 'leak-found-joined', 'leak-case', 'leak-joined'] as const
/** What the sheet says of a test, of this case or of both. */
const testOf = ({ graph }: DriveSheet, step: string) =>
  step.endsWith('joined') ? joinedTest(graph) : caseTest(graph)

/** How heavy it is, and what that asks for; where nobody has weighed it, the careful way. */
function heavy({ graph }: DriveSheet): string {
  const kg = graph.unit?.weightKg
  if (kg === undefined) return 'Its weight is not known: use a rated stand, and two people or a hoist.'
  return `About ${kg} kg: use a rated stand, and ${kg > 20 ? 'two people or a hoist' : 'both hands'}.`
}

/**
 * Every caution of a drive's route, in the order in which they are said. No act is without its own, and none is said at an act that it has nothing to do
 * with; a table in the tests holds both.
 */
export const CAUTIONS = {
  lifting: { at: ['receive', 'join'], says: heavy },
  inverted: {
    at: ['receive'],
    says: 'Before an outboard is laid down or turned over, take fuel, oil and battery off: they run out and burn.',
    of: isOutboard,
  },
  'engine-off': {
    at: [
      'prop-off',
      'strike',
      'ratio',
      'leak-found',
      'leak-found-joined',
      'as-found',
      'service',
      'open-gear',
      'unit-ratio',
      'unit-overall',
      'leak-joined',
      'propeller',
    ],
    says: 'Make sure the engine cannot start: key and lanyard out, battery off, fuel stop on a diesel. A shaft that starts to turn takes the hand along.',
  },
  cord: {
    at: ['ratio', 'as-found', 'join', 'unit-overall'],
    says: 'Take the plug leads off before you turn the engine by its cord or flywheel: it can fire.',
    of: isOutboard,
  },
  'drain-slowly': {
    at: ['drain'],
    says: 'Open the vent slowly: oil from a hot unit burns, and a tight one can be under pressure.',
    of: (sheet) => oil(sheet) && drainScrew(sheet.graph) !== undefined,
  },
  waste: {
    at: ['drain'],
    says: 'Wear gloves, and put used oil into the marked can: it harms skin and water.',
  },
  frost: { at: ['drain', 'waiting'], says: 'Drain a wet case before frost: ice splits it.' },
  'test-pressure': {
    at: LEAKS,
    says: (sheet, step) =>
      `Never go above ${inWords(testOf(sheet, step)!.maxKpa, 'kPa')}, and stand aside with glasses on: a seal or plug can fly out.`,
    of: (sheet, step) => testOf(sheet, step) !== null,
  },
  'test-pressure-unknown': {
    at: LEAKS,
    says: 'Never go above the pressure that the manual allows, and stand aside with glasses on: a seal or plug can fly out.',
    of: (sheet, step) => testOf(sheet, step) === null,
  },
  'shop-air': {
    at: LEAKS,
    says: 'Use shop air only through a regulator that is set first: the full line bursts a case.',
  },
  vacuum: {
    at: LEAKS,
    says: 'Draw no more vacuum than the manual says: a lip folds inwards and leaks from then on.',
    of: (sheet, step) => (testOf(sheet, step)?.workKpa ?? 0) < 0,
  },
  'let-out': {
    at: [...LEAKS, 'find-place'],
    says: 'Let the pressure out before you loosen an adapter or a screw: it comes out with it.',
  },
  springs: {
    at: ['locks', 'apart'],
    says: 'Put eye protection on, and a rag over snap rings and springs: they fly.',
    of: hasKind('key', 'clip', 'clutch', 'shift', 'nut'),
  },
  'sudden-release': {
    at: ['nut-found', 'left-hand', 'ring-stand', 'ring-mounted'],
    says: 'Brace yourself, and have someone hold the stand: a tight nut lets go all at once.',
  },
  'hold-the-case': {
    at: ['ring-stand', 'ring-mounted'],
    says: 'Hold the case at its flange or bolted to the stand, never by the skeg: the skeg breaks.',
  },
  'leg-locked': {
    at: ['ring-mounted', 'join'],
    says: 'Let the trim pressure down and put the mechanical lock in: hydraulics alone let the drive drop.',
  },
  puller: {
    at: ['apart'],
    says: 'Stand out of line of puller bolts: a stuck carrier lets go suddenly.',
    when: does('remove.carrier', 'remove.cup', 'remove.housing'),
  },
  heat: {
    at: ['apart', 'press'],
    says: 'Heat to 120 °C at most and without a flame: oil, rubber and paint burn, and hot parts look like cold ones.',
    when: does('remove.carrier', 'remove.cup', 'remove.housing', 'fit.pressed'),
  },
  cold: {
    at: ['press'],
    says: 'Use cold spray and dry ice only with gloves and fresh air. Dry the cold part at once, or it rusts.',
  },
  press: {
    at: ['press'],
    says: 'Put the shield in front of the press, and never strike hard steel with hard steel: it splinters.',
  },
  solvent: {
    at: ['clean'],
    says: 'Solvent needs fresh air, gloves and no flame. Heated chlorinated cleaner gives off poison gas.',
  },
  dust: { at: ['clean'], says: 'Wear a respirator where old coatings are sanded: their dust is poisonous.' },
  'grease-gun': {
    at: ['fill-stand', 'fill-mounted'],
    says: 'Pump slowly with the exit open: a grease gun injects through skin and blows seals out.',
    of: (sheet) => !oil(sheet),
  },
  fingers: { at: ['join'], says: 'Keep fingers out of the gap: the case drops when the splines align.' },
  exhaust: { at: ['first-run'], says: 'Run it outdoors: exhaust kills.' },
  'water-first': {
    at: ['first-run'],
    says: 'Turn the water on before the start, and stay at idle: a dry pump is ruined in seconds.',
    of: (sheet) => sheet.graph.unit?.telltale === true || hasKind('pump')(sheet),
  },
  'bare-shaft': {
    at: ['first-run'],
    says: 'On a hose the propeller, its hub and washers stay off. Keep gloves and sleeves away from the bare shaft.',
    of: ({ graph }) => propellerHeld(graph)?.afterRun === true,
  },
  'behind-propeller': {
    at: ['first-run'],
    says: 'Run it in a tank or afloat with the propeller on, and let nobody stand behind it.',
    of: ({ graph }) => propellerHeld(graph)?.afterRun === false,
  },
  'shift-at-idle': {
    at: ['first-run'],
    says: 'Shift only at idle: at speed it shears the dogs or a shaft.',
    of: ({ graph }) => graph.unit?.shifts === true,
  },
  'blade-blocked': {
    at: ['prop-off', 'propeller'],
    says: 'Block a blade on wood, and wear gloves: the blades cut.',
    of: hasPropeller,
  },
} as const satisfies Record<string, Caution>
export type CautionId = keyof typeof CAUTIONS

/** The cautions of one step on one drive; what they hang on is looked at on the job. */
export const cautionsOf = (sheet: DriveSheet, step: string): Instruct[] =>
  Object.values(CAUTIONS as Record<CautionId, Caution>)
    .filter((c) => c.at.some((s) => s === step) && (c.of?.(sheet, step) ?? true))
    .map((c) => say(typeof c.says === 'string' ? c.says : c.says(sheet, step), undefined, c.when))
