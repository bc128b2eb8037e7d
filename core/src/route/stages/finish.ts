import {
  anodesSaid,
  caseTest,
  drainScrew,
  joinedTest,
  lubricantOf,
  propellerHeld,
} from '../../drives/graph/unit-facts.ts'
import { volumeInWords } from '../../units/format.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import type { Condition } from '../facts.ts'
import { neededIf, gate, inOrder, mustHold, number, pick, say, text, type StepDraft } from '../make.ts'
import type { Ask, Gate, Instruct, Step } from '../route.ts'
import { attitudeOf } from './attitudes.ts'
import { propellerSteps } from './propeller.ts'
import { PROVED_ELSEWHERE } from './join.ts'
import { does, inMode, LEADS, UNIT } from './rebuild.ts'
import { alsoAsks } from './wanted.ts'

/** Holds whatever is known. */
const ALWAYS: Condition = { all: [] }

/** The owner has stopped it, and it is not put together again. */
const AS_IT_IS: Condition = { fact: 'job.end', oneOf: ['as-it-is', 'boxes', 'scrapped'] }

/** Propeller, anode, filling, first run, handover. */
export function finishSteps(sheet: DriveSheet): Step[] {
  const { graph } = sheet
  const oil = lubricantOf(graph) === 'oil'
  const isTestedJoined = joinedTest(graph) !== null
  const propellerLater = propellerHeld(graph)?.afterRun
  const joined: Condition = {
    any: [{ not: does('prove.joined') }, { fact: 'leak-joined.proved', is: true }],
  }
  const tight: Condition = { any: [PROVED_ELSEWHERE, { fact: 'leak-case.proved', is: true }] }
  const proved: Gate[] = [
    ...(isTestedJoined
      ? [
          gate(
            joined,
            'The joined drive is not proved tight: no filling before the second test says so.',
            'test-skipped',
          ),
        ]
      : []),
    ...(caseTest(graph)
      ? [gate(tight, 'The case is not proved tight: no filling before the test says so.', 'test-skipped')]
      : []),
  ]
  const fills: Condition = {
    all: [LEADS, does('fill')],
  }
  /** How much there should be; nothing where nobody knows. */
  const ofOil = sheet.oilCapacityMl === undefined ? '' : `, of ${volumeInWords(sheet.oilCapacityMl)}`
  const fillLines: Instruct[] = oil
    ? [
        say('From below until it comes out of the vent; new gaskets under both screws.'),
        ...(drainScrew(graph)?.plug === 'magnetic'
          ? [say('The magnetic plug into the drain: it tells next year what wears.', 'wrong-plug')]
          : []),
        say('Let it settle: air comes out of the bearings, and the level falls. Then look again.'),
      ]
    : [
        say('Exit plug out first; pump until clean grease comes, turning the shaft.'),
        say('A few turns, then pump again: the first grease finds its way between the balls. Exit plug in.'),
      ]
  const fillAsks = (): Ask[] => [
    number('fill.ml', oil ? `Filled${ofOil}` : 'Filled, about', 'ml', {
      max: 20_000,
      optional: !oil,
    }),
    {
      ...number(
        'fill.topped',
        oil ? 'Topped up after it had settled (0 if it stood)' : 'Pumped again after a few turns, strokes',
        oil ? 'ml' : '',
        {
          max: oil ? 5000 : 500,
          ...(oil ? {} : { whole: true }),
        },
      ),
      slip: 'not-topped' as const,
    },
    text('fill.what', oil ? 'Oil, by grade and can' : 'Grease, by name', { optional: true }),
  ]
  const fillStep = (id: 'fill-stand' | 'fill-mounted', when: Condition): StepDraft => ({
    id,
    needs:
      id === 'fill-stand'
        ? ['leak-case', 'turn-closed', 'leak-found', 'leak-found-joined', 'drain', 'service', 'tighten']
        : [
            'join',
            'leak-case',
            'turn-closed',
            'leak-found',
            'leak-found-joined',
            'leak-found-joined',
            'drain',
            'service',
            'tighten',
            ...neededIf(isTestedJoined, 'leak-joined'),
            'ring-mounted',
          ],
    what: `Fill with ${oil ? 'oil' : 'grease'}, ${id === 'fill-stand' ? 'on the stand' : 'mounted'}`,
    why: 'From below, so that no air stays above the gears.',
    appliesWhen: { all: [fills, when] },
    school: 'filling',
    figuresAt: ['spaces.case.fillMl'],
    attitude: attitudeOf(sheet, 'filling'),
    wants: oil ? alsoAsks(sheet, 'spaces.case.fillMl') : undefined,
    gates: id === 'fill-stand' ? proved.filter((g) => g.when !== joined) : proved,
    consumables: [oil ? `Gear oil${ofOil}` : 'Grease', 'New gaskets'],
    instruct: fillLines,
    asks: fillAsks(),
  })
  // what is joined by an oil joint is proved joined before it is filled; a grease packing is done on the bench
  const onStand: Condition = !oil
    ? ALWAYS
    : {
        all: [
          { fact: 'school.filling', is: 'stand' },
          { not: { fact: 'job.mounted', is: true } },
          ...(isTestedJoined ? [{ not: does('prove.joined') } as Condition] : []),
        ],
      }
  const { propeller, later } = propellerSteps(sheet)
  return inOrder('finish', undefined, [
    fillStep('fill-stand', onStand),
    !propellerLater && propeller,
    anodesSaid(graph) !== '' && {
      id: 'anode',
      needs: ['approve', 'receive', 'turn-closed', 'tighten'],
      what: 'Anodes by the water',
      why: 'The wrong alloy does not protect, or is gone in a summer.',
      appliesWhen: {
        all: [
          { not: AS_IT_IS },
          { any: [UNIT, does('fit.anode'), inMode('service'), { fact: 'job.scope', is: 'full' }] },
        ],
      },
      instruct: [
        say('Salt: zinc or aluminium. Brackish: aluminium. Fresh: magnesium or aluminium.'),
        say('Bare metal under it, bonding washers in, never painted.'),
      ],
      asks: [
        mustHold(
          pick('anode.alloy', anodesSaid(graph), {
            zinc: 'zinc',
            aluminium: 'aluminium',
            magnesium: 'magnesium',
            kept: 'the old ones, good for another year',
          }),
          { fact: 'anode.fits', is: true },
          'Not the alloy for this water: zinc or aluminium in salt, aluminium in brackish, magnesium or aluminium in fresh.',
        ),
      ],
    },
    oil && fillStep('fill-mounted', { not: onStand }),
    {
      id: 'first-run',
      needs: [
        'fill-stand',
        'fill-mounted',
        'join',
        'shift-check',
        'unit-overall',
        'ring-mounted',
        'anode',
        'turn-closed',
        'tighten',
        'service',
        ...neededIf(propellerLater === false, 'propeller'),
        ...neededIf(isTestedJoined, 'leak-joined'),
      ],
      what: 'First run',
      why: graph.unit?.telltale
        ? 'Water at the telltale soon, or stop; then look for drips.'
        : 'Quiet, cool and dry before it goes out.',
      appliesWhen: { all: [LEADS, does('run', 'know.water')] },
      gates: [
        gate({ any: [{ known: 'fill.topped' }, { not: does('fill') }] }, 'Nothing has been filled in yet.'),
      ],
      instruct: [
        ...(graph.unit?.telltale
          ? [say('No water at the telltale within seconds: stop, look at the tube.')]
          : []),
        ...(graph.unit?.shifts ? [say('All three gears at idle.')] : []),
      ],
      counts: [
        gate(
          { fact: 'run.result', is: 'good' },
          'Something is not right: find the place, open a repair loop for it, and run it again.',
        ),
      ],
      asks: [
        pick('run.result', 'It runs', {
          good: graph.unit?.telltale ? 'quiet, dry, with water at the telltale' : 'quiet and dry',
          drips: 'with a drip',
          noise: 'with a noise',
          ...(graph.unit?.telltale ? { 'no-water': 'without water' } : {}),
        }),
        text('run.heard', 'What was heard or seen', { optional: true }),
      ],
    },
    propellerLater && propeller,
    later,
    {
      id: 'handover',
      role: 'hands-over',
      what: 'Hand it over',
      why: 'The record is where the next rebuild starts.',
      needs: [
        'receive',
        'approve',
        'leak-case',
        'turn-closed',
        'first-run',
        'propeller',
        'anode',
        'find-place',
        'leak-found',
        'leak-found-joined',
        'strike',
        'service',
        'fill-stand',
        'fill-mounted',
        'waiting',
      ],
      instruct: [
        say('Tag the unit; tell the owner when the next service is due.', undefined, { not: AS_IT_IS }),
        say(
          'It goes out as it is, and must not be run: a tag on the unit and one at the helm, pressure out, blanks off, and every part in the tray listed by name.',
          undefined,
          { fact: 'job.end', is: 'as-it-is' },
        ),
        say(
          'It goes back in boxes, and is no drive any more: every part is in a box with its name on, the list is in the record, pressure is out and blanks are off.',
          undefined,
          { fact: 'job.end', is: 'boxes' },
        ),
        say(
          'It is scrapped: what is kept is out of it, the serial number is struck off, oil and grease are in the marked can.',
          undefined,
          { fact: 'job.end', is: 'scrapped' },
        ),
      ],
      gates: [
        gate(
          { any: [LEADS, { fact: 'partner.done.first-run', is: true }] },
          'The other case leads: the unit is joined, filled and run on its route first.',
        ),
        gate(
          { fact: 'open-items.left', is: 0 },
          'Open items are left: close each by name, or hand it over in writing there.',
        ),
        ...(caseTest(graph)
          ? [
              {
                ...gate(
                  {
                    any: [
                      { not: UNIT },
                      { fact: 'estimate.choice', is: 'stop' },
                      { fact: 'leak-case.proved', is: true },
                      // joined again before it was proved, it is proved with the other case
                      { fact: 'leak-joined.proved', is: true },
                    ],
                  },
                  'A unit that somebody else closed is not handed over untested: prove it tight.',
                ),
                firm: true,
              },
            ]
          : []),
      ],
      asks: [text('out.remarks', 'To be said to the owner', { optional: true })],
    },
  ])
}
