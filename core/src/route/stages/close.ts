import type { DriveStepId } from '../step-ids.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { threadTurn } from '../../torque/thread-turn.ts'
import { anodesSaid, bigRing, caseTest, ringLock, ringPath } from '../../drives/graph/unit-facts.ts'
import { torqueUnitAt } from '../../drives/own/source.ts'
import type { Condition } from '../facts.ts'
import { neededIf, bySchool, gate, inOrder, number, pick, say, seen, type StepDraft } from '../make.ts'
import type { Step } from '../route.ts'
import { leakStep } from './leak-steps.ts'
import { pumpStep } from './pump.ts'
import { unitSteps } from './unit-came.ts'
import { byFeel, groupTorques, torqueAsks, wrenchFigures } from './torque-asks.ts'
import { attitudeOf, leverOf } from './attitudes.ts'
import { CLOSES, does } from './rebuild.ts'
import { lackingUnder, wantingStep } from './wanted.ts'

/**
 * Final torque and lock of the big nut or ring, on the stand or once it is mounted: by school where it can still be reached
 * then, on the stand where it cannot.
 */
export function ringNut(
  { sources, graph }: Pick<DriveSheet, 'sources' | 'graph'>,
  id: 'ring-stand' | 'ring-mounted',
  needs: DriveStepId[],
): StepDraft | false {
  const lockTabs = ringLock(graph)
  const ring = bigRing(graph)
  const mounted = id === 'ring-mounted'
  if (!lockTabs || (mounted && !lockTabs.reachedMounted)) return false
  // a unit that never left the boat is mounted already
  const onBoat: Condition = {
    any: [
      { fact: 'school.big-ring', is: 'mounted' },
      { fact: 'job.mounted', is: true },
    ],
  }
  const here: Condition = mounted ? onBoat : { not: onBoat }
  const isLeft = ring?.hand === 'left'
  const printed = ring?.torqueUnit ?? torqueUnitAt(sources, `${ringPath(graph)}.torqueNm`)
  return {
    id,
    needs,
    what: `Final torque of the ${lockTabs.what.toLowerCase()}${mounted ? ', mounted' : ''}, then its lock`,
    why: mounted
      ? 'The boat holds what the stand cannot.'
      : 'Torque first, then the tab; never back to meet it.',
    appliesWhen: lockTabs.reachedMounted ? { all: [does('tighten.ring'), here] } : does('tighten.ring'),
    place: (isLeft && ring.place) || undefined,
    ...(isLeft
      ? { turn: { what: lockTabs.what, act: 'tightens' as const, turn: threadTurn('left', 'tightens') } }
      : {}),
    school: 'ring-nut',
    figuresAt: [ringPath(graph)],
    tools: ['Torque wrench within 20 to 100 % of its range'],
    instruct: [
      bySchool('ring-nut', 'grease', 'Thread greased generously: the next person has to get it out.'),
      bySchool(
        'ring-nut',
        'antiseize',
        'Anti-seize on the thread; it lowers the friction, so not above the window.',
      ),
      bySchool('ring-nut', 'sealer', 'Gasket sealer on the thread, thin.'),
      say(
        'If no slot meets the tab, turn the nut on to the next slot, or fit another washer. Turned back, it loses its clamp load.',
        'nut-back',
      ),
    ],
    figures: wrenchFigures('close'),
    asks: [
      ...torqueAsks('close', lockTabs.what, lockTabs.torqueNm, printed),
      {
        ...number('tighten.tabs', `Tabs bent into slots (this drive: ${lockTabs.tabs})`, '', {
          whole: true,
          max: 20,
        }),
        must: { fact: 'tighten.tabs', atLeast: lockTabs.tabs } as const,
        wrong: `The sheet asks for ${lockTabs.tabs}. Turn on to where enough of them meet, or fit another washer.`,
        slip: 'few-tabs' as const,
      },
    ],
  }
}

