import {
  captives,
  caseTest,
  hiddenOnes,
  joinedTest,
  joinedTo,
  ringLock,
  wayOf,
} from '../../drives/graph/unit-facts.ts'
import type { DriveStepId } from '../step-ids.ts'
import type { Condition } from '../facts.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import {
  neededIf,
  bySchool,
  gate,
  inGear,
  inOrder,
  listOf,
  mustHold,
  number,
  pick,
  say,
  seen,
  text,
  type StepDraft,
} from '../make.ts'
import { lowerFirst } from '../../units/words.ts'
import type { Gate, Step } from '../route.ts'
import { attitudeOf, leverOf } from './attitudes.ts'
import { ringNut } from './close.ts'
import { rightDrive } from './inspect.ts'
import { leakStep } from './leak-steps.ts'
import { groupTorques } from './torque-asks.ts'
import { does, LEADS, OTHER_READY } from './rebuild.ts'

/** Nothing is joined before the case is proved, where it has to be and can be. */
const tightCase = (sheet: DriveSheet): Gate[] =>
  caseTest(sheet.graph)
    ? [
        gate(
          { any: [PROVED_ELSEWHERE, { fact: 'leak-case.proved', is: true }] },
          'The case is not proved tight: find the leak, mend it, and test it again.',
        ),
      ]
    : []

/** Nothing was opened that this test would see. */
export const PROVED_ELSEWHERE: Condition = { not: does('prove.case') }

/** Fasteners that are easily forgotten, each by its place. */
function hiddenOptions(sheet: DriveSheet): Record<string, string> {
  const hidden = hiddenOnes(sheet.graph)
  if (!hidden) return {}
  const own = (sheet.fasteners ?? []).filter((f) => f.hidden)
  if (own.length)
    return Object.fromEntries(
      own.map((f, i) => [
        `h${i + 1}`,
        `${f.name}${f.where ? `, ${f.where}` : ''}${f.count > 1 ? ` (${f.count})` : ''}`,
      ]),
    )
  return Object.fromEntries(
    Array.from({ length: hidden.count }, (_, i) => [`h${i + 1}`, `${i + 1}. ${hidden.where}`]),
  )
}

