import type { DriveSheet } from '../../drives/sheet.ts'
import type { Window } from '../../measuring/window.ts'
import { showOther } from '../../units/format.ts'
import { gate, inOrder, mustHold, number, pick, rightOf, tick } from '../make.ts'
import type { Step } from '../route.ts'
import { REBUILD } from './rebuild.ts'
import { lackingUnder, wantingStep } from './wanted.ts'

const FLANKS = [
  ['drive', 'drive'],
  ['coast', 'coast'],
] as const

/** Windows of a rolling torque: new bearings, and run-in ones where the sheet knows them. */
function windowWords({ newNm, runInNm }: { newNm: Window; runInNm?: Window }): string {
  const other = (v: number) => showOther(v, 'Nm').replace(/ .*/, '')
  const span = ({ min = 0, max = 0 }: Window) => `${min} to ${max} Nm (${other(min)} to ${other(max)} in-lb)`
  return runInNm ? `new ${span(newNm)}, run in ${span(runInNm)},` : `${span(newNm)}`
}

/** Set the gears: measuring and stacks live on the Setting page; the route keeps what surrounds them. */
export function settingSteps(sheet: DriveSheet, after: string): Step[] {
  const geared = sheet.meshes.length > 0
  const noWindow = lackingUnder(sheet, ...sheet.bearings.map((b) => `bearings.${b.id}.setting.newNm`))
  const noCrush = lackingUnder(sheet, ...sheet.bearings.map((b) => `bearings.${b.id}.setting.crushMm`))
  const loaded = sheet.bearings.flatMap((b) =>
    b.setting?.kind === 'rolling-torque' && !noWindow.length ? [{ ...b, setting: b.setting }] : [],
  )
  const crushed = noCrush.length ? undefined : sheet.bearings.find((b) => b.setting?.kind === 'crush')
  const crushStack = sheet.adjusters.find((a) => a.setBy === 'crush')
  return inOrder('set', after, [
    {
      id: 'trial-in',
      what: 'Build it up for measuring',
      why: 'A trial build leaves things out or loose on purpose; each has to be undone.',
      appliesWhen: REBUILD,
      asks: [
        number(
          'trial.in',
          'Temporary states put in (rings left out, bolts finger-tight, guides fitted)',
          '',
          { whole: true, max: 200 },
        ),
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
    loaded.length > 0 && {
      id: 'preload',
      what: `Rolling torque: ${loaded.map((b) => b.label.toLowerCase()).join(', ')}`,
      why: 'Too little lets the gear walk, too much cooks the bearing. Before depth and backlash, with the gears out of mesh: its stack or spacer moves the gear.',
      appliesWhen: REBUILD,
      place: `bearing:${loaded[0]!.id}`,
      tools: ['Indicating torque wrench, or spring scale and string'],
      figures: loaded.flatMap((b) => [
        { label: `${b.label}: has to read at least`, fact: `preload.${b.id}.from`, unit: 'Nm' },
        { label: `${b.label}: at most, seals included`, fact: `preload.${b.id}.to`, unit: 'Nm' },
        { label: `${b.label} without seals`, fact: `preload.${b.id}.net`, unit: 'Nm' },
      ]),
      asks: [
        rightOf(
          'preload.moving',
          'Read',
          { moving: 'while it turned slowly and evenly', start: 'as it broke loose' },
          'moving',
          'The peak at the start is not the rolling torque. Turn it several times, then read while it moves.',
          'breakaway',
        ),
        ...loaded.flatMap((b) => [
          pick(`preload.${b.id}.bearings`, `${b.label}: the bearings are`, {
            new: 'new',
            'run-in': 'run in',
          }),
          number(
            `preload.${b.id}.seals`,
            `${b.label}: drag of the seals alone (0 before they are in)`,
            'Nm',
            {
              quantity: 'torque',
              max: 20,
            },
          ),
          mustHold(
            number(
              `preload.${b.id}.read`,
              `${b.label}: rolling torque, ${windowWords(b.setting)} without seals`,
              'Nm',
              {
                quantity: 'torque',
                max: 50,
              },
            ),
            { fact: `preload.${b.id}.in`, is: true },
            'Not in the window once the seals are taken off. Change the stack or spacer; a nut is never backed off to hit a number.',
          ),
        ]),
      ],
    },
    noWindow.length > 0 &&
      wantingStep(noWindow, {
        id: 'preload',
        what: 'Rolling torque of the bearings',
        why: 'Too little lets the gear walk, too much cooks the bearing.',
        appliesWhen: REBUILD,
      }),
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
          'Nothing is accepted as built since the case was bare: measure and decide in Setting. What was read before that is how it was found: build it up again in Setting and measure.',
        ),
      ],
      asks: [],
    },
    noCrush.length > 0 &&
      wantingStep(noCrush, {
        id: 'crush',
        what: 'Crush of the bearing under the cover',
        why: 'Under the cover the ring must be held, and not squeezed.',
        appliesWhen: REBUILD,
      }),
    crushed !== undefined && {
      id: 'crush',
      what: `Crush of the ${crushed.label.toLowerCase()}`,
      why: 'Under the cover the ring must be held, and not squeezed.',
      appliesWhen: REBUILD,
      place: `bearing:${crushed.id}`,
      tools: ['Feelers, three or four places', 'Indicator'],
      figures: [
        { label: 'Stack for the wanted crush', fact: 'crush.stack', unit: 'mm' },
        ...(crushStack ? [{ label: `${crushStack.label} as built`, fact: 'crush.built', unit: 'mm' }] : []),
      ],
      asks: [
        number('crush.trial', 'Trial stack', 'mm', { quantity: 'length', max: 5 }),
        pick('crush.read-as', 'Read as', { gap: 'gap under the cover', float: 'float of the bearing' }),
        crushStack
          ? mustHold(
              number('crush.gap', 'Gap or float', 'mm', { quantity: 'length', max: 3 }),
              { fact: 'crush.right', is: true },
              `As built holds another stack than this gap asks for. Take the computed one as the ${crushStack.label.toLowerCase()} of a new round in Setting, measure again, accept it, then close this step.`,
            )
          : number('crush.gap', 'Gap or float', 'mm', { quantity: 'length', max: 3 }),
        ...(crushStack
          ? []
          : [
              mustHold(
                number('crush.fitted', 'Stack fitted', 'mm', { quantity: 'length', max: 5 }),
                { fact: 'crush.right', is: true },
                'Not the stack that gives the wanted crush: thicker squeezes the bearing or lifts the cover, thinner lets it float.',
              ),
            ]),
      ],
    },
    geared && {
      id: 'pattern',
      what: 'Read the contact pattern on both flanks',
      why: 'It is a witness that shares no error with the gauge.',
      appliesWhen: REBUILD,
      school: 'pattern',
      consumables: ['Marking compound'],
      asks: sheet.meshes.flatMap((m) =>
        FLANKS.map(([flank, label]) =>
          rightOf(
            `pattern.${m.id}.${flank}`,
            sheet.meshes.length > 1
              ? `${m.label}, ${label} side`
              : `${label[0]!.toUpperCase()}${label.slice(1)} side`,
            {
              centred: 'in the middle',
              'near-toe': 'middle, a little toward the toe',
              toe: 'toward the toe',
              heel: 'toward the heel',
              top: 'toward the top',
              root: 'toward the root',
              edge: 'a line at an edge',
            },
            ['centred', 'near-toe'],
            'Off the middle. Top or root on both flanks: the pinion stands out of depth, and on spiral teeth it goes to opposite ends as well; that is a shim. Toe or heel on both: the gear. Opposite ends and no shift up or down: look at case, seats and pairing. Sums, Pattern, reads both flanks into millimetres. A line at an edge does not close.',
          ),
        ),
      ),
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
          number('trial.out', 'Temporary states undone', '', { whole: true, max: 200 }),
          { fact: 'trial.out', sameAs: 'trial.in' },
          'Not as many undone as put in: a ring left out, a bolt finger-tight or a guide still fitted. Find it.',
          'trial-state',
        ),
        tick('trial.locked', 'Locks and threadlocker now as for good'),
      ],
    },
  ])
}
