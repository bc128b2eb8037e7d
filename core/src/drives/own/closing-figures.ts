import { bigRing, caseSpace, drainScrew, propellerGroup } from '../graph/unit-facts.ts'
import { WAYS } from '../graph/rows.ts'
import type { SheetBody } from './body.ts'
import type { FigureField, FigureGroup, FigureShape } from './figure-field.ts'
import { choice, count, pressure, torque, words } from './shapes.ts'

/** A field of one group of figures. */
const fieldIn =
  (group: FigureGroup) =>
  (path: string, label: string, shape: FigureShape, more: Partial<FigureField> = {}): FigureField => ({
    path,
    group,
    label,
    shape,
    usual: 'manual',
    ...more,
  })

const WAY_LABELS: Record<(typeof WAYS)[number], { label: string; most: number }> = {
  'race-letters': { label: 'Letters of the bearing races look', most: 60 },
  'oil-feed': { label: 'Oil hole that must line up with its passage', most: 120 },
  'water-tube': { label: 'How the water tube goes in', most: 120 },
  'shift-rod': { label: 'How the shift rod stands', most: 200 },
}

/** What opening and closing ask for: nuts and propellers that the drive has, and what has to lie right. */
export function closingFields(body: SheetBody): FigureField[] {
  const field = fieldIn('closing')
  const ring = bigRing(body)
  return [
    ...(body.unit?.shifts
      ? [
          field(
            'unit.openGear',
            'It is opened in',
            choice({ neutral: 'neutral', forward: 'forward', reverse: 'reverse' }),
          ),
        ]
      : []),
    field('unit.weightKg', 'Weight', { is: 'number', unit: 'kg', whole: false, min: 0.5, max: 2000 }),
    ...(ring
      ? [
          field(`groups.${ring.id}.torqueNm`, `${ring.name}: torque`, torque(2000), { for: 'torque' }),
          field(`groups.${ring.id}.tabs`, `${ring.name}: tabs that have to be bent`, count(0, 40)),
          field(
            `groups.${ring.id}.hand`,
            `${ring.name}: its thread is`,
            choice({ right: 'right-hand', left: 'left-hand: loosens clockwise' }),
            { usual: 'measured' },
          ),
        ]
      : []),
    ...propellerFields(body),
    field(
      'sealPairs.pair.springs',
      'Springs of a seal pair look',
      choice({
        'facing each other': 'at each other',
        'both outward': 'both outward',
        'both inward': 'both inward',
      }),
    ),
    ...WAYS.filter((way) => way !== 'shift-rod' || body.unit?.shifts).map((way) =>
      field(`ways.${way}.text`, WAY_LABELS[way].label, words(WAY_LABELS[way].most)),
    ),
  ]
}

function propellerFields(body: SheetBody): FigureField[] {
  const field = fieldIn('closing')
  const [first] = body.propellers ?? []
  if (!first) return []
  const nut = propellerGroup(body)
  const pinned = first.held === 'castle-pin' || first.held === 'shear-pin'
  return [
    field(
      `propellers.${first.id}.held`,
      'The propeller is held by',
      choice({
        'tab-washer': 'a nut with a tab washer',
        'castle-pin': 'a castle nut with a split pin',
        'spring-washer': 'a nut with a spring washer',
        'self-locking': 'a self-locking nut',
        'shear-pin': 'a shear pin',
      }),
      { for: 'torque', place: 'end:aft' },
    ),
    ...(nut && first.held && !pinned
      ? [
          field(`groups.${nut.id}.torqueNm`, `${nut.name}: torque`, torque(2000), {
            for: 'torque',
            place: 'end:aft',
          }),
        ]
      : []),
    field(`propellers.${first.id}.hub`, 'Thrust hub that belongs to the propeller', words()),
  ]
}

const minutes = (min: number, max: number) => ({
  is: 'number' as const,
  unit: 'min' as const,
  whole: false,
  min,
  max,
})

