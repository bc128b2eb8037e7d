/**
 * Exact conversion factors to the canonical units (mm, N·m, kPa gauge, °C, degrees).
 * Inch and pound: international yard and pound agreement (1959); the inch of mercury is the
 * conventional one at 0 °C; kgf by the standard acceleration 9.80665 m/s².
 */
export const MM_PER_INCH = 25.4
export const NM_PER_FTLB = 1.3558179483314004
export const NM_PER_INLB = 0.1129848290276167
export const NM_PER_KGM = 9.80665
export const KPA_PER_PSI = 6.894757293168361
export const KPA_PER_BAR = 100
export const KPA_PER_INHG = 3.386388640341

export type Quantity = 'length' | 'torque' | 'pressure' | 'temperature' | 'angle'

/** The unit in which each quantity is stored and computed. */
export const CANONICAL_UNIT: Record<Quantity, string> = {
  length: 'mm',
  torque: 'Nm',
  pressure: 'kPa',
  temperature: 'C',
  angle: 'deg',
}

/** value in canonical unit = entered × factor + offset */
export interface UnitScale {
  factor: number
  offset: number
}

const plain = (factor: number): UnitScale => ({ factor, offset: 0 })

/**
 * Spellings as said or scribbled at the bench, lower case and without spaces, dots or hyphens,
 * for each quantity. `t` and `thou` are thousandths of an inch, `h` hundredths of a millimetre.
 */
export const UNIT_SPELLINGS: Record<Quantity, Record<string, UnitScale>> = {
  length: {
    mm: plain(1),
    cm: plain(10),
    um: plain(0.001),
    µm: plain(0.001),
    μm: plain(0.001),
    h: plain(0.01),
    in: plain(MM_PER_INCH),
    inch: plain(MM_PER_INCH),
    '"': plain(MM_PER_INCH),
    '”': plain(MM_PER_INCH),
    t: plain(MM_PER_INCH / 1000),
    thou: plain(MM_PER_INCH / 1000),
  },
  torque: {
    nm: plain(1),
    ncm: plain(0.01),
    ftlb: plain(NM_PER_FTLB),
    lbft: plain(NM_PER_FTLB),
    inlb: plain(NM_PER_INLB),
    lbin: plain(NM_PER_INLB),
    kgm: plain(NM_PER_KGM),
    kgfm: plain(NM_PER_KGM),
  },
  pressure: {
    kpa: plain(1),
    pa: plain(0.001),
    mbar: plain(0.1),
    bar: plain(KPA_PER_BAR),
    psi: plain(KPA_PER_PSI),
    inhg: plain(KPA_PER_INHG),
  },
  temperature: {
    c: plain(1),
    '°c': plain(1),
    f: { factor: 5 / 9, offset: -160 / 9 },
    '°f': { factor: 5 / 9, offset: -160 / 9 },
    k: { factor: 1, offset: -273.15 },
  },
  angle: {
    deg: plain(1),
    '°': plain(1),
    rad: plain(180 / Math.PI),
  },
}

/** Whether values of the quantity may carry a minus sign at all (a vacuum, a frost, a turn back, a drop). */
export const CAN_BE_NEGATIVE: Record<Quantity, boolean> = {
  length: true,
  torque: false,
  pressure: true,
  temperature: true,
  angle: true,
}
