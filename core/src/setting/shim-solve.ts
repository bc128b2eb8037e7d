import { probabilityInWindow } from '../numbers/normal.ts'
import { searchBoxes, type BoxSearch } from './box-search.ts'
import { supply } from './joint-stock.ts'
import { closenessBound, landingBound, predict, type BoxScore } from './landing.ts'
import { couplings, LandingBox, nearestIndex } from './landing-box.ts'
import { resolveShimProblem, type ShimProblem, type ShimSolveInput, type StockLine } from './shim-problem.ts'
import {
  classesWithPieces,
  fixedCandidate,
  stackCandidateSteps,
  steppedCandidates,
  type StackCandidates,
  type SearchBudget,
} from './stack-candidates.ts'

export interface PlannedStack {
  thicknessMm: number
  /** Ids of drawer lines, sorted, one for every piece. */
  pieceIds: string[]
  /** The one piece that has to be peeled or ground before it goes in, and to what. */
  thin?: { pieceId: string; toMm: number }
}

export interface Prediction {
  value: number
  U: number
  /** Probability that this one quantity lands in its window. */
  probability: number
}

export interface ShimPlan {
  stacks: Record<string, PlannedStack>
  predicted: Record<string, Prediction>
  /** Joint probability that every quantity lands in its window. */
  probability: number
  pieces: number
}

export interface OrderSuggestion {
  thicknessMm: number
  /** Pieces of this thickness that the plan takes. */
  count: number
  probability: number
}

export interface ShimSolveResult {
  status: 'fit' | 'no-fit'
  /** True when the search was complete: no better plan exists in that drawer. */
  provedOptimal: boolean
  /** Highest joint probability of any plan that the drawer allows; where nothing fits, to within 0.001. */
  bestProbability: number
  plans: ShimPlan[]
  /** When nothing fits: how far the closest plan leaves each quantity outside its window (0 inside). */
  shortfall?: Record<string, number>
  /** When nothing fits, or less than was asked for has a chance: single thicknesses that would do (better), best first. */
  orderSuggestions?: OrderSuggestion[]
  /** Boxes looked at, over all stages. */
  nodes: number
}

export interface SolveProgress {
  stage: 'stacks that can be made' | 'best probability' | 'fewest pieces' | 'closest plan' | 'what to order'
  /** Boxes looked at so far. */
  nodes: number
  /** Most that any plan can still have above the best one found: 0 once the probability is proved. */
  gap: number
  /** The most probable plan found so far; the one to build may have fewer pieces. Made when it is read. */
  readonly plan?: ShimPlan
}

/** Below this probability a plan is not worth closing the case for. */
export const FIT = 0.02
/** A drawer with fewer plans than were asked for is told what to order, unless its best one is as good as certain. */
const SURE = 0.9
/** Share of the budget that is kept back for the search for the fewest pieces. */
const KEPT_BACK = 0.1
/** Times round for the very first plan. */
const FIRST_ROUNDS = 4
/** Where nothing fits, how much a plan may be more probable than the one that is named: neither is worth building. */
const CLOSE_ENOUGH = 0.001
/** Plans this close to the best probability count as equally good; the fewest pieces decide. */
const BAND = 0.005

interface Found {
  /** The pieces of every location. */
  lines: StockLine[][]
  thickness: Float64Array
  score: number
  pieces: number
  /** All ids in order, to be compared with those of another plan. */
  ids: string
}

/**
 * Exact choice of shim stacks out of a drawer.
 *
 * The order of plans: P* is the highest joint probability any feasible plan has. Among plans with
 * P ≥ P* − 0.005 the fewest pieces win, then the higher P, then the piece ids that sort first. Plans returned
 * differ in at least one stack's thickness; when the band holds fewer than asked, the next by P follow.
 * Plans with P < 0.02 are not offered. When P* < 0.02 nothing fits: the plans with the least Σ((predicted − target)/half window)² are returned,
 * with shortfalls, and the single extra thicknesses whose purchase would make it fit.
 *
 * How it stays fast and exact: (1) a search over stacks of at most two pieces gives a first P, and a first plan; (2) each
 * location's interval is narrowed to where P ≥ P_first − 0.005 is still possible; (3) only the stacks inside
 * are enumerated and put into classes of equal thickness; (4) branch and bound over boxes of classes finds P*: the location on
 * which most quantities hang together is cut first, and as soon as the rest no longer compete the bound is the answer
 * (landing-box.ts); (5) the number of pieces is raised from the smallest, and for every way to share them out the same
 * search runs on the few classes with exactly that many pieces. Joint stock is checked wherever a combination is taken.
 *
 * @throws InputError naming the field; see resolveShimProblem
 */
