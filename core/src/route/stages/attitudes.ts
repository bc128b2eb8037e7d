import type { DriveSheet } from '../../drives/sheet.ts'
import type { AttitudeAct, ShiftState } from '../../drives/further.ts'
import { say } from '../make.ts'
import type { Instruct } from '../route.ts'

/** Which way up the case stands at one kind of work, and what falls out when it is turned, as the sheet says; undefined where it says nothing. */
export function attitudeOf(sheet: DriveSheet, during: AttitudeAct): string | undefined {
  const unsaid = during === 'off' || during === 'in'
  const rows = (sheet.further?.attitudes ?? []).filter((a) => (a.during ? a.during === during : unsaid))
  const words = rows.map(
    (a) => `${a.act}: ${a.up}${a.falls && a.falls !== 'nothing' ? `; falls out: ${a.falls}` : ''}`,
  )
  return words.length ? words.join('. ') : undefined
}

/** Where rod or lever stand at an act, as the sheet says. */
export function leverOf(sheet: DriveSheet, act: ShiftState['act']): Instruct[] {
  return (sheet.further?.shiftStates ?? [])
    .filter((s) => s.act === act)
    .map((s) => say(`For ${act}: ${s.gear}${s.rod ? `, rod ${s.rod}` : ''}.`))
}
