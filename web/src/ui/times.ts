import { formatDate, formatTimeAgo } from '@vueuse/core'

const inEnglish = { locales: 'en-US' }

/** The one form of a date in Moray, on screen and on paper: `25 Nov 2026`. */
export const showDate = (at: string | Date): string => formatDate(new Date(at), 'D MMM YYYY', inEnglish)

/** A date with its time of day, where the reader is: `25 Nov 2026 08:23`. */
export const showTime = (at: string | Date): string => formatDate(new Date(at), 'D MMM YYYY HH:mm', inEnglish)

/** The time of day, where the reader is: `08:23`. */
export const showClock = (at: string | Date): string => formatDate(new Date(at), 'HH:mm')

/** A day as a field for dates takes it: `2026-11-25`. */
export const dayField = (at: Date): string => formatDate(at, 'YYYY-MM-DD')

const counted = (unit: string) => (n: number) => `${n} ${unit}${n === 1 ? '' : 's'}`
/** Always counted: a last week and a next year are not what they are called, a year and four months from now least of all. */
const COUNTED = {
  justNow: 'just now',
  past: (words: string | number) => `${words} ago`,
  future: (words: string | number) => `in ${words}`,
  invalid: '',
  second: counted('second'),
  minute: counted('minute'),
  hour: counted('hour'),
  day: counted('day'),
  week: counted('week'),
  month: counted('month'),
  year: counted('year'),
}

/** How long ago, or in how long: `3 days ago`, `in 2 months`. */
export const showAgo = (at: string | Date): string => formatTimeAgo(new Date(at), { messages: COUNTED })
