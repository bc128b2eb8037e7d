/** Units of torque that manuals print. */
export const TORQUE_UNITS = ['Nm', 'ftlb', 'inlb'] as const
export type TorqueUnit = (typeof TORQUE_UNITS)[number]

/** The unit that a typed torque says: `180 to 200 in-lb`. Undefined where it says none. */
export function torqueUnitIn(text: string): TorqueUnit | undefined {
  const letters = text.toLowerCase().replace(/[^a-z]/g, '')
  if (/inlb|lbin/.test(letters)) return 'inlb'
  if (/ftlb|lbft/.test(letters)) return 'ftlb'
  return letters.includes('nm') ? 'Nm' : undefined
}
