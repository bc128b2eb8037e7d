import type { Code, Line } from '../../assembly/invariants.ts'
import type { Verb } from '../../assembly/act.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { objectName } from './object-name.ts'

/** What each line says of its row. */
export const LINE_TEXTS: Record<Code, (name: string) => string> = {
  'unsafe-in': (n) => `${n} is unsafe, and in the drive`,
  'condemned-in': (n) => `${n} is condemned, and in the drive`,
  'joint-leaks': (n) => `${n} leaks`,
  'part-not-in': (n) => `${n} is off, and not back in`,
  'group-not-tight': (n) => `${n}: loosened, and not tightened since`,
  'group-not-locked': (n) => `${n}: tight, and not locked`,
  'joint-not-shut': (n) => `${n}: closed without its seal`,
  'joint-not-proved': (n) => `${n}: opened, and not proved tight since`,
  'setting-not-proved': (n) => `${n}: parted, and not read since`,
  'space-empty': (n) => `${n}: empty`,
  'space-not-settled': (n) => `${n}: filled, and not topped after it has settled`,
  'temporary-in': (n) => `${n} is still in`,
  'pressure-on': () => 'Pressure is still on',
  'interface-open': (n) => `Not joined again: ${n}`,
  'not-checked': (n) => `Not checked since: ${TOPIC_NAMES[n] ?? n}`,
  'open-item': (n) => OPEN_NAMES[n] ?? `Still open: ${n}`,
}

/** What was found and is not accounted for; items that somebody wrote down stand in the list of open items. */
const OPEN_NAMES: Record<string, string> = {
  leak: 'A leak was told of, and its place is not found',
  'rough gears': 'Gears felt rough after the blow, and nobody has looked at them',
  flanges: 'Flanges, mount or tilt tube are bent or cracked',
}

const TOPIC_NAMES: Record<string, string> = {
  shift: 'the shift',
  turns: 'that it turns freely',
  'propeller-turns': 'which way the propeller turns',
  water: 'that water comes',
  ratio: 'the ratio, after new gears',
  runs: 'that it runs',
  place: 'where it leaks',
  decided: 'what the owner agreed to',
}

/** A verb that is done to the kind of row that a line is about. */
const ABOUT: Record<Code, Verb> = {
  'unsafe-in': 'remove',
  'condemned-in': 'remove',
  'joint-leaks': 'leak',
  'part-not-in': 'remove',
  'group-not-tight': 'loosen',
  'group-not-locked': 'loosen',
  'joint-not-shut': 'leak',
  'joint-not-proved': 'leak',
  'setting-not-proved': 'measure',
  'space-empty': 'fill',
  'space-not-settled': 'fill',
  'temporary-in': 'put-in',
  'pressure-on': 'press',
  'interface-open': 'part',
  'not-checked': 'know',
  'open-item': 'find',
}

/** The same as gates say them. */
export const lineTexts = (sheet: DriveSheet, lines: readonly Line[]): string[] =>
  lines.map((l) => `${lineText(sheet, l)}.`)

/** A line in words, with what its row is called on the sheet. */
export const lineText = (sheet: DriveSheet, { code, on }: Pick<Line, 'code' | 'on'>): string =>
  LINE_TEXTS[code](objectName(sheet, ABOUT[code], on))