export function shimSolve(input: ShimSolveInput): ShimSolveResult {
  const steps = shimSolveSteps(input)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/** The same, in steps: yields progress every few thousand nodes, so that a worker can be cancelled. */
export function* shimSolveSteps(input: ShimSolveInput): Generator<SolveProgress, ShimSolveResult> {
  const problem = resolveShimProblem(input)
  const search = new ShimSearch(problem)

  // what finds a plan leaves something of the budget to what makes it one with few pieces
  search.budget.max = Math.floor(problem.maxNodes * (1 - KEPT_BACK))
  const narrow = yield* search.findBest()
  search.budget.max = problem.maxNodes
  if (search.best >= FIT) {
    const plans = yield* search.fewestPieces(narrow)
    if (plans.length < problem.plans) yield* search.fillUp(plans)
    search.keepBest(plans)
    const result = search.result('fit', plans)
    if (plans.length < problem.plans && search.best < SURE) {
      const better = yield* orderSuggestions(problem, search, search.best + BAND)
      if (better.length) result.orderSuggestions = better
      result.nodes = search.budget.nodes
    }
    return result
  }
  const all = yield* search.candidates(search.wholeRange())
  const closest = yield* search.closest(all)
  search.keepBest(closest)
  for (const plan of closest) search.best = Math.max(search.best, search.landingOf(plan.thickness))
  yield* search.raiseBest(all, true, search.best + CLOSE_ENOUGH)
  const result = search.result('no-fit', closest)
  if (closest[0]) result.shortfall = shortfallOf(problem, closest[0].thickness)
  const suggestions = yield* orderSuggestions(problem, search, FIT)
  if (suggestions.length) result.orderSuggestions = suggestions
  result.provedOptimal = search.complete
  result.nodes = search.budget.nodes
  return result
}

type Range = { lo: Float64Array; hi: Float64Array }

/** One problem being searched: the bounds, the budget and the best found so far. */
class ShimSearch {
  readonly problem: ShimProblem
  readonly landing: BoxScore
  readonly weight: Float64Array
  readonly budget: SearchBudget
  complete = true
  /** Highest joint probability seen in a plan that the drawer can supply. */
  best = 0
  /** The plan that has it. */
  private bestFound: Found | undefined
  /** No plan can have more than this. */
  private ceiling: number

  constructor(problem: ShimProblem, budget?: SearchBudget) {
    this.problem = problem
    this.landing = landingBound(problem)
    this.budget = budget ?? { nodes: 0, max: problem.maxNodes }
    const L = problem.locations.length
    this.weight = new Float64Array(L)
    problem.quantities.forEach((quantity, q) => {
      const scale = Math.max(quantity.u, (quantity.window.max - quantity.window.min) / 2)
      for (let l = 0; l < L; l++) this.weight[l]! += Math.abs(problem.sensitivity[q * L + l]!) / scale
    })
    // a location that moves nothing must still be cut down to single classes
    for (let l = 0; l < L; l++) if (this.weight[l] === 0) this.weight[l] = 1e-9
    const { lo, hi } = this.wholeRange()
    this.ceiling = this.landing(lo, hi)
  }

  /** What is known at this moment. */
  progress(stage: SolveProgress['stage']): SolveProgress {
    const found = this.bestFound
    const plan = found && (() => this.plan(found))
    return {
      stage,
      nodes: this.budget.nodes,
      gap: Math.max(0, this.ceiling - this.best),
      get plan() {
        return plan?.()
      },
    }
  }

  wholeRange(): Range {
    const { locations } = this.problem
    return {
      lo: Float64Array.from(locations, (l) => (l.fixed ? l.currentMm : l.minMm)),
      hi: Float64Array.from(locations, (l) => (l.fixed ? l.currentMm : l.maxMm)),
    }
  }

  /** What every location can take within the range; locations with the same limits share one list. */
  *candidates(range: Range, mostPieces = Infinity): Generator<SolveProgress, StackCandidates[]> {
    const lists = new Map<string, StackCandidates>()
    const candidates: StackCandidates[] = []
    for (const [i, l] of this.problem.locations.entries()) {
      if (l.fixed) {
        candidates.push(fixedCandidate(l.currentMm))
        continue
      }
      if (l.stepMm !== undefined) {
        const stepped = steppedCandidates(l.currentMm, l.stepMm, range.lo[i]!, range.hi[i]!)
        if (!stepped.complete) this.complete = false
        candidates.push(stepped)
        continue
      }
      const most = Math.min(l.maxPieces, mostPieces)
      const key = `${most} ${range.lo[i]} ${range.hi[i]}`
      let list = lists.get(key)
      if (!list) {
        const steps = stackCandidateSteps(this.problem.lines, most, range.lo[i]!, range.hi[i]!, this.budget)
        let step = steps.next()
        for (; !step.done; step = steps.next()) yield this.progress('stacks that can be made')
        list = step.value
        lists.set(key, list)
      }
      candidates.push(list)
    }
    if (mostPieces === Infinity && candidates.some((c) => !c.complete)) this.complete = false
    return candidates
  }

  landingOf(thickness: Float64Array): number {
    return this.landing(thickness, thickness)
  }

  /** Stages 1 to 4. Leaves P* in `best` (exact when ≥ FIT) and returns the candidates of the narrowed range. */
  *findBest(): Generator<SolveProgress, StackCandidates[]> {
    const whole = this.wholeRange()
    const few = yield* this.candidates(whole, 2)
    this.firstPlan(few)
    yield this.progress('best probability')
    yield* this.raiseBest(few, false, FIT)
    yield this.progress('best probability')
    const range = this.narrowed(whole, Math.max(this.best - BAND, FIT - BAND))
    if (!range) return []
    const all = yield* this.candidates(range)
    yield* this.raiseBest(all, true, FIT)
    return all
  }

  /**
   * A plan in no time, so that there is one to show: each location in turn takes the stack that brings the quantities nearest to their targets,
   * the others standing, a few times round. With the others standing Σ((predicted − target) / half window)² is a parabola in its thickness, so
   * the nearest stack to its lowest point is looked up, whatever the number on offer. None where the drawer cannot supply what that comes to.
   */
  private firstPlan(candidates: StackCandidates[]): void {
    if (candidates.some((c) => c.thickness.length === 0)) return
    const { quantities, sensitivity, locations } = this.problem
    const L = locations.length
    const classes = new Int32Array(L)
    const thickness = Float64Array.from(locations, (l) => l.currentMm)
    for (let round = 0; round < FIRST_ROUNDS; round++)
      for (const [l, { thickness: offered }] of candidates.entries()) {
        let slope = 0
        let curve = 0
        quantities.forEach(({ target, window }, q) => {
          const j = sensitivity[q * L + l]! / ((window.max - window.min) / 2)
          const off = (predict(this.problem, q, thickness).value - target) / ((window.max - window.min) / 2)
          slope += j * off
          curve += j * j
        })
        const lowest = curve > 0 ? thickness[l]! - slope / curve : thickness[l]!
        classes[l] = nearestIndex(offered, lowest, 0, offered.length - 1)
        thickness[l] = offered[classes[l]]!
      }
    const found = this.found(candidates, classes, this.landingOf(thickness))
    if (!found) return
    this.bestFound = found
    this.best = Math.max(this.best, found.score)
  }

  /**
   * Raises `best` to the highest P among the candidates.
   * @param all whether no plan outside the candidates can have more
   * @param least what is not above this is not looked for
   */
  *raiseBest(candidates: StackCandidates[], all: boolean, least: number): Generator<SolveProgress, void> {
    // just below, so that what reaches it is found
    const from = least * (1 - 1e-12)
    /** Whether the drawer can supply it. */
    const take = (classes: Int32Array, score: number) => {
      const found = this.found(candidates, classes, score)
      if (found && score > this.best) {
        this.best = score
        this.bestFound = found
      }
      return found !== undefined
    }
    const thickness = thicknesses(candidates)
    const box = new LandingBox(this.problem, thickness)
    const steps = searchBoxes({
      sizes: thickness.map((t) => t.length),
      score: (b) => box.score(b),
      cut: couplings(this.problem, thickness, this.weight),
      floor: () => Math.max(this.best, from),
      keepTies: false,
      leaf: take,
      settled: (score) => box.exact && take(box.at, score),
      budget: this.budget,
    })
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) {
        if (!step.value) this.complete = false
        else if (all) this.ceiling = Math.max(this.best, from)
        return
      }
      if (all) this.ceiling = Math.min(this.ceiling, Math.max(this.best, step.value.bound))
      yield this.progress('best probability')
    }
  }

  /** Cuts every location's interval down to where `threshold` can still be reached; undefined when nowhere. */
  private narrowed(whole: Range, threshold: number): Range | undefined {
    const SLICES = 96
    const lo = whole.lo.slice()
    const hi = whole.hi.slice()
    for (let round = 0; round < 3; round++)
      for (let l = 0; l < lo.length; l++) {
        const [a, b] = [lo[l]!, hi[l]!]
        if (a === b) continue
        const step = (b - a) / SLICES
        let first = -1
        let last = -1
        for (let i = 0; i < SLICES; i++) {
          lo[l] = a + i * step
          hi[l] = i === SLICES - 1 ? b : a + (i + 1) * step
          if (this.landing(lo, hi) < threshold) continue
          if (first < 0) first = i
          last = i
        }
        if (first < 0) return undefined
        lo[l] = a + first * step
        hi[l] = last === SLICES - 1 ? b : a + (last + 1) * step
      }
    return this.landing(lo, hi) < threshold ? undefined : { lo, hi }
  }

  /** Stage 5: the plans of the band, fewest pieces first. */
  *fewestPieces(candidates: StackCandidates[]): Generator<SolveProgress, Found[]> {
    const { locations, plans: wanted } = this.problem
    const threshold = this.best - BAND
    const most = locations.map((l) => (l.fixed || l.stepMm !== undefined ? 0 : l.maxPieces))
    const byPieces = candidates.map((c, l) =>
      Array.from({ length: most[l]! + 1 }, (_, k) => classesWithPieces(c, k)),
    )
    const plans: Found[] = []
    const total = most.reduce((a, b) => a + b, 0)
    for (let pieces = 0; pieces <= total && plans.length < wanted; pieces++) {
      const level: Found[] = []
      const room = wanted - plans.length
      for (const share of shares(pieces, most)) {
        const sets = share.map((k, l) => byPieces[l]![k]!)
        if (sets.some((s) => s.length === 0)) continue
        const classes = new Int32Array(share.length)
        yield* this.run('fewest pieces', candidates, {
          sets,
          floor: () =>
            level.length < room ? threshold : Math.max(threshold, level[level.length - 1]!.score),
          keepTies: true,
          leaf: (index, score) => {
            for (let l = 0; l < index.length; l++) classes[l] = sets[l]![index[l]!]!
            const found = this.found(candidates, classes, score, share)
            if (found && !plans.some((p) => sameThickness(p, found))) insert(level, found, room)
          },
        })
      }
      plans.push(...level)
    }
    return plans
  }

  /** Where the search was cut short before its last stage came to the best plan: it is there all the same, and stands first. */
  keepBest(plans: Found[]): void {
    const found = this.bestFound
    if (!found || this.complete || plans.some((p) => sameThickness(p, found) || p.score > found.score)) return
    plans.unshift(found)
    plans.splice(this.problem.plans)
  }

  /** When the band holds too few plans: the next best by probability that have a chance, over everything the drawer allows. */
  *fillUp(plans: Found[]): Generator<SolveProgress, void> {
    const all = yield* this.candidates(this.wholeRange())
    const room = this.problem.plans - plans.length
    const more: Found[] = []
    yield* this.run('fewest pieces', all, {
      floor: () => (more.length < room ? FIT : more[more.length - 1]!.score),
      keepTies: false,
      leaf: (classes, score) => {
        const found = this.found(all, classes, score)
        if (found && !plans.some((p) => sameThickness(p, found))) insert(more, found, room)
      },
    })
    plans.push(...more)
  }

  /** Nothing fits: the plans closest to the targets. */
  *closest(candidates: StackCandidates[]): Generator<SolveProgress, Found[]> {
    const plans: Found[] = []
    const room = this.problem.plans
    yield* this.run('closest plan', candidates, {
      bound: closenessBound(this.problem),
      floor: () => (plans.length < room ? -Infinity : plans[plans.length - 1]!.score),
      keepTies: false,
      leaf: (classes, score) => {
        const found = this.found(candidates, classes, score)
        if (found) insert(plans, found, room)
      },
    })
    return plans
  }

  /** The supply for one combination of classes, or undefined when the stock does not allow it. */
  private found(
    candidates: StackCandidates[],
    classes: Int32Array,
    score: number,
    share?: number[],
  ): Found | undefined {
    const choice = supply(this.problem.lines, candidates, classes, share)
    if (!choice) return undefined
    const thickness = Float64Array.from(candidates, (c, l) => c.thickness[classes[l]!]!)
    let pieces = 0
    const lines = candidates.map((c, l) => this.linesOf(c, choice[l]!))
    for (const own of lines) pieces += own.length
    const ids = lines.map((own) => own.map((p) => p.id).join('\u0000')).join('\u0001')
    return { lines, thickness, score, pieces, ids }
  }

  private linesOf(c: StackCandidates, s: number): StockLine[] {
    return Array.from({ length: c.pieces[s]! }, (_, m) => this.problem.lines[c.members[s * c.stride + m]!]!)
  }

  private *run(
    stage: SolveProgress['stage'],
    candidates: StackCandidates[],
    search: Pick<BoxSearch, 'floor' | 'keepTies' | 'leaf'> & {
      /** @default the joint probability of landing */
      bound?: BoxScore
      /** Only these classes of every location. */
      sets?: Int32Array[]
    },
  ): Generator<SolveProgress, void> {
    const thickness = thicknesses(candidates, search.sets)
    const { bound } = search
    const landing = new LandingBox(this.problem, thickness)
    const steps = searchBoxes({
      sizes: thickness.map((t) => t.length),
      score: bound ? overThickness(bound, thickness) : (box) => landing.score(box),
      cut: couplings(this.problem, thickness, this.weight),
      floor: search.floor,
      keepTies: search.keepTies,
      leaf: search.leaf,
      budget: this.budget,
    })
    for (;;) {
      const step = steps.next()
      if (step.done) {
        if (!step.value) this.complete = false
        return
      }
      yield this.progress(stage)
    }
  }

  result(status: ShimSolveResult['status'], plans: Found[]): ShimSolveResult {
    return {
      status,
      provedOptimal: this.complete,
      bestProbability: this.best,
      plans: plans.map((p) => this.plan(p)),
      nodes: this.budget.nodes,
    }
  }

  private plan(found: Found): ShimPlan {
    return {
      stacks: Object.fromEntries(
        this.problem.locations.map((l, i) => {
          const lines = found.lines[i]!
          const thinned = lines.find((p) => p.thinned)
          return [
            l.id,
            {
              thicknessMm: found.thickness[i]!,
              pieceIds: lines.map((p) => p.id),
              ...(thinned ? { thin: { pieceId: thinned.id, toMm: thinned.thicknessMm } } : {}),
            },
          ]
        }),
      ),
      predicted: predictAll(this.problem, found.thickness),
      probability: this.landingOf(found.thickness),
      pieces: found.pieces,
    }
  }
}

