import { InputError } from '../checks/input-error.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { ratio } from '../gears/ratio.ts'
import { leakTest } from '../leak/leak-test.ts'
import { crush } from '../setting/crush.ts'
import type { OutsideFacts } from './check-route.ts'
import type { Facts, FactValue } from './facts.ts'

/** Facts that no question of a route asks for: the rest of the job says them, or they follow from answers. */
export const OUTSIDE_FACTS: OutsideFacts = [
  'job.',
  'school.',
  'setting.stacks-known',
  'setting.accepted',
  'row.missing',
  'row.inside-left',
  'row.left',
  'grades.open',
  'estimate.choice',
  'faults.seen',
  'waited.seals',
  'ratio.agrees',
  'strike.bent',
  'leak-found.verdict',
  'leak-case.verdict',
  'leak-joined.verdict',
  'preload.in',
  'crush.stack',
  'crush.right',
  'close.torque-in',
  'prop.torque-in',
  'anode.fits',
]

/** Pressure steps that the shop's tester can show, kPa. */
const TESTER_STEP_KPA = 0.5
/** A stack of real shims comes this close to the one that was computed, mm. */
const CRUSH_STEP_MM = 0.025
/** Standard atmosphere, where nobody has read a barometer. */
const ATMOSPHERE_KPA = 101.325

/** Alloys that protect in each water: sacrificial in salt and brackish, active enough in fresh. */
export const ANODE_ALLOYS: Record<string, string[]> = {
  salt: ['zinc', 'aluminium'],
  brackish: ['aluminium'],
  fresh: ['magnesium'],
}

type Mutable = Record<string, FactValue>

const num = (facts: Facts, fact: string) => {
  const v = facts[fact]
  return typeof v === 'number' ? v : undefined
}

/**
 * What follows from the facts, computed by the same functions as everywhere: does the ratio agree, what does the leak test
 * say, is the rolling torque in its window, does the anode suit the water.
 * @returns the facts with what follows from them
 */
export function deriveFacts(sheet: DriveSheet, facts: Facts): Facts {
  const all: Mutable = { ...facts }
  follows(() => ratioFacts(sheet, all))
  for (const test of ['leak-found', 'leak-case', 'leak-joined']) follows(() => leakFacts(sheet, test, all))
  follows(() => preloadFacts(sheet, all))
  follows(() => crushFacts(sheet, all))
  const { lockTabs, propeller } = sheet.bench
  if (lockTabs) torqueFact('close', lockTabs.torqueNm, all)
  if (propeller?.kind === 'tabs') torqueFact('prop', propeller.torqueNm, all)
  const alloy = all['anode.alloy']
  if (typeof alloy === 'string')
    all['anode.fits'] = (ANODE_ALLOYS[String(all['job.water'])] ?? []).includes(alloy)
  const worst = Math.max(...['strike.runout', 'strike.runout-inner'].map((f) => num(all, f) ?? 0))
  if (num(all, 'strike.runout') !== undefined)
    all['strike.bent'] = worst > Math.min(...sheet.runoutLimits.map((l) => l.tirMm))
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

/** Turns counted and teeth counted against this sheet's own pair. */
function ratioFacts(sheet: DriveSheet, all: Mutable) {
  const [driver, driven] = [num(all, 'ratio.driver'), num(all, 'ratio.driven')]
  const [input, output] = [num(all, 'ratio.input-turns'), num(all, 'ratio.output-turns')]
  const mesh = sheet.meshes[0]?.mesh
  if (!mesh || input === undefined || output === undefined) return
  const lowerPairs = [{ id: 'sheet', driver: mesh.pinionTeeth, driven: mesh.gearTeeth }]
  const counted =
    (driver === undefined || driver === mesh.pinionTeeth) &&
    (driven === undefined || driven === mesh.gearTeeth)
  // turns that cannot be do not agree
  all['ratio.agrees'] = false
  const { candidates } = ratio({ lowerPairs, inputTurns: input, outputTurns: output, countErrorTurns: 0.1 })
  all['ratio.agrees'] = counted && candidates[0]!.matches
}

function leakFacts(sheet: DriveSheet, test: string, all: Mutable) {
  const of = (name: string) => num(all, `${test}.${name}`)
  const [start, end, minutes] = [of('start'), of('end'), of('minutes')]
  if (start === undefined || end === undefined || minutes === undefined || minutes <= 0) return
  const [startC, endC] = [of('start-c'), of('end-c')]
  const warm = startC !== undefined && endC !== undefined
  const { leak } = sheet.bench
  const result = leakTest({
    readings: [
      { s: 0, gaugeKpa: start, ...(warm ? { tempC: startC } : {}) },
      { s: 60 * minutes, gaugeKpa: end, ...(warm ? { tempC: endC } : {}) },
    ],
    atmosphereKpa: ATMOSPHERE_KPA,
    volumeMl: leak.volumeMl,
    allowedMlPerMin: leak.allowedMlPerMin,
    gaugeResolutionKpa: TESTER_STEP_KPA,
  })
  all[`${test}.verdict`] = result.verdict
  all[`${test}.ml-per-min`] = result.leakMlPerMin
  all[`${test}.u-ml-per-min`] = result.leakUMlPerMin
  all[`${test}.hold-needed-min`] = result.holdNeededMin
}

function preloadFacts(sheet: DriveSheet, all: Mutable) {
  const setting = sheet.bearings.find((b) => b.setting?.kind === 'rolling-torque')?.setting
  const [read, seals] = [num(all, 'preload.read'), num(all, 'preload.seals')]
  if (setting?.kind === 'rolling-torque' && read !== undefined && seals !== undefined) {
    const window = all['preload.bearings'] === 'run-in' && setting.runInNm ? setting.runInNm : setting.newNm
    const net = read - seals
    all['preload.net'] = net
    all['preload.in'] = net >= (window.min ?? 0) && net <= (window.max ?? Infinity)
  }
}

function crushFacts(sheet: DriveSheet, all: Mutable) {
  const wanted = sheet.bearings.find((b) => b.setting?.kind === 'crush')?.setting
  const [trial, gap] = [num(all, 'crush.trial'), num(all, 'crush.gap')]
  if (wanted?.kind === 'crush' && trial !== undefined && gap !== undefined) {
    const { stackMm } = crush({
      shimsAt: wanted.shimsAt ?? 'bearing',
      trialMm: trial,
      crushMm: wanted.crushMm,
      ...(all['crush.read-as'] === 'float' ? { floatMm: gap } : { gapMm: gap }),
    })
    all['crush.stack'] = stackMm
    const fitted = num(all, 'crush.fitted')
    if (fitted !== undefined) all['crush.right'] = Math.abs(fitted - stackMm) <= CRUSH_STEP_MM
  }
}

/** Torque at the fastener from what the wrench was set to: a straight adapter lengthens the arm. */
function torqueFact(at: string, window: { min?: number; max?: number }, all: Mutable) {
  const setting = num(all, `${at}.setting`)
  if (setting === undefined) return
  const [L, E] = [num(all, `${at}.wrench`), num(all, `${at}.offset`)]
  const straight = all[`${at}.adapter`] === 'straight'
  // a straight adapter whose lengths nobody measured: what arrives is not known
  if (straight && (!L || E === undefined)) {
    all[`${at}.torque-in`] = false
    return
  }
  const applied = straight ? (setting * (L! + E!)) / L! : setting
  all[`${at}.applied`] = applied
  all[`${at}.torque-in`] = applied >= (window.min ?? 0) && applied <= (window.max ?? Infinity)
}
