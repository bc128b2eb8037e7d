import type { LeakPlan } from '../../drives/leak-plan.ts'
import { inWords, plainDigits } from '../../units/format.ts'
import { bySchool, firmly, gate, listOf, mustHold, number, pick, say, text, type StepDraft } from '../make.ts'
import type { Condition } from '../facts.ts'
import type { Gate } from '../route.ts'
import type { LeakTestId } from '../step-ids.ts'

/** The pressure may fall this far short of the sheet's when the test begins. */
const SHORT_OF_WORK = 0.9

/** Ports as the options of a list: numbered, since a name may be anything. */
const portOptions = (plan: LeakPlan) =>
  Object.fromEntries(plan.ports.map((name, i) => [`p${i + 1}`, name] as const))
const allPorts = (plan: LeakPlan) => plan.ports.map((_, i) => `p${i + 1}`).join(' ')

/** Minutes of a quick look as found. */
const QUICK_MIN = 5
/** A long hold is so many times the sheet's. */
const LONG_HOLD = 4

const quick = { fact: 'school.leak-plan', is: 'quick' }

const isAsFound = (test: LeakTestId) => test === 'leak-found' || test === 'leak-found-joined'

/** What makes a test a test: every port blocked, a pressure to speak of, the whole hold, and all moved that moves. */
export function testCounts(plan: LeakPlan, test: LeakTestId): Gate[] {
  const fact = (name: string) => `${test}.${name}`
  const least = Math.round(SHORT_OF_WORK * plan.workKpa)
  const asFound = isAsFound(test)
  // a quick look is for the case as found; what has to be proved is proved by the sheet
  const either = (sheets: Condition, look: Condition): Condition =>
    asFound ? { any: [sheets, { all: [quick, look] }] } : sheets
  return [
    ...(plan.ports.length
      ? [gate({ fact: fact('blocks-on'), is: allPorts(plan) }, 'Not every port was blocked.')]
      : []),
    gate(
      either({ fact: fact('start'), atLeast: least }, { fact: fact('start'), atLeast: plan.lowKpa }),
      `It began below ${inWords(least, 'kPa')}, too little to show a leak: work at ${inWords(plan.workKpa, 'kPa')}.`,
    ),
    gate(
      either({ fact: fact('minutes'), atLeast: plan.holdMin }, { fact: fact('minutes'), atLeast: QUICK_MIN }),
      `Held for less than ${plan.holdMin} minutes.`,
    ),
    ...(asFound
      ? []
      : [
          gate(
            {
              any: [
                { not: { fact: 'school.leak-plan', is: 'long' } },
                { fact: fact('minutes'), atLeast: LONG_HOLD * plan.holdMin },
              ],
            },
            `This shop holds ${LONG_HOLD * plan.holdMin} minutes, for a slow weep.`,
          ),
        ]),
    gate({ fact: fact('turned'), is: 'yes' }, 'Not everything was moved meanwhile.'),
  ]
}

const VERDICT_WORDS = {
  tight: 'tight',
  leaks: 'leaks',
  'too-short': 'too short to tell: hold on',
  invalid: 'cannot be: the pressure rose',
  attempt: 'no verdict: this was no test yet',
}

const MANUAL_WORDS = {
  passes: 'passes',
  fails: 'fails',
  'too-close': 'too close to call with this gauge',
  'too-short': 'too short: read again when its minutes are over',
  attempt: 'no verdict: this was no test yet',
}

/** The manual's criterion as it would print it. */
function dropWords({ allowedDrop, holdMin }: LeakPlan): string {
  const { kpa, minutes = holdMin } = allowedDrop!
  return kpa === 0 ? `no drop in ${minutes} min` : `not more than ${inWords(kpa, 'kPa')} in ${minutes} min`
}

