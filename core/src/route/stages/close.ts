import type { DriveSheet } from '../../drives/sheet.ts'
import { gate, inOrder, number, pick, rightOf, tick } from '../make.ts'
import type { Ask, Step } from '../route.ts'
import { leakStep } from './leak-steps.ts'
import { REBUILD } from './rebuild.ts'

/** A torque that may have gone through an adapter. */
export function torqueAsks(at: string, what: string, window: { min?: number; max?: number }): Ask[] {
  return [
    pick(`${at}.adapter`, 'Through an adapter', {
      none: 'none',
      square: 'square to the wrench',
      straight: 'straight out',
    }),
    number(`${at}.wrench`, 'Straight adapter: drive to grip', 'mm', {
      quantity: 'length',
      max: 3000,
      optional: true,
    }),
    number(`${at}.offset`, 'Straight adapter: drive to fastener', 'mm', {
      quantity: 'length',
      max: 500,
      optional: true,
    }),
    {
      ...number(
        `${at}.setting`,
        `${what}: wrench set to (${window.min} to ${window.max} Nm at the fastener)`,
        'Nm',
        {
          quantity: 'torque',
          max: 2000,
        },
      ),
      must: { fact: `${at}.torque-in`, is: true },
      wrong: `What arrives at the fastener is outside ${window.min} to ${window.max} Nm. A straight adapter lengthens the arm: set the wrench lower, by L / (L + E).`,
      slip: 'adapter-plain',
    },
  ]
}

/** What must be inside before it closes, then closing, locking, and the first proof that it is tight. */
export function closeSteps(sheet: DriveSheet, after: string): Step[] {
  const { bench } = sheet
  const carrier = sheet.parts.find((p) => p.role === 'carrier')
  const carrierKey = sheet.parts.find((p) => p.role === 'carrier-key')
  const washer = sheet.parts.find((p) => p.kind === 'washer')
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
        ...(bench.captive
          ? [
              rightOf(
                'inside.captive',
                `${bench.captive} (goes in only while it is apart)`,
                { in: 'is in', not: 'not yet' },
                'in',
                `${bench.captive} can only go in now. Once it is joined there is no room.`,
                'captive-bolt',
              ),
            ]
          : []),
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
      what: 'Tighten in order and in stages, then lock',
      why: 'Snug by hand, half, full, once round to check.',
      appliesWhen: REBUILD,
      place: bench.leftHand?.place,
      school: 'threads',
      tools: ['Torque wrench within 20 to 100 % of its range'],
      asks: [
        tick('tighten.stages', 'All started by hand, then in stages across, one check pass'),
        ...(bench.lockTabs
          ? [
              ...torqueAsks('close', bench.lockTabs.what, bench.lockTabs.torqueNm),
              rightOf(
                'tighten.meet',
                'To meet its tab the nut was',
                { on: 'turned on, or met at once', back: 'backed off' },
                'on',
                'A nut backed off to meet a tab has lost its clamp. Turn it on to the next slot, or change the washer.',
                'nut-back',
              ),
              {
                ...number('tighten.tabs', `Tabs bent into slots (this drive: ${bench.lockTabs.tabs})`, ''),
                must: { fact: 'tighten.tabs', atLeast: bench.lockTabs.tabs } as const,
                wrong: `The sheet asks for ${bench.lockTabs.tabs}. Turn on to where enough of them meet, or fit another washer.`,
                slip: 'few-tabs' as const,
              },
            ]
          : []),
      ],
    },
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
      leakStep(sheet, 'leak-case', {
        what: 'Prove the case tight by itself',
        why: 'Found now it is one joint; found later it is all of them.',
        appliesWhen: REBUILD,
      }),
    ]),
  )
}
