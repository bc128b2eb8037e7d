/** How a bare number in a reading is meant; everything is stored in mm. */
export const LENGTH_UNITS = ['mm', 'h', 't', 'in'] as const
export type LengthUnit = (typeof LENGTH_UNITS)[number]
/** The same of a torque; stored in Nm. */
export const TORQUE_UNITS = ['Nm', 'inlb', 'ftlb'] as const
export type TorqueUnit = (typeof TORQUE_UNITS)[number]
export const READING_UNITS = [...LENGTH_UNITS, ...TORQUE_UNITS] as const
export const isTorqueUnit = (u: ReadingUnit): u is TorqueUnit => TORQUE_UNITS.some((t) => t === u)
export type ReadingUnit = (typeof READING_UNITS)[number]
