import type { DriveSheet } from '../../drives/sheet.ts'
import { gate, inOrder, rightOf, text, tick } from '../make.ts'
import type { Step } from '../route.ts'

/** Clean, look at every part, decide, and have it approved. */
export function inspectSteps(sheet: DriveSheet, after: string): Step[] {
  return inOrder('inspect', after, [
    {
      id: 'clean',
      what: 'Clean parts and case',
      why: 'Dirt hides pits, and grit makes new ones.',
      caution: 'Solvent: air, gloves, no flame. Chlorinated cleaner gives poison gas with heat.',
      consumables: ['Solvent', 'Brushes', 'Lint-free cloth'],
      asks: [
        rightOf(
          'clean.solvent',
          'Solvent on paint and rubber',
          { kept: 'kept off', got: 'some got on' },
          'kept',
          'Solvent swells seals and lifts paint. Wipe it off; rubber that was wet is new.',
          'solvent',
        ),
        rightOf(
          'clean.case',
          'The case inside, after wire and scraper',
          { clear: 'looked at with a lamp: nothing in it', shavings: 'shavings in it, or not looked' },
          'clear',
          'Shavings from cleaning run straight into the bearings. Wash and look again with a lamp.',
          'shavings',
        ),
      ],
    },
    {
      id: 'inspect',
      what: 'Grade every part',
      why: 'Each goes back, gets dressed, or is replaced: with a reason.',
      page: 'grades',
      picture: true,
      tools: ['Lens', 'Indicator', 'Micrometer'],
      gates: [
        gate({ fact: 'grades.open', is: 0 }, 'Parts in the row have no grade yet: look at the grades.'),
      ],
      asks: [],
    },
  ]).concat(
    inOrder('parts', 'inspect', [
      {
        id: 'approve',
        what: 'Estimate, and the owner decides',
        why: 'One bent shaft can be a small repair or the whole drive; nobody else pays for the answer.',
        page: 'estimate',
        gates: [
          gate(
            { known: 'estimate.choice' },
            'No decision of the owner is recorded yet: make the estimate and record who agreed to what.',
          ),
        ],
        asks: [],
      },
      {
        id: 'parts-in',
        role: 'parts-arrive',
        what: 'Compare every new part with the old one',
        why: 'Early and late parts of one drive differ by a groove or a bore.',
        appliesWhen: { fact: 'estimate.choice', is: 'rebuild' },
        page: 'estimate',
        asks: [
          tick('parts.compared', 'Lengths, grooves and seats compared, old beside new'),
          rightOf(
            'parts.bores',
            'Bearings that look alike',
            { told: 'bores measured, told apart', sight: 'taken by sight' },
            'told',
            'Two bearings of one outside differ in the bore. Measure each before it is pressed.',
            'look-alike',
          ),
          tick('parts.rings', 'O-rings laid out by size against their grooves'),
          ...(sheet.bench.thrustHub
            ? [
                rightOf(
                  'parts.hub',
                  `Thrust hub (this drive: ${sheet.bench.thrustHub.toLowerCase()})`,
                  { fits: 'the one for the propeller fitted', other: 'another' },
                  'fits',
                  'The wrong hub lets the propeller ride on the carrier. Get the one that belongs to this propeller.',
                  'wrong-hub',
                ),
              ]
            : []),
          text('parts.short', 'Short delivery: what is reused, and why', { optional: true }),
        ],
      },
    ]),
  )
}
