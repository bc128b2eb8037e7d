import { InputError, refuse } from '../checks/input-error.ts'
import { notNegative, positive, whole } from '../checks/numbers.ts'

export interface GearPair {
  id: string
  driver: number
  driven: number
}

export interface RatioInput {
  /** Ratio by the stamp or the papers. */
  overall?: number
  /** Pairs that the upper and the lower may have; a drive without an upper leaves that list out. */
  upperPairs?: GearPair[]
  lowerPairs: GearPair[]
  /** Turns counted at both ends at the same time. */
  inputTurns?: number
  outputTurns?: number
  /** Largest error of each count, turns. @default 0.05 */
  countErrorTurns?: number
}

export interface Ratio {
  candidates: { upperId: string | null; lowerId: string; ratio: number; matches: boolean }[]
  measuredRatio?: number
  measuredURatio?: number
}

/** A stamp gives two decimals. */
const STAMP_ERROR = 0.005

/**
 * Which upper and lower may be in this drive: the ratio of every combination, driven/driver each, against the stamp
 * (two decimals) and against turns counted, whose error is e/in + e/out, relative, at the worst.
 * A combination matches when nothing that is known speaks against it.
 * @throws InputError on pairs that cannot be, or turns counted at one end only
 */
export function ratio(input: RatioInput): Ratio {
  if (!Array.isArray(input.lowerPairs) || input.lowerPairs.length === 0)
    throw new InputError('invalid-input', [
      { path: 'lowerPairs', message: 'is empty; give at least one pair' },
    ])
  const check = (pairs: GearPair[], path: string) =>
    pairs.forEach((p, i) => {
      whole(`${path}[${i}].driver`, p.driver, 3, 300)
      whole(`${path}[${i}].driven`, p.driven, 3, 300)
    })
  check(input.lowerPairs, 'lowerPairs')
  check(input.upperPairs ?? [], 'upperPairs')
  if (input.overall !== undefined) positive('overall', input.overall)
  if ((input.inputTurns === undefined) !== (input.outputTurns === undefined))
    refuse(
      input.inputTurns === undefined ? 'inputTurns' : 'outputTurns',
      'is missing; count the turns at both ends',
    )
  const error = notNegative('countErrorTurns', input.countErrorTurns ?? 0.05)

  let measured: { ratio: number; U: number } | undefined
  if (input.inputTurns !== undefined) {
    const turnsIn = positive('inputTurns', input.inputTurns)
    const turnsOut = positive('outputTurns', input.outputTurns!)
    const value = turnsIn / turnsOut
    measured = { ratio: value, U: value * (error / turnsIn + error / turnsOut) }
  }
  const uppers: (GearPair | null)[] = input.upperPairs?.length ? input.upperPairs : [null]
  return {
    candidates: uppers.flatMap((upper) =>
      input.lowerPairs.map((lower) => {
        const value = (upper ? upper.driven / upper.driver : 1) * (lower.driven / lower.driver)
        const byStamp =
          input.overall === undefined || Math.abs(value - input.overall) <= STAMP_ERROR * (1 + 1e-9)
        const byCount = measured === undefined || Math.abs(value - measured.ratio) <= measured.U
        return { upperId: upper?.id ?? null, lowerId: lower.id, ratio: value, matches: byStamp && byCount }
      }),
    ),
    ...(measured ? { measuredRatio: measured.ratio, measuredURatio: measured.U } : {}),
  }
}
