import type { DriveSheet } from '../../drives/sheet.ts'
import { bySchool, inOrder, pick, say, seen } from '../make.ts'
import type { Step } from '../route.ts'
import { does } from './rebuild.ts'

/** Press bearings and races, put cages back, wet what runs. */
export function pressSteps(sheet: DriveSheet): Step[] {
  const { bench } = sheet
  const needles = sheet.parts.some((p) => p.kind === 'needle')
  const letters = bench.raceLetters || bench.oilFeed
  return inOrder('press', undefined, [
    {
      id: 'press',
      needs: ['parts-in', 'shims', 'approve'],
      what: 'Press bearings and races',
      why: 'Square, to the shoulder, on the ring that carries the fit.',
      appliesWhen: does('fit.pressed'),
      tools: ['Press', 'Drivers', 'Wood or soft metal'],
      caution:
        'Press: shield in front, never on the ring that does not carry the fit. Hard steel on hard steel splinters. A heated bush cools before rubber goes near it.',
      school: 'cups',
      holdPoint: !!letters,
      instruct: [
        say(
          'Push only on the ring that carries the fit: pressed through its rollers a bearing is dented before it has turned.',
          'wrong-ring',
        ),
        ...(bench.raceLetters ? [say(`Letters of the races: ${bench.raceLetters}.`, 'race-letters')] : []),
        ...(bench.oilFeed
          ? [
              say(
                `${bench.oilFeed}: open, in line with its passage. Covered it starves the bearing.`,
                'oil-hole',
              ),
            ]
          : []),
        bySchool('cups', 'renew', 'Cups go in new with their bearings.'),
        say('An old nut on the end protects a thread that is pressed or hammered on.'),
      ],
      asks: letters
        ? [
            seen(
              'press',
              [
                bench.raceLetters && 'which way the letters look',
                bench.oilFeed && 'where the oil hole stands',
              ]
                .filter(Boolean)
                .join(', '),
            ),
          ]
        : [],
    },
    needles && {
      id: 'cages',
      needs: ['press'],
      what: 'Needle cages back as they ran',
      why: 'A run-in cage turned round wears as if it were dirty.',
      appliesWhen: does('fit.needle'),
      school: 'needle-cages',
      instruct: [
        say('Same gear, same end up, by its ink code.', 'cage-turned'),
        bySchool('needle-cages', 'renew', 'In doubt both are new: a cage costs less than an opening.'),
      ],
      asks: [
        pick('cages.way', 'The cages are', {
          same: 'the old ones, the way round their ink says',
          new: 'new',
          both: 'new, since nobody knew which way they ran',
        }),
      ],
    },
    {
      id: 'pre-lube',
      needs: ['cages', 'press'],
      role: 'ready-to-build',
      what: bench.lubricant === 'oil' ? 'Wet everything that runs' : 'Grease everything that runs',
      why: 'A bearing or clutch that starts dry is worn before the oil arrives.',
      appliesWhen: does('fit.inside'),
      school: 'pre-lube',
      instruct: [
        bySchool('pre-lube', 'oil', 'Gear oil on bearings, clutch, thrust faces and shift pivots.'),
        bySchool(
          'pre-lube',
          'grease',
          'Grease on bearings, clutch, thrust faces and shift pivots: it stays while the case waits.',
        ),
      ],
    },
  ])
}