/** The thicknesses on offer at every location: of all its classes, or of those in its set. */
function thicknesses(candidates: readonly StackCandidates[], sets?: readonly Int32Array[]): Float64Array[] {
  return candidates.map((c, l) => (sets ? Float64Array.from(sets[l]!, (k) => c.thickness[k]!) : c.thickness))
}

/** A score over thicknesses, asked for boxes of indices. */
function overThickness(bound: BoxScore, thickness: readonly Float64Array[]): BoxSearch['score'] {
  const lo = new Float64Array(thickness.length)
  const hi = new Float64Array(thickness.length)
  return (box) => {
    for (let l = 0; l < thickness.length; l++) {
      lo[l] = thickness[l]![box[2 * l]!]!
      hi[l] = thickness[l]![box[2 * l + 1]!]!
    }
    return bound(lo, hi)
  }
}

function predictAll(problem: ShimProblem, thickness: ArrayLike<number>): Record<string, Prediction> {
  return Object.fromEntries(
    problem.quantities.map(({ id, window }, q) => {
      const { value, sigma } = predict(problem, q, thickness)
      return [
        id,
        { value, U: 2 * sigma, probability: probabilityInWindow(value, sigma, window.min, window.max) },
      ]
    }),
  )
}

/**
 * What the quantities will read with stacks chosen by hand, and the joint probability.
 * @param thickness mm for each location id; every location must be named
 */