/** A pressure test as one step of the route: what is put on, what is read, what comes off. */
export function leakStep(
  plan: LeakPlan,
  test: LeakTestId,
  draft: Pick<StepDraft, 'what' | 'why'> & Partial<StepDraft>,
): StepDraft {
  const fact = (name: string) => `${test}.${name}`
  const asFound = isAsFound(test)
  return {
    id: test,
    tools: ['Pressure tester with its gauge', 'Thermometer on the case', ...plan.ports],
    consumables: ['Gasket for the test plug', 'Soap water'],
    figuresAt: [test.endsWith('joined') ? 'tests.joined' : 'tests.case', 'spaces.case.volumeMl'],
    timedFrom: fact('start'),
    holdMin: plan.holdMin,
    school: 'leak-plan',
    instruct: [
      say(
        'New gasket under the test plug: an old one leaks by itself, and the case gets the blame.',
        'plug-gasket',
      ),
      ...(asFound
        ? [
            bySchool(
              'leak-plan',
              'quick',
              `A look: ${inWords(plan.lowKpa, 'kPa')} for ${QUICK_MIN} min, turning everything. It proves nothing.`,
            ),
          ]
        : []),
      bySchool(
        'leak-plan',
        'standard',
        `${plan.holdMin} min at ${inWords(plan.workKpa, 'kPa')}, with rotation.`,
      ),
      bySchool(
        'leak-plan',
        'long',
        `${LONG_HOLD * plan.holdMin} min at ${inWords(plan.workKpa, 'kPa')}, turned at the start, in the middle and at the end.`,
      ),
    ],
    counts: [
      ...testCounts(plan, test),
      ...(asFound
        ? []
        : [
            gate(
              {
                any: [
                  { fact: fact('proved'), is: true },
                  { fact: fact('attempt'), is: true },
                ],
              },
              plan.allowedDrop
                ? "Not proved tight by the manual's own criterion. Where it leaks: find the place, mend it, test again. Where it is too close to call: read a finer gauge, or measure the temperature of the case."
                : 'Not proved tight. Where it leaks: find the place, mend it, test again. Where it is too short to tell: hold on for as long as the figures say, and measure the temperature of the case at both ends.',
            ),
          ]),
    ],
    figures: [
      ...(plan.allowedDrop
        ? [{ label: `By the manual: ${dropWords(plan)}`, fact: fact('by-manual'), words: MANUAL_WORDS }]
        : []),
      ...(plan.allowedMlPerMin === undefined
        ? []
        : [
            {
              label: `By the leak rate: ${plainDigits(plan.allowedMlPerMin)} ml/min at most`,
              fact: fact('verdict'),
              words: VERDICT_WORDS,
            },
          ]),
      { label: 'Leak rate', fact: fact('ml-per-min'), unit: 'ml/min' },
      { label: 'give or take', fact: fact('u-ml-per-min'), unit: 'ml/min' },
      { label: 'So it leaks less than', fact: fact('under-ml-per-min'), unit: 'ml/min' },
      { label: 'One degree of the case hides', fact: fact('hides-kpa'), unit: 'kPa' },
      ...(plan.allowedMlPerMin === undefined
        ? []
        : [
            { label: 'To tell by the rate, hold', fact: fact('hold-needed-min'), unit: 'min' },
            {
              label: 'To tell by the rate',
              fact: fact('hold-never'),
              words: { day: 'no hold is long enough; measure the temperature of the case' },
            },
          ]),
    ],
    asks: [
      ...(plan.ports.length ? [listOf(fact('blocks-on'), 'Blocked', portOptions(plan))] : []),
      firmly({
        ...number(fact('start'), `Pressure at the start: ${inWords(plan.workKpa, 'kPa')}`, 'kPa', {
          quantity: 'pressure',
          min: -100,
          max: 1000,
        }),
        must: { fact: fact('start'), atMost: plan.maxKpa },
        wrong: `Above the sheet's ${inWords(plan.maxKpa, 'kPa')}. Let it down before anything else.`,
        slip: 'over-pressure',
      }),
      number(fact('start-c'), 'Temperature of the case at the start', 'C', {
        quantity: 'temperature',
        min: -40,
        max: 80,
        optional: true,
      }),
      number(fact('gauge-step'), "Smallest step of the tester's gauge (0.5 kPa when left out)", 'kPa', {
        quantity: 'pressure',
        min: 0.001,
        max: 20,
        optional: true,
      }),
      number(fact('atmosphere'), 'Barometer (101.3 kPa when left out)', 'kPa', {
        quantity: 'pressure',
        min: 50,
        max: 110,
        optional: true,
      }),
      pick(fact('turned'), `Moved meanwhile: ${plan.turns.toLowerCase()}`, {
        yes: 'yes, all of it',
        no: 'left still, or not all',
      }),
      number(fact('minutes'), `Minutes held, of ${plan.holdMin}`, 'min', { max: 10_000 }),
      mustHold(
        number(fact('end'), 'Pressure at the end', 'kPa', { quantity: 'pressure', min: -100, max: 1000 }),
        { fact: fact('end'), atMost: plan.maxKpa },
        `Above the sheet's ${inWords(plan.maxKpa, 'kPa')}: the case has warmed, or the gauge is misread. Let it down.`,
      ),
      number(fact('end-c'), 'Temperature of the case at the end', 'C', {
        quantity: 'temperature',
        min: -40,
        max: 80,
        optional: true,
      }),
      text(fact('where'), 'Where it came out, if it did', { optional: true }),
      ...(plan.ports.length
        ? [
            mustHold(
              listOf(fact('blocks-off'), 'Taken off again', portOptions(plan)),
              { fact: fact('blocks-off'), sameAs: fact('blocks-on') },
              'Not the same came off as were put on. Find the rest before you go on.',
              'block-left',
            ),
          ]
        : []),
    ],
    ...draft,
  }
}
