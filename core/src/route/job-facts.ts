import { InputError } from '../checks/input-error.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { caseTest, joinedTest, propellerHeld, ringLock } from '../drives/graph/unit-facts.ts'
import type { LeakPlan } from '../drives/leak-plan.ts'
import { leakTest } from '../leak/leak-test.ts'
import { runout, type Runout } from '../measuring/runout.ts'
import { parseReading } from '../units/notation.ts'
import type { OutsideFacts } from './check-route.ts'
import { holds, isKnown, type Facts, type FactValue } from './facts.ts'
import { testCounts } from './stages/leak-steps.ts'
import { LEAK_TESTS, type LeakTestId } from './step-ids.ts'
import { numberIn, overallFacts, ratioFacts } from './ratio-facts.ts'
import { shaftsAtStrike } from './stages/strike.ts'

/** Facts that no question of a route asks for: the rest of the job says them, or they follow from answers. */
export const OUTSIDE_FACTS: OutsideFacts = [
  'job.',
  'sheet.has',
  'school.',
  'setting.stacks-known',
  'setting.accepted',
  'setting.all-in',
  'setting.set.',
  'setting.stack.',
  'setting.found.',
  'setting.before-bare',
  'unit.cases',
  'unit.follows',
  'partner.',
  'row.missing',
  'row.inside-left',
  'row.left',
  'row.propeller-on',
  'grades.open',
  'grades.dog-alone',
  'estimate.choice',
  'faults.seen',
  'waited.',
  'work.',
  'picture.',
  'open-items.left',
  'orders.count',
  'parts.complete',
  'estimate.outgrown',
  'id.agrees',
  'unit.agrees',
  'pattern.sits',
  'check.',
  'overall.expected',
  'overall.agrees',
  'overall.fits',
  'ratio.agrees',
  'unit.ratio-agrees',
  'strike.',
  ...LEAK_TESTS.flatMap((t) =>
    [
      ...['verdict', 'by-manual', 'proved', 'attempt', 'ml-per-min', 'u-ml-per-min', 'under-ml-per-min'],
      ...['hides-kpa', 'hold-needed-min', 'hold-never'],
    ].map((f) => `${t}.${f}`),
  ),
  ...['close', 'prop'].flatMap((t) => ['torque-in', 'applied', 'set-from', 'set-to'].map((f) => `${t}.${f}`)),
  'anode.fits',
]

/** Pressure steps that the shop's tester can show, kPa. */
const TESTER_STEP_KPA = 0.5
/** Two readings of one backlash by one hand differ by less than this when nothing moved: twice the spread of each, mm. */
export const CHECK_MM = 0.04
/** Standard atmosphere, where nobody has read a barometer. */
const ATMOSPHERE_KPA = 101.325

/** Alloys that protect in each water: sacrificial in salt and brackish, active enough in fresh. */
export const ANODE_ALLOYS: Record<string, string[]> = {
  salt: ['zinc', 'aluminium'],
  brackish: ['aluminium'],
  fresh: ['magnesium', 'aluminium'],
}

type Mutable = Record<string, FactValue>

/**
 * What follows from the facts, computed by the same functions as everywhere: does the ratio agree, what does the leak test
 * say, is the rolling torque in its window, does the anode suit the water.
 * @returns the facts with what follows from them
 */