/** Put it back: halves joined in one gear, by hand, with nothing forgotten. */
export function joinSteps(sheet: DriveSheet): Step[] {
  const { graph } = sheet
  const { to, gear } = joinedTo(graph) ?? { to: 'its place', gear: 'neutral' }
  const joined = joinedTest(graph)
  const [tube, rod] = [wayOf(graph, 'water-tube'), wayOf(graph, 'shift-rod')]
  const geared = sheet.meshes.length > 0
  const joins: Condition = { all: [LEADS, does('join')] }
  const hidden = hiddenOptions(sheet)
  const before: DriveStepId[] = ['leak-case', 'turn-closed', 'tighten', 'unit-look', 'unit-ratio']
  const eye = [
    ...captives(graph).map((g) => `${lowerFirst(g.name)} in place`),
    tube && 'the water tube',
    geared ? 'the end face of the shaft' : 'belt and keys',
  ].filter(Boolean)
  return inOrder('join', undefined, [
    graph.unit?.shifts && {
      id: 'join-gear',
      needs: before,
      what: `Both halves in ${gear}`,
      why: 'Joined in different gears the rod is a tooth off, and nothing shifts.',
      appliesWhen: joins,
      instruct: [
        say(
          `This half and ${to}: both in ${gear}. Prove each by turning it before they meet.`,
          'gears-differ',
        ),
        ...leverOf(sheet, 'joining'),
      ],
    },
    {
      id: 'splines',
      needs: before,
      what: geared ? 'Grease splines, and nothing else' : 'Thread the belt, seat the pulleys',
      why: geared
        ? 'Grease trapped on the end face locks the shaft like a ram.'
        : 'Once the halves meet there is no way in for a belt.',
      appliesWhen: joins,
      school: 'splines',
      holdPoint: true,
      instruct: [
        ...(geared
          ? [
              bySchool('splines', 'thin', 'A thin film on both splines.'),
              bySchool('splines', 'heavy', 'Heavy on the shaft, away from its end.'),
              bySchool('splines', 'female', 'In the female spline only.'),
              say('End face of the shaft wiped clean.', 'shaft-end'),
            ]
          : [
              say(
                'Belt threaded, keys in, taper bushes drawn in order, jacked off with their own screw if one sits wrong.',
              ),
            ]),
        ...captives(graph).map((g) =>
          say(`${g.name}: in now. Once it is joined there is no room.`, 'captive-bolt'),
        ),
        ...(tube
          ? [
              say(
                `Water tube: ${lowerFirst(tube)}. Turned round it folds its grommet, and no water comes.`,
                'tube-down',
              ),
            ]
          : []),
      ],
      asks: [seen('splines', eye.join(', '))],
    },
    {
      id: 'join',
      needs: ['splines', ...neededIf(graph.unit?.shifts, 'join-gear')],
      what: `Join it to ${to}`,
      why: 'It goes up flush by hand, or something is not lined up.',
      appliesWhen: joins,
      school: 'lifting',
      attitude: attitudeOf(sheet, 'joining'),
      gates: [
        ...tightCase(sheet),
        ...rightDrive(sheet),
        ...unitFits(sheet),
        gate(OTHER_READY, 'The other case of this unit is not closed and proved yet: finish it first.'),
      ],
      instruct: [
        bySchool('lifting', 'lower-up', 'Lift the lower to the upper, which stays on the boat.'),
        bySchool(
          'lifting',
          'upper-down',
          'Set the upper on the lower, both on a stand that holds the joined weight.',
        ),
        bySchool('lifting', 'by-boat', 'What is on the boat stays there, the other half comes to it.'),
        say(
          'The gap closes by hand, turning the shaft a little. Bolts that pull a case up break it.',
          'pulled-up',
        ),
        ...(rod
          ? [say(`${rod}: the screw passes without drag, or it cuts both threads.`, 'shift-notch')]
          : []),
      ],
      asks: [
        ...(hiddenOnes(graph)
          ? [
              mustHold(
                listOf('join.hidden', 'Hidden fasteners, fitted', hidden),
                { fact: 'join.hidden', is: Object.keys(hidden).join(' ') },
                'One that nobody sees is easily left out. Fit it, then tick it.',
              ),
            ]
          : []),
        ...groupTorques(sheet, 'joins'),
      ],
    },
    ringLock(graph) && ringNut(sheet, 'ring-mounted', ['join', 'tighten', 'turn-closed']),
    graph.unit?.shifts && {
      id: 'shift-check',
      needs: ['join', 'turn-closed'],
      what: 'Shift check, both ends',
      why: 'Neutral free, forward in, neutral again, reverse in: at the lever and at the shaft.',
      appliesWhen: { all: [LEADS, does('know.shift')] },
      counts: [
        gate(
          { fact: 'shift.result', is: 'agree' },
          'Lever and shaft do not agree: adjust rod or clamp until all four do, then check again.',
        ),
      ],
      asks: [
        pick('shift.result', 'Neutral, forward, neutral, reverse', {
          agree: 'all four right at both ends',
          off: 'one of them is not',
        }),
      ],
    },
    geared && {
      id: 'unit-overall',
      needs: ['join'],
      what: 'Count the ratio of the joined unit',
      why: 'Upper times lower: a lower of another boat bolts on all the same.',
      appliesWhen: { all: [joins, { fact: 'unit.cases', is: 2 }] },
      instruct: inGear(sheet),
      figures: [
        { label: 'By the teeth of both cases', fact: 'overall.expected' },
        { label: 'Codes of this case that would fit what was counted', fact: 'overall.fits' },
      ],
      counts: [
        gate(
          { not: { fact: 'overall.agrees', is: false } },
          'The turns do not make the ratio of these two cases: one of them is another than its sheet says. Nothing is filled or run before it is known which.',
          'lower-ratio',
        ),
      ],
      asks: [
        number('overall.input-turns', 'Turns at the input of the upper', 'turns', { min: 0.5, max: 200 }),
        number('overall.output-turns', 'Turns at the propeller meanwhile', 'turns', { min: 0.5, max: 200 }),
      ],
    },
    !joined && isProvedJoined(sheet) && joinedByWord(),
    joined &&
      leakStep(joined, 'leak-joined', {
        what: 'Prove it tight, both cases joined, before any filling',
        why: 'Both cases share their oil, and the joint between them is tested only here. Both volumes count, and the lower of the two limits.',
        appliesWhen: { all: [LEADS, does('prove.joined')] },
        needs: [
          'join',
          'turn-closed',
          'check-set',
          ...neededIf(ringLock(graph)?.reachedMounted, 'ring-mounted'),
        ],
      }),
  ])
}

/** Something can only be proved with both cases together: their oil is one, or a joint lies between them. */
const isProvedJoined = ({ graph }: DriveSheet): boolean =>
  (graph.interfaces ?? []).some((i) => i.sharesOil === true) ||
  (graph.joints ?? []).some((j) => j.provedBy === 'joined-air')

/** The joined test of a drive whose sheet has no figures for it: held as the manual of the unit says, and its word entered. */
const joinedByWord = (): StepDraft => ({
  id: 'leak-joined',
  needs: ['join', 'turn-closed', 'check-set', 'ring-mounted'],
  what: 'Prove it tight, both cases joined, before any filling',
  why: 'Both cases share their oil, and the joint between them is tested only here. This sheet has no figures for both together.',
  appliesWhen: { all: [LEADS, does('prove.joined')] },
  counts: [
    gate(
      { not: { fact: 'leak-joined.word', is: 'leaks' } },
      'It leaks: find the place, mend it, and test it again.',
    ),
  ],
  asks: [
    pick('leak-joined.word', 'Tested by the manual of the unit, with the volume of both cases', {
      tight: 'tight',
      leaks: 'it leaks',
      alone: 'this case only: the other one is not here',
    }),
    text('leak-joined.how', 'Pressure, time and what the gauge did', { optional: true }),
  ],
})

/** A unit that came with another ratio belongs on no boat of ours. */
const unitFits = (sheet: DriveSheet): Gate[] =>
  sheet.meshes.length
    ? [
        gate(
          { not: { fact: 'unit.ratio-agrees', is: false } },
          `Not the ${sheet.ratio?.overall ?? 'ratio'} of the drive that came off: this unit does not belong on that boat.`,
        ),
        gate(
          { not: { fact: 'unit.agrees', is: false } },
          'The code of this unit is that of another variant: send it back, or correct the answer.',
        ),
      ]
    : []
