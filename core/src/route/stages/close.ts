import type { BenchFacts } from '../../drives/bench-facts.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { threadTurn } from '../../torque/thread-turn.ts'
import type { Window } from '../../measuring/window.ts'
import { showOther } from '../../units/format.ts'
import type { Condition } from '../facts.ts'
import { gate, inOrder, mustHold, number, pick, rightOf, text, tick, type StepDraft } from '../make.ts'
import type { Ask, Figure, Step } from '../route.ts'
import { leakStep } from './leak-steps.ts'
import { FITTED, REBUILD, UNIT } from './rebuild.ts'
import { lackingUnder, wantingStep } from './wanted.ts'

/** A torque window in both unit systems: `190 to 230 Nm (140.1 to 169.6 ft-lb)`. */
function windowIn({ min = 0, max }: Window): string {
  const other = (v: number) => showOther(v, 'Nm')
  return max === undefined
    ? `from ${min} Nm (${other(min)})`
    : `${min} to ${max} Nm (${other(min).replace(/ .*/, '')} to ${other(max)})`
}

/** What the wrench has to be set to, and what arrives. */
export const wrenchFigures = (at: string): Figure[] => [
  { label: 'Set the wrench from', fact: `${at}.set-from`, unit: 'Nm' },
  { label: 'to', fact: `${at}.set-to`, unit: 'Nm' },
  { label: 'At the fastener then', fact: `${at}.applied`, unit: 'Nm' },
]

/** A torque that may have gone through an adapter. */
export function torqueAsks(at: string, what: string, window: Window): Ask[] {
  return [
    pick(`${at}.adapter`, 'Through an adapter', {
      none: 'none',
      square: 'square to the wrench',
      straight: 'straight out',
    }),
    number(`${at}.wrench`, 'Straight adapter: length L, from the drive to the grip', 'mm', {
      quantity: 'length',
      max: 3000,
      optional: true,
    }),
    number(`${at}.offset`, 'Straight adapter: length E, from the drive to the fastener', 'mm', {
      quantity: 'length',
      max: 500,
      optional: true,
    }),
    {
      ...number(`${at}.setting`, `${what}: wrench set to (${windowIn(window)} at the fastener)`, 'Nm', {
        quantity: 'torque',
        max: 2000,
      }),
      must: { fact: `${at}.torque-in`, is: true },
      wrong: `What arrives at the fastener is outside ${windowIn(window)}. A straight adapter lengthens the arm: set the wrench lower, to what is shown above.`,
      slip: 'adapter-plain',
    },
  ]
}

/**
 * Final torque and lock of the big nut or ring, on the stand or once it is mounted: by school where it can still be reached
 * then, on the stand where it cannot.
 */
export function ringNut(bench: BenchFacts, id: 'ring-stand' | 'ring-mounted'): StepDraft | false {
  const { lockTabs, leftHand } = bench
  const mounted = id === 'ring-mounted'
  if (!lockTabs || (mounted && !lockTabs.reachedMounted)) return false
  const where: Condition = { fact: 'school.big-ring', is: mounted ? 'mounted' : 'stand' }
  const isLeft = leftHand?.what === lockTabs.what
  return {
    id,
    what: `Final torque of the ${lockTabs.what.toLowerCase()}${mounted ? ', mounted' : ''}, then its lock`,
    why: mounted
      ? 'The boat holds what the stand cannot.'
      : 'Torque first, then the tab; never back to meet it.',
    appliesWhen: lockTabs.reachedMounted ? { all: [REBUILD, where] } : REBUILD,
    place: (isLeft && leftHand.place) || undefined,
    ...(isLeft
      ? { turn: { what: lockTabs.what, act: 'tightens' as const, turn: threadTurn('left', 'tightens') } }
      : {}),
    ...(mounted ? { caution: 'Stance for a sudden release. The drive on its mechanical lock.' } : {}),
    school: 'big-ring',
    tools: ['Torque wrench within 20 to 100 % of its range'],
    figures: wrenchFigures('close'),
    asks: [
      ...torqueAsks('close', lockTabs.what, lockTabs.torqueNm),
      rightOf(
        'tighten.meet',
        'To meet its tab the nut was',
        { on: 'turned on, or met at once', back: 'backed off' },
        'on',
        'A nut backed off to meet a tab has lost its clamp. Turn it on to the next slot, or change the washer.',
        'nut-back',
      ),
      {
        ...number('tighten.tabs', `Tabs bent into slots (this drive: ${lockTabs.tabs})`, '', { whole: true }),
        must: { fact: 'tighten.tabs', atLeast: lockTabs.tabs } as const,
        wrong: `The sheet asks for ${lockTabs.tabs}. Turn on to where enough of them meet, or fit another washer.`,
        slip: 'few-tabs' as const,
      },
    ],
  }
}