export function deriveFacts(sheet: DriveSheet, facts: Facts): Facts {
  const all: Mutable = { ...facts }
  follows(() => ratioFacts(sheet, 'ratio', 'ratio.agrees', all))
  follows(() => ratioFacts(sheet, 'unit', 'unit.ratio-agrees', all))
  const { graph } = sheet
  const [lock, propeller] = [ringLock(graph), propellerHeld(graph)]
  const [leak, joined] = [caseTest(graph), joinedTest(graph)]
  const plans: [LeakTestId, LeakPlan | null | undefined][] = [
    ['leak-found', leak],
    ['leak-found-joined', joined],
    ['leak-case', leak],
    ['leak-joined', joined],
  ]
  for (const [test, plan] of plans) if (plan) follows(() => leakFacts(plan, test, all))
  // a joined unit whose sheet has no figures is tested by its own manual
  if (all['leak-joined.word'] === 'tight') all['leak-joined.proved'] = true
  if (lock) torqueFact('close', lock.torqueNm, all)
  if (propeller?.kind === 'tabs') torqueFact('prop', propeller.torqueNm, all)
  const alloy = all['anode.alloy']
  if (typeof alloy === 'string')
    all['anode.fits'] = alloy === 'kept' || (ANODE_ALLOYS[String(all['job.water'])] ?? []).includes(alloy)
  strikeFacts(sheet, all)
  follows(() => overallFacts(sheet, all))
  stampFact(sheet, 'id', all)
  stampFact(sheet, 'unit', all)
  patternFact(sheet, all)
  checkFacts(sheet, all)
  const arrived = String(all['parts.arrived'] ?? '')
    .split(' ')
    .filter((v) => v !== '')
  all['parts.complete'] = arrived.length >= (numberIn(all, 'orders.count') ?? 0)
  return all
}

/** From figures that cannot be (a pressure below vacuum, a negative gap) nothing follows; the question itself refuses them. */
function follows(work: () => void) {
  try {
    work()
  } catch (e) {
    if (!(e instanceof InputError)) throw e
  }
}

/** Each shaft zone by zone against the limit of the zone; one zone out of its limit is a bent shaft. */
function strikeFacts(sheet: DriveSheet, all: Mutable) {
  for (const { id } of shaftsAtStrike(sheet)) {
    const read = sheet.runoutLimits.flatMap((l, i) => {
      const round = clockRunout(all[`strike.${id}.c${i}`])
      if (round) {
        // where the sine is highest, the first reading standing at twelve
        all[`strike.${id}.bend`] = round.eccentricityMm
        all[`strike.${id}.high`] = `${Math.round(round.highAtDeg / 30) % 12 || 12} o'clock`
      }
      const tir = numberIn(all, `strike.${id}.z${i}`) ?? round?.tirMm
      return tir === undefined ? [] : [tir > l.tirMm]
    })
    if (!read.length) continue
    const bent = read.includes(true)
    all[`strike.${id}.verdict`] = bent ? 'bent' : 'straight'
    all['strike.bent'] = bent || all['strike.bent'] === true
  }
}

/** Readings round a station as they were typed, each in bench notation; undefined while they are none yet. */
function clockRunout(typed: FactValue | undefined): Runout | undefined {
  if (typeof typed !== 'string' || !isKnown(typed)) return undefined
  try {
    const readingsMm = typed
      .trim()
      .split(/\s+/)
      .map((text) => parseReading({ text, quantity: 'length' }).value)
    return runout({ readingsMm })
  } catch (e) {
    if (e instanceof InputError) return undefined
    throw e
  }
}

/** The code that was read is one of this sheet's own; what cannot be read says nothing. */
function stampFact(sheet: DriveSheet, of: 'id' | 'unit', all: Mutable) {
  const code = all[`${of}.stamp`]
  if (code === undefined || code === 'none' || !isKnown(code)) return
  all[`${of}.agrees`] = (sheet.ratio?.stamps ?? []).some((s) => s.own && s.code === code)
}

/** Every flank that was read sits where it should. */
function patternFact(sheet: DriveSheet, all: Mutable) {
  const read = sheet.meshes.flatMap((m) =>
    ['drive', 'coast'].flatMap((f) => {
      const at = all[`pattern.${m.id}.${f}`]
      return isKnown(at) ? [at === 'centred' || at === 'near-toe'] : []
    }),
  )
  if (read.length) all['pattern.sits'] = read.every(Boolean)
}

/** What was read once more, closed: against what was read as found, and where nobody did, against its window. */
function checkFacts(sheet: DriveSheet, all: Mutable) {
  for (const { id, window } of sheet.measures) {
    const [now, found] = [numberIn(all, `check.${id}`), numberIn(all, `setting.found.${id}`)]
    if (now === undefined) continue
    all[`check.${id}.same`] =
      found === undefined
        ? now >= (window.min ?? -Infinity) && now <= (window.max ?? Infinity)
        : Math.abs(now - found) <= CHECK_MM + 1e-9
  }
}

