import { InputError, type FieldProblem } from '../checks/input-error.ts'

/** A place where a stack of shims sits. */
export interface ShimLocation {
  id: string
  /** Thickness with which the quantities were measured, mm. */
  currentMm: number
  minMm: number
  maxMm: number
  maxPieces: number
  /** Leave this stack as it is (no pieces taken for it). @default false */
  fixed?: boolean
}

/** Something measured that must end in a window. All of one unit, usually mm. */
export interface ShimQuantity {
  id: string
  measured: number
  /** Standard uncertainty of `measured`. */
  u: number
  window: { min: number; max: number }
  target: number
  /** Change of the quantity per mm of stack at a location; a location left out has none. */
  sensitivity: Record<string, number>
  /** Relative standard uncertainty of this quantity's sensitivities; overrides `sensitivityRelU`. */
  relU?: number
}

/** A line of the drawer: pieces of one measured thickness. */
export interface ShimPiece {
  id: string
  thicknessMm: number
  count: number
}

export interface ShimSolveInput {
  locations: ShimLocation[]
  quantities: ShimQuantity[]
  pieces: ShimPiece[]
  /** Relative standard uncertainty of every sensitivity. @default 0 */
  sensitivityRelU?: number
  /** How many plans to return. @default 3 */
  plans?: number
  /** Thicknesses that can be ordered, mm. @default 0.05 to 1.00 in steps of 0.05 */
  orderSeriesMm?: number[]
  /** Stop after so many search nodes and say so (`provedOptimal: false`). @default 5 000 000 */
  maxNodes?: number
}

/** The input with every option filled in and every table laid flat for the search. */
export interface ShimProblem {
  locations: Required<ShimLocation>[]
  quantities: ShimQuantity[]
  /** Lines with stock, sorted by id: the order in which piece ids are compared. */
  lines: ShimPiece[]
  /** Row per quantity, column per location: sensitivity[q * L + l]. */
  sensitivity: Float64Array
  /** Relative uncertainty of the sensitivities, one for each quantity. */
  relU: Float64Array
  plans: number
  orderSeriesMm: number[]
  maxNodes: number
}

/** Slack for comparing sums of thicknesses with limits, mm: far below any gauge, far above round-off. */
export const THICKNESS_SLACK_MM = 1e-9

const DEFAULT_SERIES = Array.from({ length: 20 }, (_, i) => (i + 1) / 20)

/**
 * Checks the input and resolves the options.
 * @throws InputError naming every field that cannot be: a stack that cannot be, 0 mm pieces, a window
 *   upside down, a target outside its window, an unknown location in a sensitivity, ids used twice
 */