/** What must be inside before it closes, then closing, locking, and the first proof that it is tight. */
export function closeSteps(sheet: DriveSheet): Step[] {
  const { graph } = sheet
  const test = caseTest(graph)
  const carrier = sheet.parts.find((p) => p.role === 'carrier')
  const carrierKey = sheet.parts.find((p) => p.role === 'carrier-key')
  const washers = sheet.parts.filter((p) => p.kind === 'washer')
  const tests = lackingUnder(sheet, 'tests.case', 'spaces.case.volumeMl')
  const bigNut = lackingUnder(sheet, ringPath(sheet.graph))
  const readable = sheet.measures.filter((m) => m.kind !== 'depth')
  const leakCase: Omit<StepDraft, 'id'> = {
    what: 'Pressure-test this case on its own',
    why: 'A leak found now is in this case. After joining it can be anywhere.',
    attitude: attitudeOf(sheet, 'test'),
    appliesWhen: does('prove.case'),
    needs: [
      'turn-closed',
      'check-set',
      'unit-look',
      'unit-ratio',
      'seals',
      'o-rings',
      ...neededIf(!ringLock(graph)?.reachedMounted, 'ring-stand'),
      'drain',
    ],
  }
  return inOrder('close', undefined, [
    {
      id: 'inside',
      role: 'closes',
      needs: ['seals', 'o-rings', 'oil-again', 'trial-out', 'pre-lube', 'loose-metal', 'waiting'],
      what: 'Everything that belongs inside is inside',
      why: 'What is left on the bench now means opening it again.',
      appliesWhen: CLOSES,
      page: 'row',
      picture: true,
      holdPoint: true,
      instruct: [
        ...washers.map((w) =>
          say(
            `${w.name}: the way round it was marked in the row. Missing or turned round it changes every reading.`,
            'washer-wrong',
          ),
        ),
        say(
          'Slots, dowels and shift parts in the position that lets it close. A lamp into the case: nothing in it that does not belong.',
        ),
        ...leverOf(sheet, 'closing'),
      ],
      gates: [
        gate(
          { fact: 'row.inside-left', is: 0 },
          'Parts that belong inside still lie in the row: shims, spacers, washers, springs. Fit them or say why they stay out.',
          'shims-left',
        ),
        gate(
          { not: { fact: 'metal.found', is: 'open' } },
          'A piece of metal is still missing: it goes through the new gears. Find it, and correct the answer there.',
        ),
      ],
      asks: [seen('inside', 'what lies in the open case, in its place')],
    },
    {
      id: 'close',
      needs: ['inside'],
      what: carrier ? `Close it: ${carrier.name.toLowerCase()} in` : 'Close it',
      why: 'Straight in, never forced; what does not go is not lined up.',
      appliesWhen: CLOSES,
      school: 'covers',
      attitude: attitudeOf(sheet, 'in'),
      instruct: [
        ...(carrierKey
          ? [
              say(
                `${carrierKey.name}: after the carrier has started in its bore. With the key first it jams askew.`,
                'key-early',
              ),
            ]
          : []),
        say(
          'Threads by hand, turned back first until they drop in: a tool does not feel a crossed thread.',
          'cross-thread',
        ),
        bySchool('covers', 'ring', 'O-ring alone: sealant shears it.'),
        bySchool('covers', 'both', 'O-ring and a thin film of sealant, for a pitted face.'),
      ],
    },
    pumpStep(sheet),
    {
      id: 'tighten',
      needs: ['close', 'pump'],
      role: 'tightens',
      what: 'Tighten in order and in stages',
      why: 'Snug by hand, half, full, once round to check.',
      // what has no step of its own on this drive is put on and tightened here
      appliesWhen: does(
        'tighten.other',
        'tighten.ring',
        'fit.outside',
        ...(anodesSaid(graph) === '' ? ['fit.anode'] : []),
      ),
      school: 'threads',
      tools: ['Torque wrench within 20 to 100 % of its range'],
      instruct: [
        bySchool('threads', 'grease', 'Threads in salt water with marine grease.'),
        bySchool('threads', 'antiseize', 'Threads with anti-seize: watch the torque, not above the window.'),
        bySchool(
          'threads',
          'locker',
          'Threadlocker where a fastener is out of reach or held by a low torque, else grease.',
        ),
        say(
          'All started by hand, then across in stages, one check pass. Small seals under bolt heads are new too.',
        ),
        ...byFeel(sheet, 'case'),
      ],
      asks: groupTorques(sheet, 'case'),
    },
    ringNut(sheet, 'ring-stand', ['tighten']),
    bigNut.length > 0 && {
      ...wantingStep(bigNut, {
        id: 'ring-stand',
        what: 'Final torque of what closes it, then its lock',
        why: 'Torque first, then the tab; never back to meet it.',
        appliesWhen: does('tighten.ring'),
      }),
      needs: ['tighten'],
    },
    {
      id: 'turn-closed',
      needs: ['tighten', ...neededIf(ringLock(graph) || bigNut.length, 'ring-stand')],
      what: 'Turn it again, closed',
      why: 'After each closed joint: what binds now was free a moment ago.',
      appliesWhen: CLOSES,
      counts: [
        gate(
          { fact: 'closed.feel', is: 'same' },
          'Tighter than before it closed: a cover drawn down too far crushes its bearing, or something sits askew. Open it, find it, turn it again.',
          'cover-crushed',
        ),
      ],
      asks: [
        pick('closed.feel', 'It turns', {
          same: 'as free as before',
          tight: 'tighter, or with a notch',
        }),
      ],
    },
    readable.length > 0 && {
      id: 'check-set',
      needs: ['turn-closed'],
      what: 'One check reading: the setting was not disturbed',
      why: 'The same parts are seated again, and nothing that sets the gears was changed. One reading of each proves it, without a trial build or a pattern.',
      appliesWhen: does('check'),
      tools: ['Indicator on a firm stand'],
      figures: readable.map((m) => ({
        label: `${m.label} as found`,
        fact: `setting.found.${m.id}`,
        unit: 'mm',
      })),
      counts: readable.map((m) =>
        gate(
          { not: { fact: `check.${m.id}.same`, is: false } },
          `${m.label} is not what it was as found, or outside its window: something did move. Read both again; if it stays, take the gears into the scope and set them.`,
        ),
      ),
      asks: readable.map((m) =>
        number(`check.${m.id}`, `${m.label} now`, 'mm', {
          quantity: 'length',
          max: 5,
          when: does(`check.${m.id}`),
        }),
      ),
    },
  ]).concat(
    inOrder('tight', undefined, [
      ...unitSteps(sheet),
      test && leakStep(test, 'leak-case', leakCase),
      !test && tests.length > 0 && { ...wantingStep(tests, { id: 'leak-case', ...leakCase }) },
    ]),
  )
}