export function predictStacks(
  input: ShimSolveInput,
  thickness: Record<string, number>,
): { predicted: Record<string, Prediction>; probability: number } {
  const problem = resolveShimProblem(input)
  const at = Float64Array.from(problem.locations, (l) => thickness[l.id] ?? l.currentMm)
  return { predicted: predictAll(problem, at), probability: landingBound(problem)(at, at) }
}

/** Which single extra thickness, bought in as many pieces as there are stacks, would bring at least the probability `least`. Best first. */
function* orderSuggestions(
  problem: ShimProblem,
  parent: ShimSearch,
  least: number,
): Generator<SolveProgress, OrderSuggestion[]> {
  const range = parent.wholeRange()
  // not even a stack ground to any thickness would do: nothing to order
  if (parent.landing(range.lo, range.hi) < least) return []
  const suggestions: OrderSuggestion[] = []
  const open = problem.locations.filter((l) => !l.fixed && l.stepMm === undefined).length
  if (open === 0) return []
  for (const thicknessMm of problem.orderSeriesMm) {
    yield parent.progress('what to order')
    const id = '\uffff order'
    const stock = 1 + Math.max(-1, ...problem.lines.map((l) => l.stock))
    const lines = [...problem.lines, { id, thicknessMm, stock, count: open, thinned: false }]
    const search = new ShimSearch({ ...problem, lines, plans: 1 }, parent.budget)
    const narrow = yield* search.findBest()
    if (!search.complete) parent.complete = false
    if (search.best < least) continue
    const [plan] = search.result('fit', yield* search.fewestPieces(narrow)).plans
    if (!plan) continue
    const count = Object.values(plan.stacks).reduce(
      (n, s) => n + s.pieceIds.filter((p) => p === id).length,
      0,
    )
    suggestions.push({ thicknessMm, count, probability: plan.probability })
  }
  return suggestions.sort((a, b) => b.probability - a.probability || a.count - b.count).slice(0, 5)
}

