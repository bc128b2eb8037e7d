import type { DriveSheet } from '../../drives/sheet.ts'
import { gate, inOrder, mustHold, number, pick, rightOf, text, tick, type StepDraft } from '../make.ts'
import type { Condition } from '../facts.ts'
import type { Ask, Step } from '../route.ts'
import { FITTED } from './rebuild.ts'
import { alsoAsks, lackingUnder, wantingStep } from './wanted.ts'
import { torqueAsks, wrenchFigures } from './close.ts'

/** Propeller, anode, filling, first run, handover. */
export function finishSteps(sheet: DriveSheet, after: string): Step[] {
  const { bench } = sheet
  const oil = bench.lubricant === 'oil'
  const joined = bench.joins?.oilJoint != null
  const fillNeeds = joined
    ? [
        gate(
          { fact: 'leak-joined.verdict', is: 'tight' },
          'The joined drive is not proved tight: no filling before the second test says so.',
          'test-skipped',
        ),
      ]
    : bench.leak
      ? [
          gate(
            { fact: 'leak-case.verdict', is: 'tight' },
            'The case is not proved tight: no filling before the test says so.',
            'test-skipped',
          ),
        ]
      : []
  const fillAsks = (): Ask[] => [
    number('fill.ml', oil ? `Filled, of ${sheet.oilCapacityMl ?? '?'} ml` : 'Filled, about', 'ml', {
      max: 20_000,
      optional: !oil,
    }),
    text('fill.what', oil ? 'Oil, by grade and can' : 'Grease, by name', { optional: true }),
    ...fillTicks(),
  ]
  const fillTicks = (): Ask[] =>
    oil
      ? [
          tick(
            'fill.from-below',
            'Filled from below until it came out of the vent, new gaskets under both screws',
          ),
          ...(bench.drainPlug === 'magnetic'
            ? [
                rightOf(
                  'fill.plug',
                  'Drain plug',
                  { magnetic: 'the magnetic one', plain: 'a plain one' },
                  'magnetic',
                  'The magnetic plug belongs here: it is what tells you next year what wears.',
                  'wrong-plug',
                ),
              ]
            : []),
          rightOf(
            'fill.settled',
            'After it had settled',
            { topped: 'looked again and topped up', not: 'not looked again' },
            'topped',
            'Air comes out of the bearings for a while, and the level falls. Look again and top it up.',
            'not-topped',
          ),
        ]
      : [
          tick('fill.exit-first', 'Exit plug out first, pumped until clean grease came, turning the shaft'),
          rightOf(
            'fill.settled',
            'After a few turns',
            { topped: 'pumped again, exit plug in', not: 'not looked again' },
            'topped',
            'The first grease finds its way between the balls. Turn it, pump again, then close the exit.',
            'not-topped',
          ),
        ]
  const fillStep = (id: string, when: Condition, how: string): StepDraft => ({
    id,
    needsToo: id !== 'fill-stand' && joined ? ['leak-joined'] : [],
    what: oil ? `Fill with oil, ${how}` : `Fill with grease, ${how}`,
    why: 'From below, so that no air stays above the gears.',
    appliesWhen: { all: [FITTED, when] },
    school: 'filling',
    wants: oil ? alsoAsks(sheet, 'oilCapacityMl') : undefined,
    gates: fillNeeds,
    consumables: [oil ? `${sheet.oilCapacityMl ?? ''} ml gear oil` : 'Grease', 'New gaskets'],
    ...(oil ? {} : { caution: 'A grease gun injects through skin and blows seals: slowly, exit open.' }),
    asks: fillAsks(),
  })
  const propeller: StepDraft | null = bench.propeller && {
    id: 'propeller',
    what: 'Fit the propeller',
    why: 'Through the teeth a nut torque breaks what you have just set.',
    appliesWhen: FITTED,
    place: 'end:aft',
    school: 'prop-nut',
    caution: 'Battery off and key out. Blade blocked on wood.',
    ...(bench.propeller.kind === 'tabs' ? { figures: wrenchFigures('prop') } : {}),
    asks: [
      ...(bench.shifts
        ? [
            rightOf(
              'prop.gear',
              'While the nut was tightened it stood in',
              { neutral: 'neutral, a blade blocked on wood', gear: 'gear' },
              'neutral',
              'In gear the torque goes through the teeth. Neutral, and block a blade on wood.',
              'prop-in-gear',
            ),
          ]
        : []),
      tick('prop.splines', 'Splines greased thinly, washers and hub in order, taper the right way'),
      ...(bench.propeller.kind === 'tabs'
        ? [
            ...torqueAsks('prop', 'Propeller nut', bench.propeller.torqueNm),
            {
              ...number('prop.tabs', `Tabs in their slots (this drive: ${bench.propeller.tabs})`, '', {
                whole: true,
              }),
              must: { fact: 'prop.tabs', atLeast: bench.propeller.tabs } as const,
              wrong: `The sheet asks for ${bench.propeller.tabs} tabs. Advance the nut to where they meet, never back.`,
              slip: 'few-tabs' as const,
            },
            number('prop.threads', `Threads showing (at least ${bench.propeller.threads})`, '', {
              min: bench.propeller.threads,
              whole: true,
            }),
          ]
        : [tick('prop.pin', 'Shear pin in, cap clocked to the hole, split pin flared both ways')]),
    ],
  }
  const nut = lackingUnder(sheet, 'bench.propeller')
  const propellerLater =
    nut.length > 0 &&
    wantingStep(nut, {
      id: 'propeller',
      what: 'Fit the propeller',
      why: 'Through the teeth a nut torque breaks what you have just set.',
      appliesWhen: FITTED,
      place: 'end:aft',
    })
  return inOrder('finish', after, [
    fillStep('fill-stand', { fact: 'school.filling', is: 'stand' }, 'on the stand'),
    !bench.propeller?.afterRun && propeller,
    bench.anodes !== null && {
      id: 'anode',
      what: 'Anodes by the water',
      why: 'The wrong alloy does not protect, or is gone in a summer.',
      appliesWhen: FITTED,
      asks: [
        mustHold(
          pick('anode.alloy', bench.anodes, { zinc: 'zinc', aluminium: 'aluminium', magnesium: 'magnesium' }),
          { fact: 'anode.fits', is: true },
          'Not the alloy for this water: zinc or aluminium in salt, aluminium in brackish, magnesium or aluminium in fresh.',
        ),
        tick('anode.contact', 'Bare metal under it, bonding washers in, not painted'),
      ],
    },
    fillStep('fill-mounted', { fact: 'school.filling', is: 'mounted' }, 'mounted'),
    {
      id: 'first-run',
      what: 'First run',
      why: bench.telltale
        ? 'Water at the telltale soon, or stop; then look for drips.'
        : 'Quiet, cool and dry before it goes out.',
      appliesWhen: FITTED,
      caution:
        bench.propeller && !bench.propeller.afterRun
          ? 'Exhaust outdoors, in the tank or the water with the propeller on; nobody behind it. Never shift at high speed.'
          : 'Exhaust outdoors, no loose gloves near a turning shaft, propeller off on the hose. Never shift at high speed.',
      gates: [gate({ known: 'fill.settled' }, 'Nothing has been filled in yet.')],
      asks: [
        tick('run.quiet', 'Runs quietly, no drips'),
        ...(bench.telltale ? [tick('run.water', 'Water at the telltale')] : []),
        ...(bench.shifts ? [tick('run.shifts', 'Shifted through all three at idle')] : []),
        text('run.heard', 'What was heard or seen', { optional: true }),
      ],
    },
    bench.propeller?.afterRun && propeller,
    propellerLater,
    {
      id: 'handover',
      role: 'hands-over',
      what: 'Hand it over',
      why: 'The record is where the next rebuild starts.',
      needsToo: ['approve'],
      asks: [
        mustHold(
          number('out.open-closed', 'Open items from receiving that are settled', '', { whole: true }),
          { fact: 'out.open-closed', sameAs: 'in.open-items' },
          'Open items from receiving are not all settled. Settle them, or hand them over in writing.',
        ),
        text('out.remarks', 'To be said to the owner', { optional: true }),
        tick('out.tag', 'Tag on the unit, next service said'),
      ],
    },
  ])
}
