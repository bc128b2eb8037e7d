import type { DriveSheet } from '../../drives/sheet.ts'
import { gate, inOrder, mustHold, number, pick, rightOf, tick } from '../make.ts'
import type { Step } from '../route.ts'
import { REBUILD } from './rebuild.ts'

/** Set the gears: measuring and stacks live on the Setting page; the route keeps what surrounds them. */
export function settingSteps(sheet: DriveSheet, after: string): Step[] {
  const geared = sheet.meshes.length > 0
  const torque = sheet.bearings.find((b) => b.setting?.kind === 'rolling-torque')
  const crushed = sheet.bearings.find((b) => b.setting?.kind === 'crush')
  const window = torque?.setting?.kind === 'rolling-torque' ? torque.setting.newNm : undefined
  return inOrder('set', after, [
    {
      id: 'trial-in',
      what: 'Build it up for measuring',
      why: 'A trial build leaves things out or loose on purpose; each has to be undone.',
      appliesWhen: REBUILD,
      asks: [
        number('trial.in', 'Temporary states put in (rings left out, bolts finger-tight, guides fitted)', ''),
        rightOf(
          'gauge.clean',
          'Gauge, arbor and bores',
          { clean: 'wiped, caps oiled', unsure: 'not sure' },
          'clean',
          'Grit under an arbor reads as depth, a dry cap as drag. Wipe and oil, then measure.',
          'gauge-dirty',
        ),
      ],
    },
    {
      id: 'set-gears',
      what: geared ? 'Set depth and backlash' : 'Measure end play',
      why: 'What is wrong here costs the whole teardown again.',
      appliesWhen: REBUILD,
      place: sheet.measures[0] ? `measure:${sheet.measures[0].id}` : undefined,
      page: 'setting',
      school: 'pinion-place',
      gates: [
        gate(
          { fact: 'setting.accepted', is: true },
          'Nothing is accepted as built yet: measure and decide in Setting.',
        ),
      ],
      asks: [],
    },
    torque !== undefined && {
      id: 'preload',
      what: `Rolling torque of the ${torque.label.toLowerCase()}`,
      why: 'Too little lets the gear walk, too much cooks the bearing.',
      appliesWhen: REBUILD,
      place: `bearing:${torque.id}`,
      tools: ['Indicating torque wrench, or spring scale and string'],
      asks: [
        pick('preload.bearings', 'The bearings are', { new: 'new', 'run-in': 'run in' }),
        rightOf(
          'preload.moving',
          'Read',
          { moving: 'while it turned slowly and evenly', start: 'as it broke loose' },
          'moving',
          'The peak at the start is not the rolling torque. Turn it several times, then read while it moves.',
          'breakaway',
        ),
        number('preload.seals', 'Drag of the seals alone', 'Nm', { quantity: 'torque', max: 20 }),
        {
          ...number(
            'preload.read',
            `Rolling torque read (window ${window?.min} to ${window?.max} Nm without seals, new)`,
            'Nm',
            {
              quantity: 'torque',
              max: 50,
            },
          ),
          must: { fact: 'preload.in', is: true },
          wrong:
            'Not in the window once the seals are taken off. Change the stack or spacer; a nut is never backed off to hit a number.',
        },
      ],
    },
    crushed !== undefined && {
      id: 'crush',
      what: `Crush of the ${crushed.label.toLowerCase()}`,
      why: 'Under the cover the ring must be held, and not squeezed.',
      appliesWhen: REBUILD,
      place: `bearing:${crushed.id}`,
      tools: ['Feelers, three or four places', 'Indicator'],
      asks: [
        number('crush.trial', 'Trial stack', 'mm', { quantity: 'length', max: 5 }),
        pick('crush.read-as', 'Read as', { gap: 'gap under the cover', float: 'float of the bearing' }),
        number('crush.gap', 'Gap or float', 'mm', { quantity: 'length', max: 3 }),
        mustHold(
          number('crush.fitted', 'Stack fitted', 'mm', { quantity: 'length', max: 5 }),
          { fact: 'crush.right', is: true },
          'Not the stack that gives the wanted crush: thicker squeezes the bearing or lifts the cover, thinner lets it float. The computed one stands below.',
        ),
      ],
    },
    geared && {
      id: 'pattern',
      what: 'Read the contact pattern on both flanks',
      why: 'It is a witness that shares no error with the gauge.',
      appliesWhen: REBUILD,
      school: 'pattern',
      consumables: ['Marking compound'],
      asks: [
        rightOf(
          'pattern.seen',
          'Drive and coast',
          {
            centred: 'in the middle, or a little toward the toe',
            off: 'toward an end, top or root',
            crossed: 'toe on one, heel on the other',
            edge: 'a line at the edge',
          },
          'centred',
          'Off the middle: move the part that Sums, Pattern names, and measure again. Crossed or on the edge: no shim mends that; do not close it.',
        ),
      ],
    },
    {
      id: 'turn',
      what: 'Turn it by hand through many turns',
      why: 'Fingers feel what no gauge reads.',
      appliesWhen: REBUILD,
      asks: [
        rightOf(
          'turn.feel',
          'It turns',
          { free: 'free, even and quiet', binds: 'with a bind, a notch or a scrape' },
          'free',
          'Something is not seated or too tight. Find it now.',
        ),
      ],
    },
    {
      id: 'trial-out',
      what: 'Undo the trial build',
      why: 'What was left out for measuring leaks or falls off later.',
      appliesWhen: REBUILD,
      asks: [
        mustHold(
          number('trial.out', 'Temporary states undone', ''),
          { fact: 'trial.out', sameAs: 'trial.in' },
          'Not as many undone as put in: a ring left out, a bolt finger-tight or a guide still fitted. Find it.',
          'trial-state',
        ),
        tick('trial.locked', 'Locks and threadlocker now as for good'),
      ],
    },
  ])
}
