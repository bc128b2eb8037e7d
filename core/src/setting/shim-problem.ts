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
  /** No stack but a carrier in its thread: moved in whole steps of this from where it stands, without pieces. mm */
  stepMm?: number
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
  /** The same for single stacks; overrides `relU` there. */
  relUByStack?: Record<string, number>
}

/** A line of the drawer: pieces of one measured thickness. */
export interface ShimPiece {
  id: string
  thicknessMm: number
  count: number
  /** A piece that can be made thinner before it goes in; see {@link pieceCuts}. */
  cut?: PieceCut
}

/** How a piece can be made thinner: layers peeled off a laminated shim, or a spacer ground down. */
export type PieceCut =
  | { kind: 'laminated'; layerMm: number; minMm: number }
  | { kind: 'ground'; stepMm: number; minMm: number }

/**
 * A thickness that a line of the drawer can give. A line that can be cut stands here once for its full thickness and
 * once for every thickness that it can be brought to; all of them draw on the same pieces.
 */
export interface StockLine {
  id: string
  thicknessMm: number
  /** Index of the stock that it draws on: every variant of a line has the same. */
  stock: number
  count: number
  /** True when the piece has to be peeled or ground to this thickness. */
  thinned: boolean
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
  locations: (Required<Omit<ShimLocation, 'stepMm'>> & Pick<ShimLocation, 'stepMm'>)[]
  quantities: ShimQuantity[]
  /** Thicknesses with stock, sorted by id (the order in which piece ids are compared), a line's own ones thickest first. */
  lines: StockLine[]
  /** Row per quantity, column per location: sensitivity[q * L + l]. */
  sensitivity: Float64Array
  /** Relative uncertainty of the sensitivities, in the same table: relU[q * L + l]. */
  relU: Float64Array
  plans: number
  orderSeriesMm: number[]
  maxNodes: number
}

/** Slack for comparing sums of thicknesses with limits, mm: far below any gauge, far above round-off. */
export const THICKNESS_SLACK_MM = 1e-9

/** At least this much comes off a piece at a time, mm: less no bench can do. */
export const LEAST_CUT_MM = 0.001
/** Thicknesses that one line may be brought to. */
export const MOST_CUTS_OF_A_PIECE = 500

/** Thicknesses that all cut pieces of one drawer may be brought to, together. */
export const MOST_CUTS = 2000

/**
 * The thicknesses below its full one that a piece can be brought to, thickest first: full − k · step, down to `minMm`.
 * A laminated shim loses whole layers, a ground spacer whole steps of the machine.
 */
export function pieceCuts(piece: ShimPiece): number[] {
  const step = piece.cut ? cutStep(piece.cut) : 0
  return Array.from({ length: cutCount(piece) }, (_, k) => piece.thicknessMm - (k + 1) * step)
}

const cutStep = (cut: PieceCut) => (cut.kind === 'laminated' ? cut.layerMm : cut.stepMm)

/** How many thicknesses {@link pieceCuts} gives, without making them. */
function cutCount({ cut, thicknessMm }: ShimPiece): number {
  if (!cut) return 0
  const step = cutStep(cut)
  return Math.max(0, Math.floor((thicknessMm - cut.minMm) / step + THICKNESS_SLACK_MM / step))
}

/**
 * Pieces as far as they can serve: a blank that is thicker than every stack, even at its thinnest, is not asked about; and of a drawer in which more can be cut
 * than one search may look at, the later lines are offered as they are.
 * @param largestMm the largest stack that is looked for
 */
export function servable(pieces: readonly ShimPiece[], largestMm: number): ShimPiece[] {
  let left = MOST_CUTS
  return pieces.flatMap((p): ShimPiece[] => {
    const thinnest = p.cut?.minMm ?? p.thicknessMm
    if (p.cut && thinnest > largestMm + THICKNESS_SLACK_MM) return []
    const { cut: _cut, ...whole } = p
    const cuts = cutCount(p)
    if (cuts > left) return [whole]
    left -= cuts
    return [p]
  })
}

/** Lays the drawer's lines out as thicknesses. */
export function stockLines(pieces: readonly ShimPiece[]): StockLine[] {
  return pieces
    .filter((p) => p.count > 0)
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .flatMap((p, stock) => [
      { id: p.id, thicknessMm: p.thicknessMm, stock, count: p.count, thinned: false },
      ...pieceCuts(p).map((thicknessMm) => ({ id: p.id, thicknessMm, stock, count: p.count, thinned: true })),
    ])
}

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
    if (l.stepMm !== undefined)
      number(`${at}.stepMm`, l.stepMm, (v) => v >= 0.001 && v <= 10, 'a step of 0.001 to 10 mm')
    else if (!l.fixed && l.maxPieces === 0 && l.minMm > 0)
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
    for (const [id, v] of Object.entries(q.relUByStack ?? {}))
      number(`${at}.relUByStack.${id}`, v, (x) => x >= 0 && x <= 1, 'between 0 and 1')
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
    if (!p.cut) return
    const [name, step] =
      p.cut.kind === 'laminated' ? (['layerMm', p.cut.layerMm] as const) : (['stepMm', p.cut.stepMm] as const)
    number(
      `${at}.cut.${name}`,
      step,
      (v) => v >= LEAST_CUT_MM,
      `at least ${LEAST_CUT_MM} mm comes off at a time`,
    )
    number(
      `${at}.cut.minMm`,
      p.cut.minMm,
      (v) => v > 0 && v <= p.thicknessMm,
      `what is left is thicker than 0 and at most the piece itself, ${p.thicknessMm} mm`,
    )
  })
  if (!problems.length) {
    const cuts = input.pieces.reduce((n, p) => n + cutCount(p), 0)
    if (cuts > MOST_CUTS)
      say('pieces', `can be cut to ${cuts} thicknesses; at most ${MOST_CUTS}. Use coarser steps`)
  }
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
  const relative = new Float64Array(input.quantities.length * L)
  input.quantities.forEach((q, i) =>
    input.locations.forEach((l, k) => {
      sensitivity[i * L + k] = q.sensitivity[l.id] ?? 0
      relative[i * L + k] = q.relUByStack?.[l.id] ?? q.relU ?? relU
    }),
  )
  return {
    locations: input.locations.map((l) => ({ ...l, fixed: l.fixed ?? false })),
    quantities: input.quantities,
    lines: stockLines(input.pieces),
    sensitivity,
    relU: relative,
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
