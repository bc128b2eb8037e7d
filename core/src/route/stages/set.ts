import { TEMPORARY } from '../../setting/float-recipe.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { bearingMeasures, type SetMeasure } from '../../setting/measures.ts'
import { bySchool, gate, inOrder, listFrom, listOf, mustHold, pick, say } from '../make.ts'
import { lowerFirst } from '../../units/words.ts'
import type { Step } from '../route.ts'
import { does } from './rebuild.ts'
import { attitudeOf } from './attitudes.ts'
import { lackingUnder, wantingStep } from './wanted.ts'

const FLANKS = [
  ['drive', 'drive'],
  ['coast', 'coast'],
] as const

/** What a trial build leaves out or loose on purpose. */
const bearingName = (sheet: DriveSheet, { bearing }: Extract<SetMeasure, { bearing: string }>) =>
  lowerFirst(sheet.bearings.find((b) => b.id === bearing)!.label)

/**
 * Set the gears, in the order of the couplings: what moves another setting comes first. Measuring and stacks live on the Setting page; the route
 * keeps what surrounds them.
 */
export function settingSteps(sheet: DriveSheet): Step[] {
  const geared = sheet.meshes.length > 0
  const noWindow = lackingUnder(sheet, ...sheet.bearings.map((b) => `bearings.${b.id}.setting.newNm`))
  const noCrush = lackingUnder(sheet, ...sheet.bearings.map((b) => `bearings.${b.id}.setting.crushMm`))
  const torques = noWindow.length ? [] : bearingMeasures(sheet).filter((m) => m.kind === 'rolling-torque')
  const crushes = noCrush.length ? [] : bearingMeasures(sheet).filter((m) => m.kind === 'crush')
  const starts = sheet.adjusters
    .filter((a) => a.kind === 'shim')
    .map((a) => `${a.label.toLowerCase()} ${a.startMm} mm`)
  return inOrder('set', undefined, [
    {
      id: 'trial-in',
      needs: ['pre-lube'],
      what: 'Build it up for measuring',
      why: 'A trial build leaves things out or loose on purpose; each has to be undone.',
      appliesWhen: does('set'),
      attitude: attitudeOf(sheet, 'setting'),
      school: 'first-stack',
      instruct: [
        say('Lips and rings stay out: seals go in for good after the last trial.'),
        bySchool('first-stack', 'found', 'Begin with the stacks as found: case and gears stay.'),
        ...(starts.length
          ? [bySchool('first-stack', 'sheet', `Begin with the sheet's stacks: ${starts.join(', ')}.`)]
          : []),
        say(
          'Gauge, arbor and bores wiped, caps oiled: grit reads as depth, a dry cap as drag.',
          'gauge-dirty',
        ),
      ],
      asks: [listOf('trial.in', 'Left out, loose or turned round for now', TEMPORARY)],
    },
    torques.length > 0 && {
      id: 'preload',
      bySelf: true,
      what: `Rolling torque: ${torques.map((m) => bearingName(sheet, m)).join(', ')}`,
      why: 'Too little lets the gear walk, too much cooks the bearing. Before depth and backlash: its stack or spacer moves the gear.',
      appliesWhen: does('set.rolling-torque'),
      page: 'setting',
      place: torques[0]!.id,
      figuresAt: torques.map((m) => `bearings.${m.bearing}`),
      tools: ['Indicating torque wrench, or spring scale and string'],
      instruct: [
        say(
          'Gears out of mesh. Turn it several times, then read while it turns slowly and evenly: the peak at the start is no rolling torque.',
          'breakaway',
        ),
        torques.some((m) => m.kind === 'rolling-torque' && m.nut === 'sleeve')
          ? say(
              'A new crush sleeve under the nut: turn it on a little at a time and read after each; it is never turned back.',
            )
          : say('Change its stack or spacer where it is off; a nut is never backed off to hit a number.'),
      ],
      gates: torques.map((m) =>
        gate(
          {
            any: [
              { fact: `setting.set.${m.id}`, is: true },
              { fact: 'setting.accepted', is: true },
            ],
          },
          `${m.label}: not read in its window in the newest build, nor accepted with a reason. Read it in Setting.`,
        ),
      ),
      asks: [],
    },
    noWindow.length > 0 &&
      wantingStep(noWindow, {
        id: 'preload',
        what: 'Rolling torque of the bearings',
        why: 'Too little lets the gear walk, too much cooks the bearing.',
        appliesWhen: does('set.rolling-torque'),
      }),
    {
      id: 'set-gears',
      bySelf: true,
      what: geared ? 'Set depth and backlash' : 'Measure end play',
      why: 'What is wrong here costs the whole teardown again.',
      appliesWhen: does('set.gears'),
      place: sheet.measures[0] ? `measure:${sheet.measures[0].id}` : undefined,
      page: 'setting',
      figuresAt: ['measures'],
      school: 'pinion-place',
      instruct: geared
        ? [
            bySchool(
              'pinion-place',
              'gauge',
              'Depth by the gauge first, then backlash; the pattern confirms both.',
            ),
            bySchool(
              'pinion-place',
              'pattern',
              'Depth by the pattern: read it after every round, and let it have the last word.',
            ),
            bySchool(
              'pinion-place',
              'ride',
              'No number is known: search the ride height, smallest change of backlash over the stack (Sums).',
            ),
            bySchool(
              'backlash-target',
              'by-gears',
              'Backlash in the low third with new gears, in the middle with run-in ones.',
            ),
            bySchool('backlash-target', 'middle', 'Backlash in the middle of its window.'),
          ]
        : [],
      gates: [
        gate(
          {
            any: [
              { fact: 'setting.all-in', is: true },
              { fact: 'setting.accepted', is: true },
            ],
          },
          'No build since the case was bare has every measure inside its limits: measure and decide in Setting. What was read before that is how it was found: build it up again in Setting and measure.',
        ),
      ],
      asks: [],
    },
    noCrush.length > 0 &&
      wantingStep(noCrush, {
        id: 'crush',
        what: 'Crush of the bearing under the cover',
        why: 'Under the cover the ring must be held, and not squeezed.',
        appliesWhen: does('set.crush'),
      }),
    crushes.length > 0 && {
      id: 'crush',
      bySelf: true,
      what: `Crush: ${crushes.map((m) => bearingName(sheet, m)).join(', ')}`,
      why: 'Under the cover the ring must be held, and not squeezed.',
      appliesWhen: does('set.crush'),
      page: 'setting',
      place: crushes[0]!.id,
      figuresAt: crushes.map((m) => `bearings.${m.bearing}`),
      tools: ['Feelers, three or four places', 'Indicator'],
      gates: crushes.map((m) =>
        gate(
          {
            any: [
              { fact: `setting.set.${m.id}`, is: true },
              { fact: 'setting.accepted', is: true },
            ],
          },
          `${m.label}: the gap or the float of the newest build does not show it, and nobody accepted it with a reason. Read it in Setting.`,
        ),
      ),
      asks: [],
    },
    geared && {
      id: 'pattern',
      what: 'Read the contact pattern on both flanks',
      why: 'It is a witness that shares no error with the gauge.',
      appliesWhen: does('set.mesh'),
      school: 'pattern',
      page: 'contact',
      consumables: ['Marking compound'],
      instruct: [
        bySchool(
          'pattern',
          'braked',
          'A few turns each way, the output braked lightly so that the flanks stay in touch.',
        ),
        bySchool('pattern', 'unloaded', 'A few turns each way, unloaded, compound thin on the gear.'),
      ],
      counts: [
        gate(
          { fact: 'pattern.sits', is: true },
          'Off the middle. Top or root on both flanks: the pinion stands out of depth, and on spiral teeth it goes to opposite ends as well; that is a shim. Toe or heel on both: the gear. Opposite ends and no shift up or down: look at case, seats and pairing. Sums, Pattern, reads both flanks into millimetres.',
        ),
      ],
      asks: sheet.meshes.flatMap((m) =>
        FLANKS.map(([flank, label]) =>
          pick(
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
          ),
        ),
      ),
    },
    {
      id: 'accept',
      bySelf: true,
      what: 'Accept it as built',
      why: 'Stacks and readings of this build go into the record as the ones that stay.',
      appliesWhen: does('set'),
      page: 'setting',
      gates: [
        gate(
          { fact: 'setting.accepted', is: true },
          'Nothing is accepted as built since the case was bare. Accept the newest build in Setting, or go round again.',
        ),
      ],
      asks: [],
    },
    {
      id: 'turn',
      what: 'Turn it by hand through many turns',
      why: 'Fingers feel what no gauge reads.',
      appliesWhen: does('set'),
      counts: [
        gate(
          { fact: 'turn.feel', is: 'free' },
          'Something is not seated or too tight. Find it now, then turn it again.',
        ),
      ],
      asks: [
        pick('turn.feel', 'It turns', {
          free: 'free, even and quiet',
          binds: 'with a bind, a notch or a scrape',
        }),
      ],
    },
    {
      id: 'trial-out',
      what: 'Undo the trial build',
      why: 'What was left out for measuring leaks or falls off later.',
      appliesWhen: does('set'),
      instruct: [say('Locks and threadlocker now as for good. Lips and rings follow next.')],
      asks: [
        mustHold(
          listFrom('trial.out', 'Undone, or about to be fitted for good', { of: 'answer', fact: 'trial.in' }),
          { fact: 'trial.out', sameAs: 'trial.in' },
          'Not all that was put in is undone: a ring left out, a bolt finger-tight or a guide still fitted. Find it.',
          'trial-state',
        ),
      ],
    },
  ])
}
