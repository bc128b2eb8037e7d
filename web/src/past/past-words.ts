import type { PastJob } from '@moray/contract/found'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { settableAdjusters } from '@moray/core/drives/sheet'
import type { LeakTestId } from '@moray/core/route/step-ids'
import { unitOf } from '@moray/core/setting/measures'
import type { useUnits } from '../ui/units.ts'

type Units = ReturnType<typeof useUnits>

/** What is compared from job to job: stacks and measures of the drive, in its order. */
export interface Figure {
  id: string
  label: string
  unit: 'mm' | 'Nm'
  of: (job: PastJob) => number | undefined
}

export function figuresOf(sheet: DriveSheet): Figure[] {
  return [
    ...settableAdjusters(sheet).map((a): Figure => ({
      id: `stack ${a.id}`,
      label: a.label,
      unit: 'mm',
      of: (j) => j.stacks[a.id],
    })),
    ...sheet.measures.map((m): Figure => ({
      id: `read ${m.id}`,
      label: m.label,
      unit: unitOf(m) === 'mm' ? 'mm' : 'Nm',
      of: (j) => j.reads[m.id],
    })),
  ]
}

const TESTS: Record<LeakTestId, string> = {
  'leak-found': 'as found',
  'leak-found-joined': 'as found, joined',
  'leak-case': 'case',
  'leak-joined': 'joined',
}

/** A closed test in a line: what it was of, from which pressure to which, in how many minutes. */
export function testText({ step, answers }: PastJob['tests'][number], units: Units): string {
  const number = (name: string) => {
    const value = answers[`${step}.${name}`]
    return typeof value === 'number' ? value : undefined
  }
  const [start, end, minutes] = [number('start'), number('end'), number('minutes')]
  const kPa = (v: number) => units.value(v, 'kPa')
  const fell = start !== undefined && end !== undefined ? ` ${kPa(start)} to ${kPa(end)}` : ''
  return `${TESTS[step as LeakTestId] ?? step}${fell}${minutes === undefined ? '' : ` in ${minutes} min`}`
}