export function resolveShimProblem(input: ShimSolveInput): ShimProblem {
  const problems: FieldProblem[] = []
  const say = (path: string, message: string) => problems.push({ path, message })
  const number = (path: string, v: number, ok: (v: number) => boolean, allowed: string) => {
    if (!Number.isFinite(v) || !ok(v)) say(path, `is ${String(v)}; ${allowed}`)
  }

  sizes(input, say)
  if (problems.length) throw new InputError('invalid-input', problems)

  unique('locations', input.locations, say)
  unique('quantities', input.quantities, say)
  unique('pieces', input.pieces, say)

  input.locations.forEach((l, i) => {
    const at = `locations[${i}]`
    number(`${at}.currentMm`, l.currentMm, (v) => v >= 0, 'a stack is 0 mm or more')
    number(`${at}.minMm`, l.minMm, (v) => v >= 0, 'a stack is 0 mm or more')
    number(`${at}.maxMm`, l.maxMm, (v) => v >= 0, 'a stack is 0 mm or more')
    if (l.minMm > l.maxMm)
      say(at, `cannot be: its smallest stack ${l.minMm} mm is above its largest ${l.maxMm} mm`)
    number(
      `${at}.maxPieces`,
      l.maxPieces,
      (v) => Number.isInteger(v) && v >= 0 && v <= 8,
      'whole, 0 to 8 pieces',
    )
    if (!l.fixed && l.maxPieces === 0 && l.minMm > 0)
      say(`${at}.maxPieces`, `is 0, but the smallest stack is ${l.minMm} mm; allow at least one piece`)
  })
  const known = new Set(input.locations.map((l) => l.id))
  input.quantities.forEach((q, i) => {
    const at = `quantities[${i}]`
    number(`${at}.measured`, q.measured, () => true, 'a finite number is needed')
    number(`${at}.u`, q.u, (v) => v >= 0, 'an uncertainty is 0 or more')
    number(`${at}.window.min`, q.window.min, () => true, 'a finite number is needed')
    number(`${at}.window.max`, q.window.max, () => true, 'a finite number is needed')
    if (q.window.min >= q.window.max)
      say(`${at}.window`, `is upside down: smallest ${q.window.min}, largest ${q.window.max}; swap the two`)
    else
      number(
        `${at}.target`,
        q.target,
        (v) => v >= q.window.min && v <= q.window.max,
        `it must lie in its window ${q.window.min} to ${q.window.max}`,
      )
    if (q.relU !== undefined) number(`${at}.relU`, q.relU, (v) => v >= 0 && v <= 1, 'between 0 and 1')
    for (const [id, s] of Object.entries(q.sensitivity)) {
      if (!known.has(id))
        say(`${at}.sensitivity.${id}`, `names no location; known are ${[...known].join(', ')}`)
      number(`${at}.sensitivity.${id}`, s, (v) => Math.abs(v) <= 100, 'a size of at most 100 mm per mm')
    }
  })
  input.pieces.forEach((p, i) => {
    const at = `pieces[${i}]`
    number(
      `${at}.thicknessMm`,
      p.thicknessMm,
      (v) => v > 0 && v <= 50,
      'a piece is thicker than 0 and at most 50 mm',
    )
    number(
      `${at}.count`,
      p.count,
      (v) => Number.isInteger(v) && v >= 0,
      'a count is a whole number, 0 or more',
    )
  })
  const relU = input.sensitivityRelU ?? 0
  number('sensitivityRelU', relU, (v) => v >= 0 && v <= 1, 'between 0 and 1')
  const plans = input.plans ?? 3
  number('plans', plans, (v) => Number.isInteger(v) && v >= 1 && v <= 10, 'whole, 1 to 10')
  const series = input.orderSeriesMm ?? DEFAULT_SERIES
  if (series.length > 60) say('orderSeriesMm', `has ${series.length} thicknesses; at most 60`)
  series.forEach((t, i) =>
    number(`orderSeriesMm[${i}]`, t, (v) => v > 0 && v <= 50, 'thicker than 0 and at most 50 mm'),
  )
  const maxNodes = input.maxNodes ?? 5_000_000
  number(
    'maxNodes',
    maxNodes,
    (v) => Number.isInteger(v) && v >= 1 && v <= 50_000_000,
    'whole, 1 to 50 000 000',
  )
  if (problems.length) throw new InputError('invalid-input', problems)

  const L = input.locations.length
  const sensitivity = new Float64Array(input.quantities.length * L)
  input.quantities.forEach((q, i) =>
    input.locations.forEach((l, k) => {
      sensitivity[i * L + k] = q.sensitivity[l.id] ?? 0
    }),
  )
  return {
    locations: input.locations.map((l) => ({ ...l, fixed: l.fixed ?? false })),
    quantities: input.quantities,
    lines: input.pieces.filter((p) => p.count > 0).sort((a, b) => (a.id < b.id ? -1 : 1)),
    sensitivity,
    relU: Float64Array.from(input.quantities, (q) => q.relU ?? relU),
    plans,
    orderSeriesMm: series,
    maxNodes,
  }
}

type Say = (path: string, message: string) => void

function sizes(input: ShimSolveInput, say: Say) {
  const range = (path: string, n: number | undefined, min: number, max: number) => {
    if (n === undefined || n < min || n > max)
      say(path, `has ${n ?? 0} entries; ${min} to ${max} are possible`)
  }
  range('locations', input.locations?.length, 1, 8)
  range('quantities', input.quantities?.length, 1, 16)
  range('pieces', input.pieces?.length, 0, 400)
}

function unique(path: string, rows: { id: string }[], say: Say) {
  const seen = new Set<string>()
  rows.forEach((row, i) => {
    if (seen.has(row.id)) say(`${path}[${i}].id`, `"${row.id}" is used twice; every id must be its own`)
    seen.add(row.id)
  })
}
