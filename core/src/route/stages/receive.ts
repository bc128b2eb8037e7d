import type { Axis, DriveSheet } from '../../drives/sheet.ts'
import { inWords } from '../../units/format.ts'
import { inOrder, number, pick, rightOf, text, tick } from '../make.ts'
import type { Step } from '../route.ts'
import { leakStep } from './leak-steps.ts'
import { alsoAsks, lackingUnder, wantingStep } from './wanted.ts'

/** Shafts whose runout can be read while it is together: those that lie and come out of the case. */
export const shaftsAtStrike = (sheet: DriveSheet): Axis[] => sheet.axes.filter((a) => a.line === 'horizontal')

/** Receive and identify: what it is, what it complains of, and what it tells while it is still together. */
export function receiveSteps(sheet: DriveSheet): Step[] {
  const { bench } = sheet
  const stamps = sheet.ratio?.stamps ?? []
  const geared = sheet.meshes.length > 0
  const asFound = sheet.measures.filter((m) => m.kind !== 'depth')
  // what nobody has counted yet agrees with nothing
  const counted = lackingUnder(sheet, 'gears').length === 0
  const tests = lackingUnder(sheet, 'bench.leak')
  const zones = Object.fromEntries(
    sheet.runoutLimits.map((l, i) => [`z${i}`, `${l.zone.toLowerCase()}, limit ${inWords(l.tirMm, 'mm')}`]),
  )
  return inOrder('receive', undefined, [
    {
      id: 'receive',
      what: 'Receive it and hear the complaint',
      why: 'A recent opening, a strike or a season of salt changes where to look.',
      page: 'faults',
      caution: `About ${bench.weightKg} kg: rated stand, ${bench.weightKg > 20 ? 'two people or a hoist' : 'both hands'}. An inverted motor: fuel, oil and battery off first.`,
      asks: [
        pick('in.opened', 'Opened before', {
          no: 'never',
          long: 'long ago',
          recent: 'within the year',
          unknown: 'nobody knows',
        }),
        pick('in.struck', 'Struck or grounded', { no: 'no', yes: 'yes', unknown: 'nobody knows' }),
        number('in.open-items', 'Things that are wrong already (plug, lock or gasket of another unit)', '', {
          whole: true,
          max: 200,
        }),
        text('in.open-list', 'Which', { optional: true }),
      ],
    },
    stamps.length > 0 && {
      id: 'identify',
      what: 'Identify drive and variant by its stamps',
      why: 'A look-alike bolts on, and takes other numbers.',
      tools: ['Wire brush', 'Lamp'],
      asks: [
        rightOf(
          'id.stamp',
          'Code stamped on the case',
          Object.fromEntries([
            ...stamps.map((s) => [s.code, `${s.code} (${s.teeth})`]),
            ['other', 'another, or none to be read'],
          ]),
          stamps.filter((s) => s.own).map((s) => s.code),
          `That is not the drive of this sheet (${stamps.find((s) => s.own)?.code}). Open the job with the sheet of that variant: its windows are others.`,
          'variant',
        ),
      ],
    },
    geared && {
      id: 'ratio',
      wants: alsoAsks(sheet, 'gears'),
      what: 'Count the ratio by turns, then by teeth',
      why: 'Stamps get swapped with covers; turns and teeth do not.',
      place: `gear:${sheet.meshes[0]!.pinion}`,
      asks: [
        number('ratio.input-turns', 'Turns at the input', 'turns', { min: 0.5, max: 200 }),
        !counted
          ? number('ratio.output-turns', 'Turns at the output meanwhile', 'turns', { min: 0.5, max: 200 })
          : {
              ...number('ratio.output-turns', 'Turns at the output meanwhile', 'turns', {
                min: 0.5,
                max: 200,
              }),
              must: { fact: 'ratio.agrees', is: true },
              wrong: `Turns or teeth do not make the ${sheet.ratio?.overall ?? ''} of this sheet. A lower or upper of another ratio is on it: find out before anything is bought.`,
              slip: 'lower-ratio',
            },
        number('ratio.driver', 'Teeth of the driver, where they can be seen', '', {
          optional: true,
          whole: true,
          max: 300,
        }),
        number('ratio.driven', 'Teeth of the driven gear', '', { optional: true, whole: true, max: 300 }),
      ],
    },
    {
      id: 'tools',
      what: 'Name tools, fixtures and stand',
      why: 'Which variant of a tool fits goes by the serial number; a substitute is decided now, not with the case half open.',
      school: 'fixtures',
      asks: [
        tick('tools.ready', 'Tools named, and they fit this serial number'),
        text('tools.substitutes', 'Substitutes, and what they hold where', { optional: true }),
      ],
    },
    {
      id: 'drain',
      wants: alsoAsks(sheet, 'oilCapacityMl'),
      what: bench.lubricant === 'oil' ? 'Drain the oil and read it' : 'Look at the old grease',
      why: 'Milky is water, black is heat, and the magnet tells what is wearing.',
      consumables: ['Tray', 'Rag', 'Bottle for a sample'],
      caution: 'Used oil harms skin and water: gloves, and into the can for the collection point.',
      asks: [
        ...(bench.lubricant === 'oil'
          ? [number('drain.ml', `Drained, of ${sheet.oilCapacityMl ?? '?'} ml`, 'ml', { max: 20_000 })]
          : []),
        pick(
          'drain.colour',
          'Colour',
          {
            clean: 'clean',
            milky: 'milky',
            black: 'black',
            burnt: 'burnt smell',
          },
          { finds: { milky: 'milky-oil', black: 'black-oil', burnt: 'black-oil' } },
        ),
        pick(
          'drain.metal',
          'On the magnet or in the tray',
          {
            none: 'nothing',
            fuzz: 'fuzz',
            flakes: 'flakes',
            chunk: 'a chunk',
          },
          { finds: { flakes: 'metal', chunk: 'metal' } },
        ),
        rightOf(
          'drain.waste',
          'The old oil went',
          { can: 'into the marked can', elsewhere: 'somewhere else' },
          'can',
          'Into the can for the collection point: the law says so, and the fjord too.',
          'waste-oil',
        ),
      ],
    },
    bench.leak &&
      leakStep(bench.leak, 'leak-found', {
        what: 'Leak test as found, before opening',
        why: 'It shows where to look, and is the before to the after.',
      }),
    !bench.leak &&
      tests.length > 0 &&
      wantingStep(tests, {
        id: 'leak-found',
        what: 'Leak test as found, before opening',
        why: 'It shows where to look, and is the before to the after.',
      }),
    {
      id: 'as-found',
      what: 'Measure it while it is still together',
      why: 'Found readings say what wore, and whether the old stacks are a good guess.',
      page: 'setting',
      tools: ['Indicator on a firm stand', 'Backlash arm'],
      // taken in Setting, with a gauge: they are the first readings of the case as found
      figures: asFound.map((m) => ({
        label: `${m.label} as found`,
        fact: `setting.found.${m.id}`,
        unit: 'mm',
      })),
      asks: [
        rightOf(
          'found.indicator',
          'The indicator',
          {
            right: 'in line with the motion, preloaded, stand firm',
            doubtful: 'not sure of one of these',
            none: 'nothing measured here',
          },
          ['right', 'none'],
          'Off its line it reads long, without preload it loses the end, on a loose stand it reads the stand. Set it up again.',
          'indicator',
        ),
        ...(bench.shifts
          ? [
              pick('found.shift', 'Shift feel', {
                good: 'clean in all three',
                stiff: 'stiff',
                jumps: 'jumps out',
                none: 'does not shift',
              }),
            ]
          : []),
      ],
    },
    {
      id: 'strike',
      wants: alsoAsks(sheet, 'runoutLimits'),
      what: 'After the strike: look at everything that took it',
      why: 'A bent shaft eats the new seal, a cracked case is never rebuilt.',
      appliesWhen: { fact: 'in.struck', oneOf: ['yes', 'unknown'] },
      place: 'end:aft',
      tools: ['Indicator'],
      figures: shaftsAtStrike(sheet).map((a) => ({
        label: a.label,
        fact: `strike.${a.id}.verdict`,
        words: { straight: 'straight, within its limit', bent: 'bent: replaced, not straightened' },
      })),
      asks: [
        ...shaftsAtStrike(sheet).flatMap((a) => [
          ...(sheet.runoutLimits.length
            ? [pick(`strike.${a.id}.zone`, `${a.label}: read at the`, zones)]
            : []),
          number(`strike.${a.id}.runout`, `${a.label}: total runout there`, 'mm', {
            quantity: 'length',
            max: 20,
          }),
        ]),
        pick('strike.case', bench.propeller ? 'Skeg, carrier and case' : 'Carrier and case', {
          whole: 'whole',
          dented: 'dented',
          cracked: 'cracked',
        }),
      ],
    },
  ])
}
