import type { DriveSheet } from '../../drives/sheet.ts'
import { gate, inOrder, mustHold, number, pick, rightOf, tick } from '../make.ts'
import type { Step } from '../route.ts'
import { leakStep } from './leak-steps.ts'
import { ringNut } from './close.ts'
import { FITTED } from './rebuild.ts'

/** Nothing is joined before the case is proved, where it can be. */
const tightCase = (sheet: DriveSheet) =>
  sheet.bench.leak
    ? [
        gate(
          { fact: 'leak-case.verdict', is: 'tight' },
          'The case is not proved tight: find the leak, mend it, and test it again.',
        ),
      ]
    : []

/** Put it back: halves joined in one gear, by hand, with nothing forgotten. */
export function joinSteps(sheet: DriveSheet, after: string): Step[] {
  const { bench } = sheet
  const to = bench.joins?.to ?? 'its place'
  const geared = sheet.meshes.length > 0
  return inOrder('join', after, [
    bench.shifts && {
      id: 'join-gear',
      what: `Both halves in ${bench.joins?.gear ?? 'neutral'}`,
      why: 'Joined in different gears the rod is a tooth off, and nothing shifts.',
      appliesWhen: FITTED,
      gates: tightCase(sheet),
      asks: [
        pick('join.this', 'This half stands in', {
          neutral: 'neutral',
          forward: 'forward',
          reverse: 'reverse',
        }),
        mustHold(
          pick('join.other', `The other (${to}) stands in`, {
            neutral: 'neutral',
            forward: 'forward',
            reverse: 'reverse',
          }),
          {
            all: [
              { fact: 'join.other', sameAs: 'join.this' },
              { fact: 'join.this', is: bench.joins?.gear ?? 'neutral' },
            ],
          },
          `Both belong in ${bench.joins?.gear ?? 'neutral'}. Shift the one that is not, and prove it by turning.`,
          'gears-differ',
        ),
      ],
    },
    {
      id: 'splines',
      what: geared ? 'Grease splines, and nothing else' : 'Thread the belt, seat the pulleys',
      why: geared
        ? 'Grease trapped on the end face locks the shaft like a ram.'
        : 'Once the halves meet there is no way in for a belt.',
      appliesWhen: FITTED,
      school: 'splines',
      gates: bench.shifts ? [] : tightCase(sheet),
      asks: [
        ...(geared
          ? [
              rightOf(
                'join.end-face',
                'End face of the shaft',
                { clean: 'wiped clean', greased: 'greased' },
                'clean',
                'Grease on the end face is trapped when the splines close, and holds the halves apart. Wipe it off.',
                'shaft-end',
              ),
            ]
          : [tick('join.belt', 'Belt threaded, keys in, taper bushes drawn in order')]),
        ...(bench.captive
          ? [
              rightOf(
                'join.captive',
                `${bench.captive} (goes in only while it is apart)`,
                { in: 'is in', not: 'not yet' },
                'in',
                `${bench.captive} can only go in now. Once it is joined there is no room.`,
                'captive-bolt',
              ),
            ]
          : []),
        ...(bench.waterTube
          ? [
              rightOf(
                'join.tube',
                'The water tube',
                { right: bench.waterTube.toLowerCase(), other: 'the other way, or not sure' },
                'right',
                `${bench.waterTube}. Turned round it folds its grommet, and no water comes.`,
                'tube-down',
              ),
            ]
          : []),
      ],
    },
    {
      id: 'join',
      what: `Join it to ${to}`,
      why: 'It goes up flush by hand, or something is not lined up.',
      appliesWhen: FITTED,
      school: 'lifting',
      caution:
        'It drops when the splines align: fingers out of the gap. A tilted drive hangs on its mechanical lock, not on the hydraulics.',
      asks: [
        rightOf(
          'join.gap',
          'The gap closed',
          { hand: 'by hand, turning the shaft a little', bolts: 'with the bolts' },
          'hand',
          'Bolts that pull a case up break it or bend the shaft. Back off, turn the shaft a little, look at the tube.',
          'pulled-up',
        ),
        ...(bench.shiftRod
          ? [
              rightOf(
                'join.notch',
                bench.shiftRod,
                { free: 'screw passes without drag', drags: 'screw drags' },
                'free',
                'A dragging screw cuts both threads: the notch is not under it. Line the rod up.',
                'shift-notch',
              ),
            ]
          : []),
        ...(bench.hidden
          ? [
              number(
                'join.hidden',
                `Hidden fasteners fitted (${bench.hidden.count}, ${bench.hidden.where})`,
                '',
                { min: bench.hidden.count, whole: true },
              ),
            ]
          : []),
      ],
    },
    ringNut(bench, 'ring-mounted'),
    bench.shifts && {
      id: 'shift-check',
      what: 'Shift check, both ends',
      why: 'Neutral free, forward in, neutral again, reverse in: at the lever and at the shaft.',
      appliesWhen: FITTED,
      asks: [
        tick('shift.neutral', 'Neutral: shaft free, at both ends'),
        tick('shift.forward', 'Forward engaged'),
        tick('shift.neutral-again', 'Neutral again'),
        tick('shift.reverse', 'Reverse engaged'),
      ],
    },
    bench.joins?.oilJoint &&
      leakStep(bench.joins.oilJoint, 'leak-joined', {
        what: 'Prove it tight again, joined, before any filling',
        why: 'The joint between the halves has not been tested yet. Both volumes count, and the lower of the two limits.',
        appliesWhen: FITTED,
      }),
  ])
}
