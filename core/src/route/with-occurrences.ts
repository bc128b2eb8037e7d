import { REPAIR_REASONS, type Repair } from './repair.ts'
import { baseOf, occurrenceOf, timeOf } from './occurrence.ts'
import type { Ask, Route, Stage, Step } from './route.ts'
import { goesWithActs } from './step-acts.ts'

/** What was done and what is left, as far as the steps of a route hang on it. */
export interface Acted {
  repairs: readonly Repair[]
  /** Closings that count, oldest first, each with how many repairs had been opened by then. */
  closed: readonly ClosedStep[]
  /** Steps that were closed once and taken back: they are done again, whatever was done since. */
  takenBack: ReadonlySet<string>
  /** Whether a step is for something that has come up since it was closed. */
  isLeft: (base: string, last: ClosedStep) => boolean
  /** The same, or for something that was done since the newest repair was opened. */
  isTouched: (base: string) => boolean
}

export interface ClosedStep {
  id: number
  step: string
  round: number
  /** Gone on from, or said not to have been done. */
  departed: boolean
  undone: boolean
}

interface Node {
  id: string
  base: string
  time: number
  /** How many repairs had been opened when it was closed; all of them for one that is open. */
  round: number
  isClosed: boolean
}

export const repairStage = (round: number): string => `repair-${round}`
/** Which repair a stage is; undefined for every other stage. */
export const timeOfRepair = (stage: string): number | undefined => {
  const [, round] = /^repair-(\d+)$/.exec(stage) ?? []
  return round === undefined ? undefined : Number(round)
}

/**
 * The route of a job: every step as often as it comes up. What was closed stays where it was; what a repair opens again, and what was undone, comes up once
 * more, in the order that its steps always have.
 * @param route of the drive, each step once
 */
export function withOccurrences(route: Route, acted: Acted): Route {
  const closed = new Map<string, ClosedStep[]>()
  for (const c of acted.closed) {
    const base = baseOf(c.step)
    const own = closed.get(base)
    if (own) own.push(c)
    else closed.set(base, [c])
  }
  const nodes = new Map(route.steps.map((s) => [s.id, nodesOf(s, closed.get(s.id) ?? [], acted)] as const))
  const isPlain = [...nodes.values()].every((n) => n.length === 1 && n[0]!.round === 0)
  const needs = isPlain ? (_: Node, always: readonly string[]) => [...always] : needsIn(route, nodes)
  const steps = route.steps.flatMap((s) =>
    nodes.get(s.id)!.map((n): Step => stepOf(s, n, needs(n, s.needs), acted)),
  )
  const stages = stagesOf(route.stages, steps, acted)
  const place = new Map(stages.map((s, i) => [s.id, i] as const))
  return { ...route, stages, steps: steps.sort((a, b) => place.get(a.stage)! - place.get(b.stage)!) }
}

/** A step as often as it was closed, and once more where it comes up again. */
function nodesOf(
  { id, bySelf }: Step,
  own: readonly ClosedStep[],
  { repairs, isLeft, isTouched }: Acted,
): Node[] {
  const done = own.map((c): Node => ({
    id: c.step,
    base: id,
    time: timeOf(c.step),
    round: c.round,
    isClosed: true,
  }))
  const round = repairs.length
  const times = new Set(done.map((n) => n.time))
  const next = (): Node => {
    let time = 1
    while (times.has(time)) time++
    return { id: occurrenceOf(id, time), base: id, time, round, isClosed: false }
  }
  const last = own.at(-1)
  // what closes itself has no closing to tell of: where a repair leaves it alone, it is as done as it was
  if (!last) return [bySelf && !isTouched(id) ? { ...next(), round: 0 } : next()]
  const again = last.round === round ? isLeft(id, last) : isTouched(id)
  return again ? [...done, next()] : done
}

