import { thrustHubOf } from '../../drives/graph/unit-facts.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { gate, inOrder, listFrom, say, text } from '../make.ts'
import type { Condition } from '../facts.ts'
import type { Gate, Step } from '../route.ts'
import { does, inMode, JUDGED, OPENS, WHOLE } from './rebuild.ts'

/** What the stamps and the counted turns must not contradict before money is spent, or the unit goes back on. */
export const rightDrive = (sheet: DriveSheet): Gate[] => [
  gate(
    { not: { fact: 'id.agrees', is: false } },
    'The stamp is that of another variant. Move the job to its sheet (Details, top right), or correct the answer at the stamps.',
    'variant',
  ),
  gate(
    { not: { fact: 'ratio.agrees', is: false } },
    `Turns or teeth do not make the ${sheet.ratio?.overall ?? 'ratio'} of this sheet. A lower or upper of another ratio is on it: find out before anything is bought.`,
    'lower-ratio',
  ),
]

/** Clean, look at every part, decide, and have it approved. */
export function inspectSteps(sheet: DriveSheet): Step[] {
  const judges: Condition = { all: [{ any: [does('remove'), { not: WHOLE }] }, JUDGED] }
  const thrustHub = thrustHubOf(sheet.graph)
  const ringSizes = (sheet.further?.sealDetails ?? []).filter((d) => d.size)
  return [
    ...inOrder('inspect', undefined, [
      {
        id: 'clean',
        needs: ['apart'],
        appliesWhen: OPENS,
        what: 'Clean parts and case',
        why: 'Dirt hides pits, and grit makes new ones.',
        consumables: ['Solvent', 'Brushes', 'Lint-free cloth'],
        instruct: [
          say(
            'Solvent off paint and rubber: it swells seals and lifts paint. Rubber that was wet with it is new.',
            'solvent',
          ),
          say(
            'After wire and scraper the case is washed out and looked through with a lamp: shavings run straight into the bearings.',
            'shavings',
          ),
        ],
      },
      {
        id: 'inspect',
        bySelf: true,
        needs: ['clean', 'loose-metal'],
        appliesWhen: judges,
        what: 'Grade what came off',
        why: 'Each goes back, gets dressed, or is replaced: with a reason. A rounded dog takes its mating gear with it.',
        page: 'grades',
        picture: true,
        tools: ['Lens', 'Indicator', 'Micrometer'],
        gates: [
          gate({ fact: 'grades.open', is: 0 }, 'Parts in the row have no grade yet: look at the grades.'),
          gate(
            { not: { fact: 'grades.dog-alone', is: true } },
            'The dog is rounded: look at the windows of its gears and grade them too, in place where they stay in. They go together.',
          ),
        ],
        asks: [],
      },
    ]),
    ...inOrder('parts', undefined, [
      {
        id: 'approve',
        bySelf: true,
        needs: ['inspect', 'strike', 'identify', 'ratio'],
        appliesWhen: { any: [judges, inMode('strike', 'look')] },
        what: 'Estimate, and the owner decides',
        why: 'One bent shaft can be a small repair or the whole drive; nobody else pays for the answer.',
        page: 'estimate',
        gates: [
          ...rightDrive(sheet),
          gate(
            { known: 'estimate.choice' },
            'No decision of the owner is recorded yet: make the estimate and record who agreed to what.',
          ),
          gate(
            { not: { fact: 'estimate.outgrown', is: true } },
            'More was condemned since the owner decided, and it costs more: ask him again.',
          ),
        ],
        asks: [],
      },
      {
        id: 'parts-in',
        role: 'parts-arrive',
        needs: ['approve'],
        appliesWhen: { all: [does('renew'), JUDGED] },
        what: 'Tick off what arrives, and hold new against old',
        why: 'Early and late parts of one drive differ by a groove or a bore.',
        page: 'estimate',
        instruct: [
          say('New beside old: length, grooves, bore, seats. Colour is not enough.'),
          say(
            'Bearings that look alike differ in the bore: measure each before it is pressed.',
            'look-alike',
          ),
          ...(ringSizes.length
            ? [
                say(
                  `O-rings and seals by size against their grooves: ${ringSizes.map((d) => `${d.name.toLowerCase()} ${d.size}`).join('; ')}.`,
                ),
              ]
            : [say('O-rings of the kit laid out by size against their grooves before the first goes in.')]),
          ...(thrustHub
            ? [
                say(
                  `Thrust hub of this drive: ${thrustHub.toLowerCase()}. Another lets the propeller ride on the carrier.`,
                  'wrong-hub',
                ),
              ]
            : []),
        ],
        asks: [
          listFrom('parts.arrived', 'Arrived and compared', { of: 'orders' }),
          text('parts.short', 'Not here: what is reused in its place, and why', {
            when: { not: { fact: 'parts.complete', is: true } },
          }),
        ],
      },
    ]),
  ]
}
