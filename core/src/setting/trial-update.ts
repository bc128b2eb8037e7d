import { InputError, refuse } from '../checks/input-error.ts'
import { finite, positive } from '../checks/numbers.ts'
import { probabilityInWindow } from '../numbers/normal.ts'

export interface TrialUpdateInput {
  /** Ids of the stacks. */
  locations: string[]
  quantities: {
    id: string
    /** Prior change per mm of stack; a stack left out moves nothing, and stays so. */
    sensitivity: Record<string, number>
    /** Relative standard deviation of every prior entry: 0.1 from geometry, 0.05 from the sheet. */
    relSd: number
    /** Standard uncertainty of one reading set. */
    u: number
    window?: { min: number; max: number }
  }[]
  /** In the order in which they were built; the first is the state that changes are counted from. */
  trials: { stacks: Record<string, number>; readings: Record<string, number> }[]
  /** Stacks of the next build. */
  next?: Record<string, number>
}

export interface Learned {
  mean: number
  sd: number
}

export interface TrialWarning {
  trial: number
  quantity: string
  /** Reading minus what the earlier trials led to expect. */
  off: number
  /** The same in standard deviations. */
  z: number
  message: string
}

export interface TrialUpdate {
  /** quantity → stack → posterior. */
  sensitivity: Record<string, Record<string, Learned>>
  /** quantity → its value with the stacks of the first trial. */
  offset: Record<string, Learned>
  /** quantity → its value with the stacks of the newest trial, all readings taken together. */
  newest: Record<string, Learned>
  /** Log probability density of all readings after the first of each quantity, before each was known: how well the prior foresaw them. */
  logEvidence: number
  warnings: TrialWarning[]
  /** What the next build will read; with `next`. */
  predicted?: Record<string, Learned>
  /** That every window is met by the next build; with `next` and a window for every quantity. */
  nextBuildLastProbability?: number
}

/** Beyond so many standard deviations a trial disagrees with the ones before. */
const DISAGREES = 3
/** Prior standard deviation of the offset: anything that could be measured. */
const WIDE = 10

/**
 * Bayesian linear regression, one quantity at a time: y = y₀ + Σ J (S − S₀) + noise, J ~ N(prior, (relSd prior)²),
 * y₀ wide, noise N(0, u²). Trials are taken in one after the other (Kalman form of the update, which keeps the
 * covariance symmetric and needs no inverse; Bishop, Pattern Recognition and Machine Learning, 2006, 3.3.1), so that
 * each can be held against what the earlier ones led to expect. A trial that disagrees is taken in all the same.
 * @throws InputError naming stacks or readings that are missing, unknown names, non-finite numbers
 */