/** A unit that came whole: what a stranger's work must show before it goes on a boat. */
function unitSteps(sheet: DriveSheet): (StepDraft | false)[] {
  const stamps = sheet.ratio?.stamps ?? []
  const own = stamps.filter((s) => s.own).map((s) => s.code)
  return [
    {
      id: 'unit-look',
      what: 'Look over the unit that came',
      why: 'Somebody else has closed it: what he left open is yours from now on.',
      appliesWhen: UNIT,
      asks: [
        ...(stamps.length
          ? [
              rightOf(
                'unit.stamp',
                'Code stamped on the unit',
                Object.fromEntries([
                  ...stamps.map((s) => [s.code, `${s.code} (${s.teeth})`]),
                  ['other', 'another, or none to be read'],
                ]),
                own,
                `Not the variant that came off (${own.join(', ')}). It bolts on all the same, and is the wrong one: send it back, or say why it fits.`,
              ),
            ]
          : []),
        pick('unit.seals', 'Seals, plugs and faces', {
          good: 'sound, nothing weeping',
          doubtful: 'something to mend first',
        }),
        text('unit.note', 'What was seen, and what came with it', { optional: true }),
      ],
    },
    sheet.meshes.length > 0 && {
      id: 'unit-ratio',
      what: 'Count the ratio of the unit that came',
      why: 'A stamp can be swapped; turns cannot.',
      appliesWhen: UNIT,
      asks: [
        number('unit.input-turns', 'Turns at the input', 'turns', { min: 0.5, max: 200 }),
        mustHold(
          number('unit.output-turns', 'Turns at the output meanwhile', 'turns', { min: 0.5, max: 200 }),
          { fact: 'unit.ratio-agrees', is: true },
          `Not the ${sheet.ratio?.overall ?? 'ratio'} of the drive that came off: this unit does not belong on that boat.`,
        ),
      ],
    },
  ]
}

/** What must be inside before it closes, then closing, locking, and the first proof that it is tight. */
export function closeSteps(sheet: DriveSheet, after: string): Step[] {
  const { bench } = sheet
  const carrier = sheet.parts.find((p) => p.role === 'carrier')
  const carrierKey = sheet.parts.find((p) => p.role === 'carrier-key')
  const washer = sheet.parts.find((p) => p.kind === 'washer')
  const tests = lackingUnder(sheet, 'bench.leak')
  const bigNut = lackingUnder(sheet, 'bench.lockTabs')
  return inOrder('close', after, [
    {
      id: 'oil-again',
      what: 'Oil the O-rings again',
      why: 'A ring that dried for days rolls and cuts when it goes in.',
      appliesWhen: { all: [REBUILD, { fact: 'waited.seals', atLeast: 2 }] },
      consumables: ['Oil', 'Grease'],
      asks: [
        tick(
          'rings.again',
          'Every ring looked at and oiled again',
          'o-ring-dry',
          'The rings have waited for days. Oil each again, or it rolls when the joint closes.',
        ),
      ],
    },
    {
      id: 'inside',
      role: 'closes',
      what: 'Everything that belongs inside is inside',
      why: 'What is left on the bench now means opening it again.',
      appliesWhen: REBUILD,
      page: 'row',
      picture: true,
      gates: [
        gate(
          { fact: 'row.inside-left', is: 0 },
          'Parts that belong inside still lie in the row: shims, spacers, washers, springs. Fit them or say why they stay out.',
          'shims-left',
        ),
      ],
      asks: [
        ...(washer
          ? [
              rightOf(
                'inside.washer',
                washer.name,
                { marked: 'in, the way round it was marked', other: 'missing, or the other way round' },
                'marked',
                'A thrust washer that is missing or turned round changes every reading. Take it apart again and put it as it was marked.',
                'washer-wrong',
              ),
            ]
          : []),
        tick('inside.aligned', 'Slots, dowels and shift parts in the position that lets it close'),
      ],
    },
    {
      id: 'close',
      what: carrier ? `Close it: ${carrier.name.toLowerCase()} in` : 'Close it',
      why: 'Straight in, never forced; what does not go is not lined up.',
      appliesWhen: REBUILD,
      school: 'covers',
      asks: [
        ...(carrierKey
          ? [
              rightOf(
                'close.key',
                'The key went in',
                { after: 'after the carrier had started in its bore', before: 'before' },
                'after',
                'With the key in first the carrier jams askew. Draw it, start the carrier, then the key.',
                'key-early',
              ),
            ]
          : []),
        rightOf(
          'close.threads',
          'Threads were started',
          { hand: 'by hand, turned back first until they dropped in', tool: 'with a tool' },
          'hand',
          'A tool does not feel a crossed thread. Back it out and start it by hand.',
          'cross-thread',
        ),
      ],
    },
    {
      id: 'tighten',
      role: 'tightens',
      what: 'Tighten in order and in stages',
      why: 'Snug by hand, half, full, once round to check.',
      appliesWhen: REBUILD,
      school: 'threads',
      tools: ['Torque wrench within 20 to 100 % of its range'],
      asks: [tick('tighten.stages', 'All started by hand, then in stages across, one check pass')],
    },
    ringNut(bench, 'ring-stand'),
    bigNut.length > 0 &&
      wantingStep(bigNut, {
        id: 'ring-stand',
        what: 'Final torque of what closes it, then its lock',
        why: 'Torque first, then the tab; never back to meet it.',
        appliesWhen: REBUILD,
      }),
    {
      id: 'turn-closed',
      what: 'Turn it again, closed',
      why: 'After each closed joint: what binds now was free a moment ago.',
      appliesWhen: REBUILD,
      asks: [
        rightOf(
          'closed.feel',
          'It turns',
          { same: 'as free as before', tight: 'tighter, or with a notch' },
          'same',
          'Tighter than before it closed: a cover drawn down too far crushes its bearing, or something sits askew. Open it.',
          'cover-crushed',
        ),
      ],
    },
  ]).concat(
    inOrder('tight', 'turn-closed', [
      ...unitSteps(sheet),
      bench.leak &&
        leakStep(bench.leak, 'leak-case', {
          what: 'Prove the case tight by itself',
          why: 'Found now it is one joint; found later it is all of them.',
          appliesWhen: FITTED,
        }),
      !bench.leak &&
        tests.length > 0 &&
        wantingStep(tests, {
          id: 'leak-case',
          what: 'Prove the case tight by itself',
          why: 'Found now it is one joint; found later it is all of them.',
          appliesWhen: FITTED,
        }),
    ]),
  )
}
