import { leftHanded, pinchScrews } from '../../drives/graph/unit-facts.ts'
import type { DriveStepId } from '../step-ids.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { shimAdjusters } from '../../drives/sheet.ts'
import { threadTurn } from '../../torque/thread-turn.ts'
import { bySchool, gate, inOrder, pick, say, text } from '../make.ts'
import type { Condition } from '../facts.ts'
import type { Step } from '../route.ts'
import { nutFound } from './nut-found.ts'
import { attitudeOf, leverOf } from './attitudes.ts'
import { does, OPENS, WHOLE } from './rebuild.ts'

/** Minutes that penetrant is given on what is stuck. */
const SOAK_MIN = 30

/** Take it apart: locks, threads, then part after part into the row. */
export function teardownSteps(sheet: DriveSheet): Step[] {
  const { graph } = sheet
  const shims = shimAdjusters(sheet)
  const lefts = leftHanded(graph)
  const openGear = graph.unit?.openGear
  // what is read while it is together is read before the first lock
  const together: DriveStepId[] = [
    'leak-found',
    'leak-found-joined',
    'as-found',
    'prop-off',
    'strike',
    'ratio',
    'identify',
    'drain',
    'tools',
    'service',
  ]
  const readsNut = nutFound(sheet)
  const opened: DriveStepId[] = openGear ? ['open-gear'] : together
  return inOrder('teardown', undefined, [
    {
      id: 'soak',
      needs: ['receive'],
      appliesWhen: { all: [does('remove.carrier'), { fact: 'job.water', oneOf: ['salt', 'brackish'] }] },
      what: 'See whether the carrier moves; penetrant where it does not',
      why: 'Time loosens what force breaks. Other work goes on meanwhile.',
      consumables: ['Penetrant'],
      waits: { kind: 'soak', minutes: SOAK_MIN, when: { fact: 'soak.how', is: 'soaks' } },
      asks: [
        pick('soak.how', 'The carrier', {
          moves: 'moves: no soak needed',
          soaks: `is stuck: penetrant put on, ${SOAK_MIN} min`,
        }),
      ],
    },
    openGear && {
      id: 'open-gear',
      needs: together,
      // what lay beside it when it came has come out already
      appliesWhen: {
        all: [OPENS, { any: [WHOLE, does('remove.carrier', 'remove.housing', 'remove.cup')] }],
      },
      what: `Put it in ${openGear}`,
      why: 'In another gear the rod or the shaft does not clear.',
      instruct: [say('Prove it: the output shaft turns, nothing else moves.'), ...leverOf(sheet, 'opening')],
    },
    readsNut && { ...readsNut, needs: opened },
    {
      id: 'locks',
      needs: readsNut ? ['nut-found'] : opened,
      appliesWhen: does('loosen.held', 'take-out.held'),
      what: 'Free the locks before any thread',
      why: 'A nut forced over a tab takes the thread with it.',
      school: 'power-tools',
      tools: ['Drift', 'Pliers'],
      instruct: [
        say('Tabs straightened, split pins drawn, set screws slackened.'),
        ...pinchScrews(graph).map((g) =>
          say(
            `${g.count ?? 1} pinch ${(g.count ?? 1) > 1 ? 'screws' : 'screw'} (${g.where ?? ''}): slackened, left in place.`,
          ),
        ),
        bySchool('power-tools', 'none', 'By hand: a thread in aluminium is stripped once.'),
        bySchool('power-tools', 'run-off', 'Cover screws may be run off at low power, never tightened so.'),
        bySchool('locks', 'new', 'What was bent is thrown away: metal that was bent twice cracks.'),
        bySchool('locks', 'again', 'Locks are straightened once and kept; say so at the end.'),
      ],
    },
    lefts[0] && {
      id: 'left-hand',
      appliesWhen: does('loosen.left', 'take-out.left'),
      what: lefts.length > 1 ? 'Left-hand threads, each by name' : `${lefts[0].name}: left-hand thread`,
      why: 'Clockwise loosens it. Forced the usual way it strips the case. When it is bare, the row says it again.',
      place: lefts[0].place || undefined,
      turn: { what: lefts[0].name, act: 'loosens', turn: threadTurn('left', 'loosens') },
      // where there are several, those that this job loosens
      instruct:
        lefts.length > 1
          ? lefts.map((g) =>
              say(
                `${g.name}${g.where ? `, ${g.where}` : ''}: clockwise loosens it.`,
                undefined,
                does(`loosen.${g.id}`, `take-out.${g.id}`),
              ),
            )
          : [],
    },
    {
      id: 'apart',
      needs: [lefts[0] ? 'left-hand' : 'locks', 'soak'],
      appliesWhen: does('remove'),
      what: 'Take it apart, each part into the row',
      why: 'The row is what you build back from; what still holds a part is said at the part.',
      page: 'row',
      picture: true,
      bares: true,
      attitude: attitudeOf(sheet, 'off'),
      instruct: [
        say('Cover every opening; catch washers, springs and keys as they come.'),
        ...(sheet.further?.cautions ?? []).map((c) => say(c)),
      ],
      gates: [
        gate(
          { fact: 'row.missing', is: 0 },
          'Parts that this job takes off are still in the case, or not in the row yet: look at the row.',
        ),
      ],
      asks: [
        pick('apart.how', 'It came', {
          freely: 'freely',
          puller: 'with puller or heat',
          broke: 'and something broke or twisted off',
        }),
        text('apart.broke', 'What broke, and how it is mended', { when: { fact: 'apart.how', is: 'broke' } }),
      ],
    },
    shims.length > 0 && {
      id: 'shims',
      bySelf: true,
      needs: ['apart'],
      appliesWhen: { any: [does('remove.shim'), { all: [{ not: WHOLE }, does('set.gears')] }] },
      what: 'Collect, measure and bag the shims',
      why: 'They are the best first guess for the new stack.',
      place: `stack:${shims[0]!.id}`,
      page: 'setting',
      tools: ['Outside micrometer', 'Bags and pen'],
      instruct: [
        say(
          'Look at every face for a shim stuck by oil: gears, cups, case. One left behind makes the new stack thick by it.',
          'shim-stuck',
        ),
        say(
          'Each stack in a bag of its own with the name of its place, before the next one comes out.',
          'shims-mixed',
        ),
      ],
      gates: [
        gate({ fact: 'setting.stacks-known', is: true }, 'Enter every stack as found in Setting first.'),
      ],
    },
    {
      id: 'loose-metal',
      needs: ['apart'],
      appliesWhen: OPENS,
      what: 'Account for every piece of metal',
      why: 'What is missing from a tooth lies in the case.',
      asks: [
        pick('metal.found', 'Teeth, rollers, needles, springs', {
          none: 'all there',
          found: 'something was missing, and is found',
          open: 'something is missing still',
        }),
      ],
    },
    {
      id: 'waiting',
      needs: ['apart'],
      what: 'Keep it from rusting while it waits',
      why: 'Rust in the bearings is the real enemy of a waiting job.',
      appliesWhen: { all: [OPENS, MILKY] },
      consumables: ['Oil to displace the water', 'Cover'],
      instruct: [say('Water drained, bearings oiled, case covered.')],
      asks: [text('waiting.note', 'Until when', { optional: true })],
    },
  ])
}

const MILKY: Condition = { fact: 'drain.colour', is: 'milky' }