/**
 * What a step at one of its times waits for: the steps that it always needs, as they come up in its own round. One of them that is done, or does not come up
 * in it, is looked through to what that one needs itself: what of that has come up once more is waited for as well.
 */
function needsIn(route: Route, nodes: ReadonlyMap<string, readonly Node[]>) {
  const before = new Map(route.steps.map((s) => [s.id, s.needs] as const))
  const known = new Map<string, readonly string[]>()
  const open = new Set(
    [...nodes.values()].flatMap((of) => of.flatMap((n) => (n.isClosed ? [] : [`${n.id} ${n.round}`]))),
  )
  const isOpenIn = (n: Node, round: number) => !n.isClosed && n.round === round
  const reached = (base: string, round: number): readonly string[] => {
    const key = `${base} ${round}`
    const found = known.get(key)
    if (found) return found
    const newest = (nodes.get(base) ?? [])
      .filter((n) => n.round <= round)
      .reduce<Node | undefined>((a, b) => (a && isNewer(a, b) ? a : b), undefined)
    const beyond = () => (before.get(base) ?? []).flatMap((n) => reached(n, round))
    const ids = !newest
      ? beyond()
      : isOpenIn(newest, round)
        ? [newest.id]
        : [newest.id, ...beyond().filter((id) => open.has(`${id} ${round}`))]
    const each = [...new Set(ids)]
    known.set(key, each)
    return each
  }
  return ({ round }: Node, bases: readonly string[]) => [...new Set(bases.flatMap((b) => reached(b, round)))]
}

/** The step at one of its times. */
function stepOf(step: Step, node: Node, needs: string[], { repairs, takenBack, isTouched }: Acted): Step {
  const isFirst = node.time === 1 && !(step.ofRepair && node.round > 0)
  if (isFirst && takenBack.has(step.id)) {
    const { appliesWhen: _, ...again } = step
    return { ...again, needs }
  }
  if (isFirst && (node.isClosed || !repairs.length)) return { ...step, needs }
  if (isFirst && !(step.bySelf && isTouched(step.id)))
    return { ...step, needs, ...(step.bySelf && goesWithActs(step) ? { gates: [] } : {}) }
  const { appliesWhen, ...rest } = step
  const repair = repairs[node.round - 1]
  return {
    ...rest,
    ...((isFirst || step.ofRepair) && appliesWhen ? { appliesWhen } : {}),
    id: node.id,
    needs,
    ...(node.round > 0 ? { stage: repairStage(node.round) } : {}),
    what: repair ? `${step.what} (repair ${repair.number})` : `${step.what}, once more`,
    ...(repair && step.bares ? { why: `Seen: ${repair.note}` } : {}),
    asks: step.asks.map((a) => ownPicture(a, step.id, node.id)),
  }
}

const isNewer = (a: Node, b: Node) => a.round > b.round || (a.round === b.round && a.time > b.time)

/** A picture stands in for two words where it was taken at this very time. */
const ownPicture = (ask: Ask, base: string, id: string): Ask =>
  ask.unless && 'fact' in ask.unless && ask.unless.fact === `picture.${base}`
    ? { ...ask, unless: { fact: `picture.${id}`, is: true } }
    : ask

/** A repair is a stage of its own, before the first stage in which something was open when it was opened. */
function stagesOf(stages: readonly Stage[], steps: readonly Step[], { repairs, closed }: Acted): Stage[] {
  const used = new Set(steps.map((s) => s.stage))
  const stageOf = new Map(steps.map((s) => [s.id, s.stage] as const))
  const result = [...stages]
  repairs.forEach((r, i) => {
    const id = repairStage(i + 1)
    if (!used.has(id)) return
    const before = closed
      .filter((c) => c.round <= i)
      .map((c) => result.findIndex((s) => s.id === stageOf.get(c.step)))
    const after = Math.max(-1, ...before)
    result.splice(after + 1, 0, { id, label: `Repair ${r.number}: ${REPAIR_REASONS[r.why]}` })
  })
  return result
}
