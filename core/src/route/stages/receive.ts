import { caseTest, joinedTest, lubricantOf, propellerHeld } from '../../drives/graph/unit-facts.ts'
import { edgesOf } from '../../drives/graph/edges.ts'
import type { Graph, Tool } from '../../drives/graph/rows.ts'
import { INPUT_JOINT } from '../../drives/families.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { volumeInWords } from '../../units/format.ts'
import { bySchool, inGear, inOrder, number, pick, say, text, type StepDraft } from '../make.ts'
import type { Condition } from '../facts.ts'
import type { Instruct, Step } from '../route.ts'
import { findPlace } from './find-place.ts'
import { leakStep } from './leak-steps.ts'
import { does, inMode, OPENS, WHOLE } from './rebuild.ts'
import { strikeSteps } from './strike.ts'
import { partClass } from '../step-acts.ts'
import { alsoAsks, lackingUnder, wantingStep } from './wanted.ts'

/** What it has been through tells where to look; a test, and what was worked on elsewhere, need none of it. */
const PAST: Condition = { not: inMode('test', 'refit', 'unit') }
/** The case tells most before it is opened. */
const AS_FOUND: Condition = {
  all: [WHOLE, { any: [OPENS, inMode('look', 'test')] }],
}

/** Receive and identify: what it is, what it complains of, and what it tells while it is still together. */
/** What the sheet's intervals say for the water of this job. */
function dueLines(sheet: DriveSheet): Instruct[] {
  const every = (months: number | undefined, hours: number | undefined) =>
    [months && `every ${months} ${months === 1 ? 'month' : 'months'}`, hours && `every ${hours} h`]
      .filter(Boolean)
      .join(' or ')
  return (sheet.service ?? []).flatMap(({ what, months, hours, saltMonths }) => {
    const [plain, salt] = [every(months, hours), every(saltMonths ?? months, hours)]
    if (plain === salt || !salt) return plain ? [say(`${what}: ${plain}.`)] : []
    return [
      say(`${what}: ${salt}, in this water.`, undefined, SALTY),
      say(`${what}: ${plain}.`, undefined, { not: SALTY }),
    ]
  })
}
const SALTY: Condition = { fact: 'job.water', oneOf: ['salt', 'brackish'] }

/** A tool is laid out where the job touches what it is for; one of which nobody has said that, always. */
function forWhat(graph: Graph, tool: Tool): Condition | undefined {
  const acts = edgesOf(tool.for).flatMap((id) =>
    graph.groups?.some((g) => g.id === id)
      ? [`loosen.${id}`, `take-out.${id}`, `tighten.${id}`]
      : [`remove.${partClass(id)}`, `fit.${partClass(id)}`],
  )
  return acts.length ? does(...acts) : undefined
}