export function trialUpdate(input: TrialUpdateInput): TrialUpdate {
  check(input)
  const first = input.trials[0]!
  const result: TrialUpdate = { sensitivity: {}, offset: {}, newest: {}, logEvidence: 0, warnings: [] }
  const predicted: Record<string, Learned> = {}
  let probability: number | undefined = 1
  for (const q of input.quantities) {
    const moving = input.locations.filter((l) => (q.sensitivity[l] ?? 0) !== 0)
    const d = moving.length + 1
    // state: offset, then one sensitivity for each moving stack
    const mean = [first.readings[q.id] ?? 0, ...moving.map((l) => q.sensitivity[l]!)]
    const covariance = mean.map((_, i) =>
      mean.map((_, k) => (i !== k ? 0 : i === 0 ? WIDE ** 2 : (q.relSd * mean[i]!) ** 2)),
    )
    const row = (stacks: Record<string, number>) => [1, ...moving.map((l) => stacks[l]! - first.stacks[l]!)]
    const expect = (x: number[]) => {
      const gain = covariance.map((c) => c.reduce((sum, v, k) => sum + v * x[k]!, 0))
      return { value: dot(mean, x), variance: dot(gain, x), gain }
    }
    input.trials.forEach((trial, t) => {
      const reading = trial.readings[q.id]
      if (reading === undefined) return
      const x = row(trial.stacks)
      const { value, variance, gain } = expect(x)
      const total = variance + q.u * q.u
      const off = reading - value
      const z = off / Math.sqrt(total)
      if (t > 0) result.logEvidence -= 0.5 * (z * z + Math.log(2 * Math.PI * total))
      if (t > 0 && Math.abs(z) > DISAGREES)
        result.warnings.push({
          trial: t,
          quantity: q.id,
          off,
          z,
          message: `${q.id}: trial ${t} reads ${off > 0 ? 'above' : 'below'} what the trials before lead to expect by ${Math.abs(off).toFixed(3)} (${Math.abs(z).toFixed(1)} s): a reading in another unit, a stack miscounted, a part not seated, or a shim stuck to the gear`,
        })
      for (let i = 0; i < d; i++) {
        mean[i]! += (gain[i]! * off) / total
        for (let k = 0; k < d; k++) covariance[i]![k]! -= (gain[i]! * gain[k]!) / total
      }
    })
    const sd = (i: number) => Math.sqrt(Math.max(0, covariance[i]![i]!))
    result.offset[q.id] = { mean: mean[0]!, sd: sd(0) }
    const now = expect(row(input.trials.at(-1)!.stacks))
    result.newest[q.id] = { mean: now.value, sd: Math.sqrt(Math.max(0, now.variance)) }
    result.sensitivity[q.id] = Object.fromEntries(
      moving.map((l, i) => [l, { mean: mean[i + 1]!, sd: sd(i + 1) }]),
    )
    if (input.next) {
      const { value, variance } = expect(row(input.next))
      predicted[q.id] = { mean: value, sd: Math.sqrt(Math.max(0, variance)) }
      probability =
        q.window && probability !== undefined
          ? probability * probabilityInWindow(value, predicted[q.id]!.sd, q.window.min, q.window.max)
          : undefined
    }
  }
  if (!input.next) return result
  return {
    ...result,
    predicted,
    ...(probability === undefined ? {} : { nextBuildLastProbability: probability }),
  }
}

const dot = (a: number[], b: number[]) => a.reduce((sum, v, i) => sum + v * b[i]!, 0)

function check(input: TrialUpdateInput) {
  if (!input.locations?.length) refuse('locations', 'is empty; name the stacks')
  if (!input.quantities?.length) refuse('quantities', 'is empty; name what is measured')
  if (!input.trials?.length)
    throw new InputError('invalid-input', [
      { path: 'trials', message: 'is empty; record at least one build' },
    ])
  const known = new Set(input.locations)
  const stacks = (at: string, s: Record<string, number>) => {
    for (const l of input.locations)
      if (s[l] === undefined) refuse(`${at}.${l}`, 'is missing; every stack of the build is needed')
    for (const [l, mm] of Object.entries(s)) {
      if (!known.has(l)) refuse(`${at}.${l}`, `is no stack; there are ${input.locations.join(', ')}`)
      finite(`${at}.${l}`, mm)
    }
  }
  const measured = new Set(input.quantities.map((q) => q.id))
  input.quantities.forEach((q, i) => {
    for (const [l, j] of Object.entries(q.sensitivity)) {
      if (!known.has(l))
        refuse(`quantities[${i}].sensitivity.${l}`, `is no stack; there are ${input.locations.join(', ')}`)
      finite(`quantities[${i}].sensitivity.${l}`, j)
    }
    positive(`quantities[${i}].relSd`, q.relSd)
    positive(`quantities[${i}].u`, q.u)
    if (q.window && !(q.window.min < q.window.max))
      refuse(`quantities[${i}].window`, 'is upside down; swap the two')
  })
  input.trials.forEach((t, i) => {
    stacks(`trials[${i}].stacks`, t.stacks)
    for (const [id, v] of Object.entries(t.readings)) {
      if (!measured.has(id))
        refuse(`trials[${i}].readings.${id}`, `is not measured; there are ${[...measured].join(', ')}`)
      finite(`trials[${i}].readings.${id}`, v)
    }
  })
  if (input.next) stacks('next', input.next)
}
