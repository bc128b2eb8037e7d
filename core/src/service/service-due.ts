import { refuse } from '../checks/input-error.ts'
import { finite, notNegative, positive, whole } from '../checks/numbers.ts'
import { lineFit } from '../numbers/least-squares.ts'

export interface ServiceDueInput {
  /** Day of the last service, `2025-10-08`, and the hours then. */
  lastOn: string
  lastHours: number
  /** Interval in months, in hours, or both: what comes first counts. */
  months?: number
  hours?: number
  /** Hours as they were read since, in order. */
  log: { on: string; hours: number }[]
  /** Shortens both intervals: 0.5 in salt. @default 1 */
  factor?: number
}

export interface ServiceDue {
  dueOn: string
  by: 'date' | 'hours'
  /** Running hours per day by the log; only with two entries or more, and a rate above zero. */
  hoursPerDay?: number
}

const DAY_MS = 86_400_000

/** Days since 1970 of a day of the calendar. @throws InputError unless it is one */
function dayOf(path: string, text: string): number {
  const ms = /^\d{4}-\d\d-\d\d$/.test(text) ? Date.parse(`${text}T00:00:00Z`) : NaN
  if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== text)
    refuse(path, `is "${text}"; a day like 2025-10-08 is needed`)
  return ms / DAY_MS
}
/** Last day that a calendar of four-digit years knows. */
const LAST_DAY = Date.UTC(9999, 11, 31) / DAY_MS

function textOf(day: number): string {
  if (!(day <= LAST_DAY))
    refuse('hours', 'are so far off that no calendar holds the day; look at the log', 'out-of-range')
  return new Date(day * DAY_MS).toISOString().slice(0, 10)
}

/** Some months later; the last day of a shorter month. */
function addMonths(day: number, months: number): number {
  const from = new Date(day * DAY_MS)
  const first = Date.UTC(from.getUTCFullYear(), from.getUTCMonth() + months, 1)
  const last = new Date(Date.UTC(from.getUTCFullYear(), from.getUTCMonth() + months + 1, 0)).getUTCDate()
  return first / DAY_MS + Math.min(from.getUTCDate(), last) - 1
}

/**
 * When a service is due: months × factor (rounded to whole months) from the last one, or the day on which the hours run out at the rate of the
 * log (least squares), whichever comes first; the date on a tie.
 * @throws InputError without an interval, on days that are none or out of order, on hours that run back
 */
export function serviceDue(input: ServiceDueInput): ServiceDue {
  const last = dayOf('lastOn', input.lastOn)
  const lastHours = notNegative('lastHours', input.lastHours)
  const factor = positive('factor', input.factor ?? 1)
  if (input.months === undefined && input.hours === undefined)
    refuse('months', 'is missing; give the interval in months, in hours, or both')
  const log = input.log.map((e, i) => ({
    day: dayOf(`log[${i}].on`, e.on),
    hours: finite(`log[${i}].hours`, e.hours),
  }))
  log.forEach((e, i) => {
    const before = log[i - 1] ?? { day: last, hours: lastHours }
    if (e.day < before.day) refuse(`log[${i}].on`, `is ${input.log[i]!.on}, before the entry that it follows`)
    if (e.hours < before.hours)
      refuse(`log[${i}].hours`, `is ${e.hours}; the hours have run back from ${before.hours}`)
  })
  const due: { day: number; by: 'date' | 'hours' }[] = []
  if (input.months !== undefined)
    due.push({ day: addMonths(last, Math.round(whole('months', input.months, 1, 600) * factor)), by: 'date' })
  const rate =
    log.length >= 2
      ? lineFit(
          log.map((e) => e.day),
          log.map((e) => e.hours),
        )?.slope
      : undefined
  const perDay = rate !== undefined && rate > 0 ? rate : undefined
  if (input.hours !== undefined) {
    const until = lastHours + positive('hours', input.hours) * factor
    const now = log.at(-1)
    if (perDay !== undefined && now)
      due.push({ day: now.day + Math.ceil((until - now.hours) / perDay), by: 'hours' })
    else if (input.months === undefined)
      refuse(
        'log',
        'does not say how many hours a day it runs; two entries that rise are needed, or an interval in months',
      )
  }
  const first = due.reduce((a, b) => (b.day < a.day ? b : a))
  return { dueOn: textOf(first.day), by: first.by, ...(perDay === undefined ? {} : { hoursPerDay: perDay }) }
}