export function receiveSteps(sheet: DriveSheet): Step[] {
  const { graph, further } = sheet
  const stamps = sheet.ratio?.stamps ?? []
  const geared = sheet.meshes.length > 0
  const asFound = sheet.measures.filter((m) => m.kind !== 'depth')
  const tests = lackingUnder(sheet, 'tests.case', 'spaces.case.volumeMl')
  const oil = lubricantOf(graph) === 'oil'
  // on the boat the two cases are one space: one of them cannot be tested alone
  const both = joinedTest(graph)
  const alone = caseTest(graph)
  const joined: Condition = { fact: 'job.mounted', is: true }
  const asFoundTest: Omit<StepDraft, 'id'> = {
    what: 'Leak test as found, before opening',
    why: 'It shows where to look, and is the before to the after.',
    // where the place of a leak had to be found, it has been tested
    appliesWhen: { all: [AS_FOUND, { not: does('know.place') }, ...(both ? [{ not: joined }] : [])] },
    needs: ['drain'],
  }
  return inOrder('receive', undefined, [
    {
      id: 'receive',
      what: 'Receive it and hear what it is here for',
      why: 'A recent opening, a strike or a season of salt changes where to look.',
      page: 'faults',
      instruct: [
        say(
          'Photographs of the damage before anything is touched; where it is insured, the surveyor sees it first.',
          undefined,
          inMode('strike'),
        ),
        say('What is wrong already (a plug, lock or gasket of another unit) goes on the list of open items.'),
      ],
      asks: [
        pick(
          'in.opened',
          'Opened before',
          {
            no: 'never',
            long: 'long ago',
            recent: 'within the year',
            unknown: 'nobody knows',
          },
          { when: PAST },
        ),
        pick(
          'in.struck',
          'Struck or grounded',
          { no: 'no', yes: 'yes', unknown: 'nobody knows' },
          { when: PAST },
        ),
      ],
    },
    stamps.length > 0 && {
      id: 'identify',
      needs: ['receive'],
      // a unit that came from elsewhere is identified where it is looked over
      appliesWhen: { not: inMode('unit', 'refit') },
      what: 'Identify drive and variant by its stamps',
      why: 'A look-alike bolts on, and takes other numbers.',
      tools: ['Wire brush', 'Lamp'],
      instruct: [
        ...(further?.stampsAt ? [say(`The stamps: ${further.stampsAt}.`)] : []),
        say(
          `This sheet is for ${stamps
            .filter((s) => s.own)
            .map((s) => s.code)
            .join(' or ')}. With another code nothing is bought or joined until the job has the right sheet.`,
          'variant',
        ),
      ],
      asks: [
        pick('id.stamp', 'Code stamped on the case', {
          ...Object.fromEntries(stamps.map((s) => [s.code, `${s.code} (${s.teeth})`])),
          other: 'another code',
          none: 'none to be read',
        }),
        text('id.other', 'The other code, as it stands there', { when: { fact: 'id.stamp', is: 'other' } }),
      ],
    },
    geared && {
      id: 'ratio',
      needs: ['receive'],
      appliesWhen: { all: [WHOLE, { any: [does('set.mesh'), inMode('look')] }] },
      wants: alsoAsks(sheet, 'gears'),
      what: 'Count the ratio by turns, then by teeth',
      why: 'Stamps get swapped with covers; turns and teeth do not.',
      place: `gear:${sheet.meshes[0]!.pinion}`,
      instruct: [
        ...inGear(sheet),
        ...(sheet.ratio
          ? [say(`This sheet: ${sheet.ratio.overall}. Ten turns of the output are enough.`)]
          : []),
      ],
      asks: [
        number('ratio.input-turns', 'Turns at the input', 'turns', { min: 0.5, max: 200 }),
        number('ratio.output-turns', 'Turns at the output meanwhile', 'turns', { min: 0.5, max: 200 }),
        number('ratio.driver', 'Teeth of the driver, where they can be seen', '', {
          optional: true,
          whole: true,
          max: 300,
        }),
        number('ratio.driven', 'Teeth of the driven gear', '', { optional: true, whole: true, max: 300 }),
      ],
    },
    {
      id: 'tools',
      needs: ['receive'],
      appliesWhen: does('remove'),
      what: 'Lay out tools, fixtures and stand',
      why: 'Which variant of a tool fits goes by the serial number; a substitute is decided now, not with the case half open.',
      school: 'fixtures',
      instruct: (graph.tools ?? []).map((t) =>
        say(
          `${t.name}${t.serials ? ` (${t.serials})` : ''}.${t.substitute ? ` Without it: ${t.substitute}.` : ''}`,
          undefined,
          forWhat(graph, t),
        ),
      ),
      asks: [
        text('tools.substitutes', 'What is improvised, and what it holds where', {
          when: { fact: 'school.fixtures', is: 'improvised' },
        }),
      ],
    },
    findPlace(sheet),
    {
      id: 'drain',
      needs: ['receive'],
      appliesWhen: does('drain'),
      wants: alsoAsks(sheet, 'spaces.case.fillMl'),
      what: oil ? 'Drain the oil and read it' : 'Look at the old grease',
      why: 'Milky is water, black is heat, and the magnet tells what is wearing.',
      consumables: ['Tray', 'Rag', 'Bottle for a sample'],
      instruct: [
        say(
          'The old oil goes into the marked can: the law says so, and the fjord too. Never down a drain.',
          'waste-oil',
        ),
      ],
      asks: [
        ...(oil
          ? [
              number(
                'drain.ml',
                `Drained${sheet.oilCapacityMl === undefined ? '' : `, of ${volumeInWords(sheet.oilCapacityMl)}`}`,
                'ml',
                { max: 20_000 },
              ),
            ]
          : []),
        pick(
          'drain.colour',
          'Colour',
          { clean: 'clean', milky: 'milky', black: 'black', burnt: 'burnt smell' },
          { finds: { milky: 'milky-oil', black: 'black-oil', burnt: 'black-oil' } },
        ),
        pick(
          'drain.metal',
          'On the magnet or in the tray',
          { none: 'nothing', fuzz: 'fuzz', flakes: 'flakes', chunk: 'a chunk' },
          { finds: { flakes: 'metal', chunk: 'metal' } },
        ),
      ],
    },
    alone && leakStep(alone, 'leak-found', asFoundTest),
    both &&
      leakStep(both, 'leak-found-joined', {
        ...asFoundTest,
        what: 'Leak test as found, both cases together',
        appliesWhen: { all: [AS_FOUND, joined] },
      }),
    !alone && tests.length > 0 && wantingStep(tests, { id: 'leak-found', ...asFoundTest }),
    {
      id: 'as-found',
      needs: ['receive'],
      appliesWhen: { all: [WHOLE, { any: [OPENS, inMode('look')] }] },
      what: 'Measure it while it is still together',
      why: 'Found readings say what wore, and whether the old stacks are a good guess.',
      page: 'setting',
      tools: ['Indicator on a firm stand', 'Backlash arm'],
      instruct: [
        say(
          'Indicator in line with the motion, preloaded a turn, stand firm: off its line it reads long, on a loose stand it reads the stand.',
          'indicator',
        ),
        say(
          'Nothing of the setting is touched by this job: one reading now, one when it is closed.',
          undefined,
          { not: does('set') },
        ),
      ],
      // taken in Setting, with a gauge: they are the first readings of the case as found
      figures: asFound.map((m) => ({
        label: `${m.label} as found`,
        fact: `setting.found.${m.id}`,
        unit: 'mm',
      })),
      asks: graph.unit?.shifts
        ? [
            pick('found.shift', 'Shift feel', {
              good: 'clean in all three',
              stiff: 'stiff',
              jumps: 'jumps out',
              none: 'does not shift',
            }),
          ]
        : [],
    },
    ...strikeSteps(sheet),
    {
      id: 'service',
      needs: ['receive'],
      what: 'Look over what a year wears',
      why: 'Cheap now, dear in the season.',
      appliesWhen: inMode('service'),
      school: 'impeller',
      consumables: ['Spline grease', 'Gaskets of the screws'],
      instruct: [
        ...(propellerHeld(graph) ? [say('Propeller off, splines wiped, looked at and greased thinly.')] : []),
        ...dueLines(sheet),
        say('Clear the water pickups and drain holes.'),
        ...(INPUT_JOINT.has(sheet.family)
          ? [
              say('Look into the bellows: no crack, and dry inside.'),
              say('Turn the universal joints and the gimbal bearing by hand: no play, no rust, no noise.'),
              say("Check the engine's alignment the way the manual says."),
            ]
          : []),
        bySchool('impeller', 'yearly', 'The impeller is new every year here: it is cheap.'),
        bySchool(
          'impeller',
          'sheet',
          "The impeller at the sheet's interval, sooner in salt; looked at today.",
        ),
      ],
      asks: [
        pick('service.impeller', 'Impeller', {
          good: 'looked at, good',
          renewed: 'renewed',
          due: 'due: offered to the owner',
          none: 'none on this drive',
        }),
        text('service.note', 'What was seen', { optional: true }),
      ],
    },
  ])
}