function shortfallOf(problem: ShimProblem, thickness: Float64Array): Record<string, number> {
  return Object.fromEntries(
    problem.quantities.map(({ id, window }, q) => {
      const { value } = predict(problem, q, thickness)
      return [id, value < window.min ? value - window.min : value > window.max ? value - window.max : 0]
    }),
  )
}

/** Every way to share `pieces` out over the locations, none above its most. */
function* shares(pieces: number, most: readonly number[], done: number[] = []): Generator<number[]> {
  const l = done.length
  if (l === most.length) {
    if (pieces === 0) yield done
    return
  }
  const later = most.slice(l + 1).reduce((a, b) => a + b, 0)
  for (let k = Math.max(0, pieces - later); k <= Math.min(most[l]!, pieces); k++)
    yield* shares(pieces - k, most, [...done, k])
}

function sameThickness(a: Found, b: Found): boolean {
  return a.thickness.every((t, l) => Math.abs(t - b.thickness[l]!) < 1e-7)
}

/** Keeps `list` sorted by score, then fewest pieces, then ids; one entry for each set of thicknesses; at most `room`. */
function insert(list: Found[], found: Found, room: number) {
  const better = (a: Found, b: Found) =>
    a.score !== b.score ? a.score > b.score : a.pieces !== b.pieces ? a.pieces < b.pieces : a.ids < b.ids
  const twin = list.findIndex((p) => sameThickness(p, found))
  if (twin >= 0) {
    if (!better(found, list[twin]!)) return
    list.splice(twin, 1)
  }
  const at = list.findIndex((p) => better(found, p))
  list.splice(at < 0 ? list.length : at, 0, found)
  if (list.length > room) list.pop()
}
