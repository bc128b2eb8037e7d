import type { DriveSheet } from '../../drives/sheet.ts'
import { shimAdjusters } from '../../drives/sheet.ts'
import { threadTurn } from '../../torque/thread-turn.ts'
import { gate, inOrder, number, pick, rightOf, text, tick } from '../make.ts'
import type { Step } from '../route.ts'

/** Take it apart: locks, threads, then part after part into the row. */
export function teardownSteps(sheet: DriveSheet, after: string): Step[] {
  const { bench } = sheet
  const shims = shimAdjusters(sheet)
  return inOrder('teardown', after, [
    bench.openGear !== null && {
      id: 'open-gear',
      what: `Put it in ${bench.openGear}`,
      why: 'In another gear the rod or the shaft does not clear.',
      school: 'open-gear',
      caution: 'Battery off and key out before hands go near a propeller.',
      asks: [
        rightOf(
          'open.gear',
          'It stands in',
          { neutral: 'neutral', forward: 'forward', reverse: 'reverse' },
          bench.openGear,
          `This drive is opened in ${bench.openGear}. Shift it first.`,
        ),
        tick('open.proved', 'Proved: the output shaft turns, nothing else moves'),
      ],
    },
    {
      id: 'locks',
      what: 'Free the locks before any thread',
      why: 'A nut forced over a tab takes the thread with it.',
      school: 'locks',
      tools: ['Drift', 'Pliers'],
      caution: 'Snap rings, springs and chisels: eyes.',
      asks: [
        tick('locks.free', 'Tabs straightened, split pins drawn, set screws slackened'),
        ...(bench.pinchScrews
          ? [
              number(
                'locks.pinch',
                `Pinch screws slackened, left in place (${bench.pinchScrews.count}, ${bench.pinchScrews.where})`,
                '',
                { min: bench.pinchScrews.count, whole: true },
              ),
            ]
          : []),
      ],
    },
    bench.leftHand !== null && {
      id: 'left-hand',
      what: `${bench.leftHand.what}: left-hand thread`,
      why: 'Clockwise loosens it. Forced the usual way it strips the case. When it is bare, the row says it again.',
      place: bench.leftHand.place || undefined,
      school: 'power-tools',
      caution: 'Stance for a sudden release; somebody holds the stand.',
      turn: { what: bench.leftHand.what, act: 'loosens', turn: threadTurn('left', 'loosens') },
    },
    {
      id: 'apart',
      what: 'Take it apart, each part into the row',
      why: 'The row is what you build back from; what still holds a part is said at the part.',
      page: 'row',
      picture: true,
      bares: true,
      caution: 'Puller bolts under load: stand out of line. Heat only where no rubber, paint or oil burns.',
      gates: [
        gate(
          { fact: 'row.missing', is: 0 },
          'Parts of this drive are still in the case, or not in the row yet: look at the row.',
        ),
      ],
      asks: [tick('apart.covered', 'Openings covered, small parts caught: washers, springs, keys')],
    },
    shims.length > 0 && {
      id: 'shims',
      what: 'Collect, measure and bag the shims',
      why: 'They are the best first guess for the new stack.',
      place: `stack:${shims[0]!.id}`,
      page: 'setting',
      tools: ['Outside micrometer', 'Bags and pen'],
      gates: [
        gate({ fact: 'setting.stacks-known', is: true }, 'Enter every stack as found in Setting first.'),
      ],
      asks: [
        tick(
          'shims.looked',
          'Looked for shims stuck by oil to gears, cups and case',
          'shim-stuck',
          'A shim that stays on the old gear is missing from the count, and the new stack is thick by it. Look at every face.',
        ),
        tick(
          'shims.bagged',
          'Each stack in a bag of its own with the name of its place',
          'shims-mixed',
          'Two stacks in one heap are two stacks lost. Measure, bag and name each.',
        ),
      ],
    },
    {
      id: 'loose-metal',
      what: 'Account for every piece of metal',
      why: 'What is missing from a tooth lies in the case.',
      asks: [
        pick('metal.teeth', 'Teeth, rollers, needles, springs', {
          all: 'all there',
          missing: 'something missing',
        }),
        rightOf(
          'metal.found',
          'What was missing',
          { none: 'nothing was missing', found: 'found', open: 'not found yet' },
          ['none', 'found'],
          'A piece that is still in the case goes through the new gears. Find it.',
        ),
      ],
    },
    {
      id: 'waiting',
      what: 'Keep it from rusting while it waits',
      why: 'Rust in the bearings is the real enemy of a waiting job.',
      appliesWhen: { fact: 'drain.colour', is: 'milky' },
      consumables: ['Oil to displace the water', 'Cover'],
      asks: [
        tick('waiting.oiled', 'Water drained, bearings oiled, case covered'),
        text('waiting.note', 'Until when', { optional: true }),
      ],
    },
  ])
}
