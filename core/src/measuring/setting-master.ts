/** A setting master: the length that is written on it is nominal, `lengthMm` is measured. */
export interface SettingMaster {
  id: string
  label: string
  lengthMm: number
}

/** Master or arbor farther off than this is another one. mm */
export const OTHER_MASTER_MM = 1

/** The master nearest to the length that the sheet asks for; undefined when there are none. */
export function nearestMaster<M extends SettingMaster>(
  masters: readonly M[],
  nominalMm: number,
): M | undefined {
  return masters.reduce<M | undefined>(
    (best, m) => (best && Math.abs(best.lengthMm - nominalMm) <= Math.abs(m.lengthMm - nominalMm) ? best : m),
    undefined,
  )
}
