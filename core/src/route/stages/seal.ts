import { edgesOf } from '../../drives/graph/edges.ts'
import type { Graph, SealFit } from '../../drives/graph/rows.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { bySchool, inOrder, pick, say, seen } from '../make.ts'
import type { Condition } from '../facts.ts'
import type { Instruct, Step } from '../route.ts'
import { partClass } from '../step-acts.ts'
import { does } from './rebuild.ts'

const SPRINGS = {
  'facing each other': 'at each other',
  'both outward': 'both outward',
  'both inward': 'both inward',
}
/** Minutes that a retaining compound is given before oil or pressure meets it. */
const CURE_MIN = 60

const ORDER = ['first in', 'second in', 'third in', 'fourth in']

/** A seal is said where this job fits it; one of which nobody has said which part it is, always. */
function ifFitted({ part }: SealFit): Condition | undefined {
  const parts = edgesOf(part)
  return parts.length ? does(...parts.map((p) => `fit.${partClass(p)}`)) : undefined
}

/** Two in one bore are told apart by their size; where both are of one size there is no small one. */
function differInSize({ sealFits = [], sealPairs = [] }: Graph): boolean {
  const parts = edgesOf(sealPairs[0]?.part)
  const sizes = sealFits.filter((f) => edgesOf(f.part).some((p) => parts.includes(p))).map((f) => f.size)
  return sizes.length < 2 || sizes.includes(undefined) || new Set(sizes).size > 1
}

const detail = (d: SealFit): string =>
  [
    `${d.name}: ${d.size ?? 'size as the old one'}`,
    d.order && (ORDER[d.order - 1] ?? `${d.order}th in`),
    d.springs && `spring ${d.springs === 'outward' ? 'to the water' : 'to the oil'}`,
    d.depth && `driven ${d.depth}`,
    d.film,
  ]
    .filter(Boolean)
    .join(', ')

/** Lips and rings, for good: after the last trial build. */
export function sealSteps(sheet: DriveSheet): Step[] {
  const { graph } = sheet
  const details = graph.sealFits ?? []
  const turning = details.filter((d) => d.moves === 'turns' && d.at === 'shaft')
  const springs = graph.sealPairs?.[0]?.springs
  const shared: Instruct[] = [
    say('Bore clean, no scratch across the path; the old one pulled without touching it.'),
    ...(graph.sealPairs?.[0]?.sharedStep && differInSize(graph)
      ? [
          say(
            'Two in one step: the small one first. Behind the big one it cannot be driven.',
            'big-seal-first',
          ),
        ]
      : []),
    ...(springs === undefined
      ? []
      : [
          say(
            `The springs on this drive: ${springs}. Turned round, a lip lets through what it should hold.`,
            'seal-springs',
          ),
        ]),
    ...turning.map((d) => say(`${detail(d)}.`, undefined, ifFitted(d))),
    bySchool('seal-outside', 'sealant', 'Outside with a thin film of sealant.'),
    bySchool(
      'seal-outside',
      'retaining',
      `Outside with retaining compound: it cures ${CURE_MIN} min before pressure.`,
    ),
    bySchool('seal-outside', 'dry', 'Outside dry.'),
    bySchool('seals', 'disturbed', 'Lips that were not disturbed stay as they are; the record says so.'),
    say('Driver on the outer edge only, square; space between the lips packed with grease, lips greased.'),
  ]
  return inOrder('seal', undefined, [
    {
      id: 'seals',
      needs: ['trial-out', 'pre-lube', 'parts-in'],
      what: 'Fit the seals',
      why: 'A seal fitted wrong weeps on the first day. They go in for good now, after the last trial.',
      appliesWhen: does('renew.seal', 'fit.seal'),
      place: sheet.seals[0] ? `seal:${sheet.seals[0].id}` : undefined,
      school: 'seal-outside',
      holdPoint: true,
      waits: { kind: 'cure', minutes: CURE_MIN, when: { fact: 'school.seal-outside', is: 'retaining' } },
      tools: ['Driver that bears on the outer edge'],
      consumables: ['Seal kit', 'Sealant of the sheet', 'Grease'],
      instruct: shared,
      asks: [
        ...(springs === null
          ? [pick('seals.springs', 'The springs look (the sheet does not say; as the old ones did)', SPRINGS)]
          : []),
        seen('seals', 'which way the springs look, and that they are square'),
      ],
    },
    {
      id: 'o-rings',
      role: 'rings-in',
      // rings are not pressed: they go in while a compound on the lips still cures
      needs: ['trial-out', 'pre-lube', 'parts-in'],
      what: 'Fit the O-rings',
      why: 'Right ring, clean groove, and only one in it.',
      appliesWhen: does('renew.ring', 'fit.ring'),
      holdPoint: true,
      consumables: ['O-rings of the kit', 'Grease'],
      instruct: [
        say('Look into every groove before its ring: the old one hides under the new one.', 'old-o-ring'),
        say(
          'On a shaft with several grooves the largest first, so that the smaller ones roll over it. Greased thinly.',
        ),
        ...details
          .filter((d) => d.moves !== 'turns' && d.size)
          .map((d) => say(`${d.name}: ${d.size}.`, undefined, ifFitted(d))),
      ],
      asks: [seen('o-rings', 'empty, clean grooves before the rings went in')],
    },
    {
      id: 'oil-again',
      needs: ['o-rings'],
      what: 'Oil the O-rings again',
      why: 'A ring that dried for days rolls and cuts when it goes in.',
      appliesWhen: { all: [does('renew.ring'), { fact: 'waited.seals', atLeast: 2 }] },
      consumables: ['Oil', 'Grease'],
      instruct: [say('The rings have waited for days: look at every one and oil it again.', 'o-ring-dry')],
    },
  ])
}
