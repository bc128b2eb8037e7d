import { format } from 'date-fns'

/** The one form of a date in Moray, on screen and on paper: `25 Nov 2026`. */
export const showDate = (at: string | Date): string => format(new Date(at), 'd MMM yyyy')

/** A date with its time of day, where the reader is: `25 Nov 2026 08:23`. */
export const showTime = (at: string | Date): string => format(new Date(at), 'd MMM yyyy HH:mm')
