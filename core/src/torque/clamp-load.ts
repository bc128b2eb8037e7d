import { positive } from '../checks/numbers.ts'

export interface ClampLoadInput {
  torqueNm: number
  /** Nominal diameter of the thread, mm. */
  diameterMm: number
  /** Nut factors K of the two treatments of the thread. */
  kFrom: number
  kTo: number
}

export interface ClampLoad {
  /** Clamp load with each treatment. */
  fromKn: number
  toKn: number
  /** By how much it changes. */
  changePercent: number
  /** Torque that gives the second treatment the first one's clamp load. */
  sameLoadNm: number
}

/** What another grease does to a joint: F = T / (K d), Nm over mm give kN. @throws InputError unless everything is above 0 */
export function clampLoad(input: ClampLoadInput): ClampLoad {
  const torque = positive('torqueNm', input.torqueNm)
  const d = positive('diameterMm', input.diameterMm)
  const [kFrom, kTo] = [positive('kFrom', input.kFrom), positive('kTo', input.kTo)]
  return {
    fromKn: torque / (kFrom * d),
    toKn: torque / (kTo * d),
    changePercent: 100 * (kFrom / kTo - 1),
    sameLoadNm: (torque * kTo) / kFrom,
  }
}
