/**
 * A step can come up several times: what was closed and is opened again is drained, closed and filled again. The first time it goes by its own id, later by
 * the id with a number: `drain`, `drain-2`.
 */
const AGAIN = /^(.+)-(\d+)$/

/** The step that this is an occurrence of. */
export const baseOf = (step: string): string => AGAIN.exec(step)?.[1] ?? step

/** Which time it is; counts from 1. */
export const timeOf = (step: string): number => Number(AGAIN.exec(step)?.[2] ?? 1)

export const occurrenceOf = (base: string, time: number): string => (time === 1 ? base : `${base}-${time}`)