export function tightnessFields(body: SheetBody): FigureField[] {
  const field = fieldIn('tightness')
  const test = body.tests?.find((t) => t.id === 'case')
  const space = caseSpace(body)
  if (test?.noTest)
    return [field('tests.case.noTest', 'No pressure test, because', words(200)), ...joinedFields(body)]
  const needed = { for: 'tightness' } as const
  return [
    field('tests.case.workKpa', 'Test pressure', pressure(400), needed),
    field('tests.case.maxKpa', 'Never above', pressure(500), needed),
    field('tests.case.holdMin', 'Held for', minutes(0.5, 1440), needed),
    ...criterionFields('case', '', test?.allowedMlPerMin === undefined),
    field(
      'spaces.case.volumeMl',
      'Volume of the case',
      { is: 'number', unit: 'ml', whole: false, min: 1, max: 100_000 },
      // without the oil nobody knows it
      space?.fillMl === undefined
        ? { for: 'tightness', help: 'As much as its oil, a little more for the air.' }
        : { otherwise: 'as much as the oil' },
    ),
    field('tests.case.ports', 'Ports to be blocked, with commas between', {
      is: 'words',
      max: 400,
      list: true,
    }),
    ...(test ? [] : [field('tests.case.noTest', 'Or no pressure test, because', words(200))]),
    ...joinedFields(body),
  ]
}

/**
 * What a manual allows a test to lose, as it prints it.
 * @param needed whether the drop is what the sheet needs: one with a rate alone is judged by that
 */
function criterionFields(test: 'case' | 'joined', before: string, needed: boolean): FigureField[] {
  const field = fieldIn('tightness')
  const say = (label: string) =>
    before ? `${before}: ${label.charAt(0).toLowerCase()}${label.slice(1)}` : label
  return [
    field(`tests.${test}.allowedDrop.kpa`, say('May drop by'), pressure(100), {
      help: 'As the manual prints it: not more than so much during the hold. 0 where it says no drop.',
      assume: { value: 0, why: 'the manual says no drop' },
      ...(test === 'case' && needed ? { for: 'tightness' } : {}),
      ...(needed ? {} : { otherwise: 'judged by the leak rate alone' }),
    }),
    field(`tests.${test}.allowedDrop.minutes`, say('In so many minutes'), minutes(0.5, 1440), {
      otherwise: 'the whole hold',
    }),
    field(
      `tests.${test}.allowedMlPerMin`,
      say('Leak rate allowed'),
      { is: 'number', unit: 'ml/min', whole: false, min: 0.001, max: 100 },
      {
        otherwise: 'judged by the drop alone',
        help: 'Hardly any manual gives it; a stricter limit of the shop. It needs the temperature of the case.',
      },
    ),
  ]
}

/** The test of the unit once it is joined, also where the other half has no sheet: without figures its manual's word is asked for. */
function joinedFields(body: SheetBody): FigureField[] {
  const joins = body.interfaces?.some((i) => i.kind === 'case' && i.sharesOil !== false)
  if (!joins) return []
  const field = fieldIn('tightness')
  const test = body.tests?.find((t) => t.id === 'joined')
  const byWord = { otherwise: 'by the word of the manual' }
  return [
    field('tests.joined.workKpa', 'Joined unit: test pressure', pressure(400), byWord),
    field('tests.joined.maxKpa', 'Joined unit: never above', pressure(500), byWord),
    field('tests.joined.holdMin', 'Joined unit: held for', minutes(0.5, 1440), byWord),
    ...criterionFields('joined', 'Joined unit', test?.allowedMlPerMin === undefined),
    field(
      'tests.joined.volumeMl',
      'Joined unit: volume of both halves',
      { is: 'number', unit: 'ml', whole: false, min: 1, max: 100_000 },
      { ...byWord, help: 'As much as the oil of both, a little more for the air.' },
    ),
    field('tests.joined.ports', 'Joined unit: ports to be blocked, with commas between', {
      is: 'words',
      max: 400,
      list: true,
    }),
  ]
}

export function fillingFields(body: SheetBody): FigureField[] {
  const space = caseSpace(body)
  if (space?.holds === 'grease') return []
  const field = fieldIn('filling')
  const drain = drainScrew(body)
  return [
    field(
      'spaces.case.fillMl',
      'Oil',
      { is: 'number', unit: 'ml', whole: false, min: 1, max: 100_000 },
      { for: 'filling' },
    ),
    ...(drain
      ? [
          field(`groups.${drain.id}.plug`, 'Drain plug', choice({ magnetic: 'magnetic', plain: 'plain' }), {
            usual: 'measured',
          }),
        ]
      : []),
  ]
}
