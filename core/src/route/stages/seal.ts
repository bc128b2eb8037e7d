import type { DriveSheet } from '../../drives/sheet.ts'
import { inOrder, pick, rightOf, tick } from '../make.ts'
import type { Step } from '../route.ts'
import { REBUILD } from './rebuild.ts'

const SPRINGS = {
  'facing each other': 'at each other',
  'both outward': 'both outward',
  'both inward': 'both inward',
}

/** Press, seal and prepare. */
export function sealSteps(sheet: DriveSheet, after: string): Step[] {
  const { bench } = sheet
  const needles = sheet.parts.some((p) => p.kind === 'needle')
  return inOrder('seal', after, [
    {
      id: 'press',
      what: 'Press bearings and races',
      why: 'Square, to the shoulder, on the ring that carries the fit.',
      appliesWhen: REBUILD,
      tools: ['Press', 'Drivers', 'Wood or soft metal'],
      caution:
        'Press: shield in front, never on the ring that does not carry the fit. Hard steel on hard steel splinters.',
      school: 'cups',
      asks: [
        rightOf(
          'press.ring',
          'Pressed on',
          { fit: 'the ring that carries the fit', other: 'the other ring' },
          'fit',
          'Pressed through its rollers a bearing is dented before it has turned. That one is scrap: take a new one.',
          'wrong-ring',
        ),
        ...(bench.raceLetters
          ? [
              rightOf(
                'press.letters',
                'Letters of the races',
                { right: bench.raceLetters, other: 'the other way' },
                'right',
                `The letters belong ${bench.raceLetters}. Draw the race and turn it round.`,
                'race-letters',
              ),
            ]
          : []),
        ...(bench.oilFeed
          ? [
              rightOf(
                'press.oil',
                bench.oilFeed,
                { open: 'open, in line with its passage', covered: 'covered or turned away' },
                'open',
                'A covered feed hole starves the bearing. Draw the cup and line the hole up with its passage.',
                'oil-hole',
              ),
            ]
          : []),
      ],
    },
    needles && {
      id: 'cages',
      what: 'Put the needle cages back as they ran',
      why: 'A run-in cage turned round wears as if it were dirty.',
      appliesWhen: REBUILD,
      school: 'needle-cages',
      asks: [
        rightOf(
          'cages.way',
          'Each cage',
          { same: 'same gear, same end up, by its ink code', new: 'new', guess: 'not known which way' },
          ['same', 'new'],
          'A cage whose way round nobody knows is renewed, with the other one too.',
          'cage-turned',
        ),
      ],
    },
    {
      id: 'seals',
      what: 'Fit the seals',
      why: 'A seal fitted wrong weeps on the first day.',
      appliesWhen: REBUILD,
      place: sheet.seals[0] ? `seal:${sheet.seals[0].id}` : undefined,
      school: 'seal-outside',
      tools: ['Driver that bears on the outer edge'],
      consumables: ['Seal kit', 'Sealant of the sheet', 'Grease'],
      asks: [
        tick('seals.bore', 'Bores clean, no scratch across the path, old seal pulled without touching them'),
        ...(bench.seals.pair
          ? [
              rightOf(
                'seals.order',
                'Of two in one step went in first',
                { small: 'the small one', big: 'the big one' },
                'small',
                'Behind the big seal the small one cannot be driven. Pull the big one (it is scrap) and start with the small one.',
                'big-seal-first',
              ),
            ]
          : []),
        bench.sealSprings === null
          ? pick('seals.springs', 'The springs look (the sheet does not say; as the old ones did)', SPRINGS)
          : rightOf(
              'seals.springs',
              'The springs look',
              SPRINGS,
              bench.sealSprings,
              `On this drive the springs are ${bench.sealSprings}. Turned round, a lip lets through what it should hold.`,
              'seal-springs',
            ),
        tick('seals.packed', 'Space between lips packed with grease, lips greased'),
      ],
    },
    {
      id: 'o-rings',
      role: 'rings-in',
      what: 'Fit the O-rings',
      why: 'Right ring, clean groove, and only one in it.',
      appliesWhen: REBUILD,
      consumables: ['O-rings of the kit', 'Grease'],
      asks: [
        rightOf(
          'rings.grooves',
          'Each groove before its ring went in',
          { empty: 'seen empty and clean', unseen: 'not looked into' },
          'empty',
          'The old ring hides under the new one and holds it out of its groove. Look into every groove.',
          'old-o-ring',
        ),
        tick('rings.order', 'On a shaft with several grooves the largest first'),
        tick('rings.greased', 'Greased thinly'),
      ],
    },
    {
      id: 'pre-lube',
      role: 'ready-to-build',
      what: bench.lubricant === 'oil' ? 'Oil everything that runs' : 'Grease everything that runs',
      why: 'A bearing or clutch that starts dry is worn before the oil arrives.',
      appliesWhen: REBUILD,
      school: 'pre-lube',
      asks: [tick('lube.done', 'Bearings, clutch, thrust faces and shift pivots')],
    },
  ])
}
