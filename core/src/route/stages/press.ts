import { lubricantOf, wayOf } from '../../drives/graph/unit-facts.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { bySchool, inOrder, pick, say, seen } from '../make.ts'
import type { Step } from '../route.ts'
import { does } from './rebuild.ts'

/** Press bearings and races, put cages back, wet what runs. */
export function pressSteps(sheet: DriveSheet): Step[] {
  const { graph } = sheet
  const [races, oilFeed] = [wayOf(graph, 'race-letters'), wayOf(graph, 'oil-feed')]
  const needles = sheet.parts.some((p) => p.kind === 'needle')
  const letters = races || oilFeed
  return inOrder('press', undefined, [
    {
      id: 'press',
      needs: ['parts-in', 'shims', 'approve'],
      what: 'Press bearings and races',
      why: 'Square, to the shoulder, on the ring that carries the fit.',
      appliesWhen: does('fit.pressed'),
      tools: ['Press', 'Drivers', 'Wood or soft metal'],
      school: 'cups',
      holdPoint: !!letters,
      instruct: [
        say(
          'Push only on the ring that carries the fit: pressed through its rollers a bearing is dented before it has turned.',
          'wrong-ring',
        ),
        ...(races ? [say(`Letters of the races: ${races}.`, 'race-letters')] : []),
        ...(oilFeed
          ? [say(`${oilFeed}: open, in line with its passage. Covered it starves the bearing.`, 'oil-hole')]
          : []),
        bySchool('cups', 'renew', 'Cups go in new with their bearings.'),
        say('An old nut on the end protects a thread that is pressed or hammered on.'),
      ],
      asks: letters
        ? [
            seen(
              'press',
              [races && 'which way the letters look', oilFeed && 'where the oil hole stands']
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
      what: lubricantOf(graph) === 'oil' ? 'Wet everything that runs' : 'Grease everything that runs',
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
