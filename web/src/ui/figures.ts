import { plainNumber } from '@moray/core/units/plain-number'

/** A figure as typed: its value, or what is wrong with it and what would be right. */
export function readFigure(text: string, options: { min?: number; max?: number; empty?: number } = {}) {
  const { min = 0, max = 1_000_000, empty } = options
  const typed = text.trim()
  if (typed === '')
    return empty === undefined ? { why: `a figure from ${min} to ${max} is needed` } : { value: empty }
  const value = plainNumber(typed)
  if (value === undefined)
    return { why: `"${typed}" is not a number; a figure from ${min} to ${max} is needed` }
  if (value < min || value > max) return { why: `is ${value}; from ${min} to ${max} is possible` }
  return { value }
}