/** Smallest drop that the needle of a manual shows. */
const MANUAL_NEEDLE_KPA = 3.4

/** What a pressure test comes to; `attempt` where it was none, whatever the gauge said. */
function leakFacts(plan: LeakPlan, test: LeakTestId, all: Mutable) {
  const of = (name: string) => numberIn(all, `${test}.${name}`)
  const [start, end, minutes] = [of('start'), of('end'), of('minutes')]
  if (start === undefined || end === undefined || minutes === undefined || minutes <= 0) return
  const [startC, endC] = [of('start-c'), of('end-c')]
  const warm = startC !== undefined && endC !== undefined
  const { allowedDrop: drop } = plan
  const step = of('gauge-step') ?? TESTER_STEP_KPA
  const result = leakTest({
    readings: [
      { s: 0, gaugeKpa: start, ...(warm ? { tempC: startC } : {}) },
      { s: 60 * minutes, gaugeKpa: end, ...(warm ? { tempC: endC } : {}) },
    ],
    atmosphereKpa: of('atmosphere') ?? ATMOSPHERE_KPA,
    volumeMl: plan.volumeMl,
    gaugeResolutionKpa: step,
    ...(plan.allowedMlPerMin === undefined ? {} : { allowedMlPerMin: plan.allowedMlPerMin }),
    ...(drop
      ? {
          allowedDrop: {
            kpa: drop.kpa,
            minutes: drop.minutes ?? plan.holdMin,
            // "no drop" means none that the manual's own needle shows
            needleKpa: drop.kpa === 0 ? Math.max(step, MANUAL_NEEDLE_KPA) : step,
          },
        }
      : {}),
  })
  const counts = testCounts(plan, test).every((g) => holds(g.when, all))
  const { verdict, byManual, holdNeededMin } = result
  if (verdict) all[`${test}.verdict`] = counts ? verdict : 'attempt'
  if (byManual) all[`${test}.by-manual`] = counts ? byManual : 'attempt'
  all[`${test}.attempt`] = !counts
  // the manual's criterion opens the gate unless the rate says that it leaks; without one the rate has to say that it is tight
  all[`${test}.proved`] =
    counts && (byManual ? byManual === 'passes' && verdict !== 'leaks' : verdict === 'tight')
  all[`${test}.ml-per-min`] = result.leakMlPerMin
  all[`${test}.u-ml-per-min`] = result.leakUMlPerMin
  all[`${test}.under-ml-per-min`] = result.leakMlPerMin + result.leakUMlPerMin
  if (!warm) all[`${test}.hides-kpa`] = result.hidesKpaPerC
  if (typeof holdNeededMin === 'number') all[`${test}.hold-needed-min`] = Math.ceil(holdNeededMin)
  else if (holdNeededMin === null) all[`${test}.hold-never`] = 'day'
}

/** Torque at the fastener from what the wrench was set to, and what it has to be set to: a straight adapter lengthens the arm. */
function torqueFact(at: string, window: { min?: number; max?: number }, all: Mutable) {
  const [L, E] = [numberIn(all, `${at}.wrench`), numberIn(all, `${at}.offset`)]
  const straight = all[`${at}.adapter`] === 'straight'
  const setting = numberIn(all, `${at}.setting`)
  // a straight adapter whose lengths nobody measured: what arrives is not known
  if (straight && (!L || E === undefined)) {
    if (setting !== undefined) all[`${at}.torque-in`] = false
    return
  }
  const longer = straight ? (L! + E!) / L! : 1
  if (window.min !== undefined) all[`${at}.set-from`] = window.min / longer
  if (window.max !== undefined) all[`${at}.set-to`] = window.max / longer
  if (setting === undefined) return
  const applied = setting * longer
  all[`${at}.applied`] = applied
  // the window's own ends count, whatever the division made of them
  const close = 1e-9 * applied
  all[`${at}.torque-in`] = applied >= (window.min ?? 0) - close && applied <= (window.max ?? Infinity) + close
}
