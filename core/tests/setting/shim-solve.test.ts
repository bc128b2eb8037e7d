import { describe, expect, it } from 'vitest'
import { probabilityInWindow } from '../../src/numbers/normal.ts'
import { bestLanding } from '../../src/setting/landing.ts'
import type { ShimSolveInput } from '../../src/setting/shim-problem.ts'
import { FIT, predictStacks, shimSolve, shimSolveSteps, type ShimPlan } from '../../src/setting/shim-solve.ts'
import { stepsLeft, turnedBetween, turnedText } from '../../src/setting/turned.ts'
import type { Adjuster } from '../../src/drives/sheet.ts'
import { times } from '../long.ts'
import { random, refused } from '../refused.ts'

interface Candidate {
  thickness: number[]
  ids: string[][]
  pieces: number
  probability: number
}

/** Every plan there is, by plain enumeration; only for small drawers. */
function everyPlan(input: ShimSolveInput): Candidate[] {
  const lines = [...input.pieces].filter((p) => p.count > 0).sort((a, b) => (a.id < b.id ? -1 : 1))
  // every thickness a line can give: its own, and, once in a stack, one that it is peeled or ground to
  const offers = lines.flatMap((p) => {
    const cuts: { line: number; mm: number; thinned: boolean }[] = []
    if (p.cut) {
      const step = p.cut.kind === 'laminated' ? p.cut.layerMm : p.cut.stepMm
      for (let mm = p.thicknessMm - step; mm >= p.cut.minMm - 1e-9; mm -= step)
        cuts.push({ line: lines.indexOf(p), mm, thinned: true })
    }
    return [{ line: lines.indexOf(p), mm: p.thicknessMm, thinned: false }, ...cuts]
  })
  interface Stack {
    ids: string[]
    mm: number
    /** How many of each line it takes. */
    taken: number[]
  }
  const stacksFor = ({ maxPieces, minMm, maxMm }: ShimSolveInput['locations'][number]): Stack[] => {
    const all: Stack[] = []
    const grow = (from: number, { ids, mm, taken }: Stack, thinned: boolean) => {
      if (mm >= minMm - 1e-9 && mm <= maxMm + 1e-9) all.push({ ids, mm, taken })
      if (ids.length === maxPieces) return
      for (let i = from; i < offers.length; i++) {
        const { line, mm: own, thinned: cut } = offers[i]!
        const { id, count } = lines[line]!
        if (taken[line]! < count && !(cut && thinned))
          grow(
            i,
            { ids: [...ids, id], mm: mm + own, taken: taken.with(line, taken[line]! + 1) },
            thinned || cut,
          )
      }
    }
    grow(0, { ids: [], mm: 0, taken: lines.map(() => 0) }, false)
    return all
  }
  const stacks = input.locations.map(stacksFor)
  const plans: Candidate[] = []
  const probabilityOf = (chosen: Stack[]) => {
    let probability = 1
    for (const q of input.quantities) {
      let mean = q.measured
      let variance = q.u ** 2
      input.locations.forEach((loc, i) => {
        const change = (q.sensitivity[loc.id] ?? 0) * (chosen[i]!.mm - loc.currentMm)
        mean += change
        const relU = q.relUByStack?.[loc.id] ?? q.relU
        variance += ((relU ?? input.sensitivityRelU ?? 0) * change) ** 2
      })
      probability *= probabilityInWindow(mean, Math.sqrt(variance), q.window.min, q.window.max)
    }
    return probability
  }
  const choose = (chosen: Stack[], left: number[]) => {
    if (chosen.length === stacks.length) {
      plans.push({
        thickness: chosen.map((c) => c.mm),
        ids: chosen.map((c) => c.ids),
        pieces: chosen.reduce((n, c) => n + c.ids.length, 0),
        probability: probabilityOf(chosen),
      })
      return
    }
    for (const s of stacks[chosen.length]!) {
      const after = left.map((n, line) => n - s.taken[line]!)
      if (after.every((n) => n >= 0)) choose([...chosen, s], after)
    }
  }
  choose(
    [],
    lines.map((p) => p.count),
  )
  return plans
}

function smallDrawer(seed: number): ShimSolveInput {
  const r = random(seed)
  const pick = (from: number, to: number) => Math.round((from + r() * (to - from)) * 1000) / 1000
  const two = r() < 0.6
  const locations = (two ? ['pinion', 'forward'] : ['pinion', 'forward', 'reverse']).map((id) => ({
    id,
    currentMm: pick(0.3, 0.9),
    minMm: r() < 0.2 ? 0 : 0.2,
    maxMm: 1.4,
    maxPieces: two ? 3 : 2,
  }))
  const gears = locations.slice(1).map((l) => ({
    id: `backlash-${l.id}`,
    measured: pick(0.1, 0.7),
    u: 0.012,
    window: { min: 0.25, max: 0.4 },
    target: 0.32,
    sensitivity: { pinion: -0.36, [l.id]: -0.8 } as Record<string, number>,
  }))
  return {
    locations,
    quantities: [
      {
        id: 'depth',
        measured: pick(-0.15, 0.15),
        u: 0.01,
        window: { min: -0.03, max: 0.03 },
        target: 0,
        sensitivity: { pinion: -1 },
      },
      ...gears,
    ],
    // some lines share a thickness, so that ties between ids are met
    pieces: Array.from({ length: 5 }, (_, i) => ({
      id: `s${i}`,
      thicknessMm: i > 0 && r() < 0.15 ? 0.3 : pick(0.04, 0.8),
      count: Math.floor(r() * 3),
    })),
    sensitivityRelU: r() < 0.5 ? 0 : 0.1,
  }
}

describe('against plain enumeration on small drawers', () => {
  const seeds = Array.from({ length: times(70, 200) }, (_, i) => i + 1)
  let fits = 0
  let misses = 0

  it.each(seeds.map((s) => [s]))('drawer %i', (seed) => {
    const input = smallDrawer(seed)
    const all = everyPlan(input)
    const result = shimSolve(input)
    expect(result.provedOptimal).toBe(true)
    const best = Math.max(0, ...all.map((p) => p.probability))
    if (best >= 0.02) expect(result.bestProbability).toBeCloseTo(best, 9)
    else {
      expect(result.bestProbability).toBeLessThan(best + 1e-9)
      expect(best - result.bestProbability).toBeLessThan(0.001)
    }
    if (best < 0.02) {
      misses++
      expect(result.status).toBe('no-fit')
      if (!all.length) {
        expect(result.plans).toEqual([])
        return
      }
      const off = (thickness: number[]) =>
        input.quantities.reduce((sum, q) => {
          const value = input.locations.reduce(
            (v, l, i) => v + (q.sensitivity[l.id] ?? 0) * (thickness[i]! - l.currentMm),
            q.measured,
          )
          return sum + ((value - q.target) / ((q.window.max - q.window.min) / 2)) ** 2
        }, 0)
      const least = Math.min(...all.map((p) => off(p.thickness)))
      expect(off(input.locations.map((l) => result.plans[0]!.stacks[l.id]!.thicknessMm))).toBeCloseTo(
        least,
        9,
      )
      return
    }
    fits++
    expect(result.status).toBe('fit')
    const key = (p: Candidate) => p.ids.map((i) => i.join(' ')).join(' | ')
    const [wanted] = all
      .filter((p) => p.probability >= best - 0.005)
      .sort((a, b) => a.pieces - b.pieces || b.probability - a.probability || (key(a) < key(b) ? -1 : 1))
    const plan = result.plans[0]!
    expect(plan.pieces).toBe(wanted!.pieces)
    expect(plan.probability).toBeCloseTo(wanted!.probability, 9)
    // among plans that tie in pieces and probability the ids that sort first
    const ties = all.filter(
      (p) => p.pieces === wanted!.pieces && Math.abs(p.probability - wanted!.probability) < 1e-12,
    )
    const first = ties.map(key).sort()[0]
    if (ties.every((p) => p.probability === wanted!.probability))
      expect(input.locations.map((l) => plan.stacks[l.id]!.pieceIds.join(' ')).join(' | ')).toBe(first)
    const keys = new Set(
      result.plans.map((p) => input.locations.map((l) => p.stacks[l.id]!.thicknessMm.toFixed(7)).join()),
    )
    expect(keys.size).toBe(result.plans.length)
    const distinct = new Set(
      all.filter((p) => p.probability >= FIT).map((p) => p.thickness.map((t) => t.toFixed(6)).join()),
    )
    expect(result.plans.length).toBe(Math.min(3, distinct.size))
  })

  it('has met both kinds', () => {
    expect(fits).toBeGreaterThan(20)
    expect(misses).toBeGreaterThan(20)
  })
})

describe('plans', () => {
  const input = smallDrawer(1)
  const roomy: ShimSolveInput = {
    locations: [
      { id: 'pinion', currentMm: 0.6, minMm: 0.2, maxMm: 1.4, maxPieces: 4 },
      { id: 'forward', currentMm: 0.7, minMm: 0.2, maxMm: 1.4, maxPieces: 4 },
    ],
    quantities: [
      {
        id: 'depth',
        measured: 0.1,
        u: 0.008,
        window: { min: -0.03, max: 0.03 },
        target: 0,
        sensitivity: { pinion: -1 },
      },
      {
        id: 'backlash',
        measured: 0.6,
        u: 0.01,
        window: { min: 0.3, max: 0.5 },
        target: 0.4,
        sensitivity: { pinion: -0.36, forward: -0.8 },
      },
    ],
    pieces: Array.from({ length: 24 }, (_, i) => ({
      id: `p${String(i).padStart(2, '0')}`,
      thicknessMm: (i + 2) / 20 + 0.001 * (i % 3),
      count: 3,
    })),
  }

  it('never take more pieces than the drawer holds, jointly', () => {
    for (let seed = 1; seed <= times(25, 60); seed++) {
      const problem = smallDrawer(seed)
      for (const plan of shimSolve(problem).plans) {
        const used = new Map<string, number>()
        for (const id of Object.values(plan.stacks).flatMap((s) => s.pieceIds))
          used.set(id, (used.get(id) ?? 0) + 1)
        for (const [id, n] of used)
          expect(n).toBeLessThanOrEqual(problem.pieces.find((p) => p.id === id)!.count)
      }
    }
  })

  it('say the same as predicting those stacks by hand', () => {
    const [plan] = shimSolve(roomy).plans
    const thickness = Object.fromEntries(Object.entries(plan!.stacks).map(([id, s]) => [id, s.thicknessMm]))
    const byHand = predictStacks(roomy, thickness)
    expect(byHand.probability).toBeCloseTo(plan!.probability, 12)
    expect(byHand.predicted).toEqual(plan!.predicted)
  })

  it('leave a fixed stack alone', () => {
    const fixed = {
      ...roomy,
      locations: roomy.locations.map((l) => (l.id === 'pinion' ? { ...l, currentMm: 0.7, fixed: true } : l)),
    }
    fixed.quantities = [{ ...roomy.quantities[0]!, measured: 0 }, roomy.quantities[1]!]
    const result = shimSolve(fixed)
    expect(result.status).toBe('fit')
    for (const plan of result.plans) expect(plan.stacks.pinion).toEqual({ thicknessMm: 0.7, pieceIds: [] })
  })

  it('suggest what to order, and with that piece it fits', () => {
    const poor = { ...roomy, pieces: [{ id: 'only', thicknessMm: 0.7, count: 2 }] }
    const result = shimSolve(poor)
    expect(result.status).toBe('no-fit')
    expect(Object.keys(result.shortfall!)).toEqual(['depth', 'backlash'])
    const [order] = result.orderSuggestions!
    expect(order).toBeDefined()
    const bought = {
      ...poor,
      pieces: [...poor.pieces, { id: 'new', thicknessMm: order!.thicknessMm, count: order!.count }],
    }
    const after = shimSolve(bought)
    expect(after.status).toBe('fit')
    expect(after.plans[0]!.probability).toBeCloseTo(order!.probability, 9)
  })

  it('suggest nothing when no thickness could do it', () => {
    const hopeless = { ...roomy, locations: roomy.locations.map((l) => ({ ...l, maxMm: 0.3 })) }
    const result = shimSolve(hopeless)
    expect(result.status).toBe('no-fit')
    expect(result.orderSuggestions).toBeUndefined()
  })

  it('say when the search was cut short', () => {
    const r = random(36)
    const pieces = Array.from({ length: 40 }, (_, i) => ({
      id: `q${i}`,
      thicknessMm: 0.05 + r() * 0.9,
      count: 2,
    }))
    const ids = ['a', 'b', 'c', 'd']
    const hard: ShimSolveInput = {
      locations: ids.map((id) => ({ id, currentMm: 0.7, minMm: 0.2, maxMm: 1.4, maxPieces: 3 })),
      quantities: ids.map((id) => ({
        id,
        measured: 0.62,
        u: 0.01,
        window: { min: 0.25, max: 0.3 },
        target: 0.27,
        sensitivity: { a: -0.4, [id]: -0.8 },
      })),
      pieces,
    }
    const cut = shimSolve({ ...hard, maxNodes: 40 })
    expect(cut.provedOptimal).toBe(false)
    expect(cut.nodes).toBeLessThan(shimSolve(hard).nodes)
    expect(shimSolve(hard)).toMatchObject({ provedOptimal: true })
  })

  it('that were found stay when the search is cut short before it has counted their pieces', () => {
    const r = random(7)
    const blank = (id: string, thicknessMm: number) => ({
      id,
      thicknessMm,
      count: 1,
      cut: { kind: 'ground' as const, stepMm: 0.01, minMm: 0.5 },
    })
    const pieces = Array.from({ length: 60 }, (_, i) => ({
      id: `q${i}`,
      thicknessMm: 0.05 + Math.round(r() * 900) / 1000,
      count: 2,
    }))
    const ids = ['a', 'b', 'c']
    const result = shimSolve({
      locations: ids.map((id) => ({ id, currentMm: 1.2, minMm: 0.2, maxMm: 3, maxPieces: 6 })),
      quantities: ids.map((id) => ({
        id,
        measured: 0.62,
        u: 0.01,
        window: { min: 0.25, max: 0.35 },
        target: 0.3,
        sensitivity: { a: -0.4, [id]: -0.8 },
      })),
      pieces: [...pieces, blank('g1', 2), blank('g2', 3)],
      maxNodes: 100_000,
    })
    expect(result).toMatchObject({ status: 'fit', provedOptimal: false })
    expect(result.plans[0]!.probability).toBeCloseTo(result.bestProbability, 12)
    expect(result.bestProbability).toBeGreaterThan(0.99)
  })

  const single = (thicknesses: number[]): ShimSolveInput => ({
    locations: [{ id: 'a', currentMm: 0.5, minMm: 0.1, maxMm: 1, maxPieces: 1 }],
    quantities: [
      {
        id: 'lash',
        measured: 0.5,
        u: 0.02,
        window: { min: 0.25, max: 0.35 },
        target: 0.3,
        sensitivity: { a: 1 },
      },
    ],
    pieces: thicknesses.map((thicknessMm, i) => ({ id: `p${i}`, thicknessMm, count: 1 })),
  })
  it('without a chance are not offered beside one that has', () => {
    const result = shimSolve(single([0.3, 0.32, 0.7, 0.8]))
    expect(result.plans.map((p) => p.stacks.a!.thicknessMm)).toEqual([0.3, 0.32])
    expect(result.provedOptimal).toBe(true)
    // the best is as good as certain: there is nothing to buy
    expect(result.orderSuggestions).toBeUndefined()
  })
  it('that are few and unsure come with what to buy instead', () => {
    const result = shimSolve(single([0.36, 0.7]))
    expect(result.status).toBe('fit')
    expect(result.plans.map((p) => p.stacks.a!.thicknessMm)).toEqual([0.36])
    expect(result.orderSuggestions![0]).toMatchObject({ thicknessMm: 0.3, count: 1 })
    expect(result.orderSuggestions![0]!.probability).toBeGreaterThan(result.bestProbability + 0.5)
  })

  it('come in steps that can be counted', () => {
    const steps = shimSolveSteps({
      ...roomy,
      pieces: roomy.pieces.map((p, i) => ({ ...p, thicknessMm: p.thicknessMm + i * 0.00013 })),
    })
    let last = 0
    for (let step = steps.next(); !step.done; step = steps.next()) {
      expect(step.value.nodes).toBeGreaterThanOrEqual(last)
      last = step.value.nodes
    }
  })

  it('allow an empty stack only where the sheet does', () => {
    const none = { ...input, locations: input.locations.map((l) => ({ ...l, minMm: 0, maxPieces: 0 })) }
    for (const plan of shimSolve(none).plans) expect(plan.pieces).toBe(0)
  })
})

describe('the bound', () => {
  it('is never below any point of its box, and is reached', () => {
    const r = random(99)
    for (let i = 0; i < 400; i++) {
      const muLo = r() - 0.5
      const muHi = muLo + r() * 0.4
      const sLo = 0.01 + r() * 0.05
      const sHi = sLo + r() * 0.2
      const bound = bestLanding(muLo, muHi, sLo, sHi, -0.1, 0.1)
      let best = 0
      for (let a = 0; a <= 40; a++)
        for (let b = 0; b <= 40; b++)
          best = Math.max(
            best,
            probabilityInWindow(muLo + (a / 40) * (muHi - muLo), sLo + (b / 40) * (sHi - sLo), -0.1, 0.1),
          )
      expect(bound).toBeGreaterThanOrEqual(best - 1e-12)
      expect(bound).toBeLessThanOrEqual(best + 0.02)
    }
  })
})

describe('probability of landing', () => {
  it.each([
    [0, 1, -1, 1, 0.6826894921370859],
    [0, 1, -1.959963984540054, 1.959963984540054, 0.95],
    [0, 1, 5, 6, 2.856649842e-7],
    [0, 1, -6, -5, 2.856649842e-7],
    [0, 1, 30, 31, 4.906713927148187e-198],
  ])('N(%s, %s) in [%s, %s]', (mean, sigma, min, max, p) => {
    expect(probabilityInWindow(mean, sigma, min, max) / p).toBeCloseTo(1, 8)
  })
  it('is a plain comparison without spread', () => {
    expect(probabilityInWindow(0.5, 0, 0, 1)).toBe(1)
    expect(probabilityInWindow(1.5, 0, 0, 1)).toBe(0)
  })
})

describe('a drawer that cannot even fill the stacks', () => {
  it('gives no plan, and says so', () => {
    const input = { ...smallDrawer(1), pieces: [] }
    input.locations = input.locations.map((l) => ({ ...l, minMm: 0.2 }))
    expect(shimSolve(input)).toMatchObject({
      status: 'no-fit',
      plans: [],
      bestProbability: 0,
      provedOptimal: true,
    })
  })
})

describe('a question that cannot be', () => {
  const good = smallDrawer(2)
  const [l0] = good.locations
  const [q0] = good.quantities
  it.each<[string, Partial<ShimSolveInput>, string]>([
    ['a stack that cannot be', { locations: [{ ...l0!, minMm: 2, maxMm: 1 }] }, 'locations[0]'],
    ['a negative stack', { locations: [{ ...l0!, currentMm: -1 }] }, 'locations[0].currentMm'],
    [
      'no pieces for a stack that needs some',
      { locations: [{ ...l0!, minMm: 0.2, maxPieces: 0 }] },
      'locations[0].maxPieces',
    ],
    ['0 mm pieces', { pieces: [{ id: 'a', thicknessMm: 0, count: 1 }] }, 'pieces[0].thicknessMm'],
    ['half a piece', { pieces: [{ id: 'a', thicknessMm: 0.1, count: 0.5 }] }, 'pieces[0].count'],
    [
      'a window upside down',
      { quantities: [{ ...q0!, window: { min: 1, max: 0 } }] },
      'quantities[0].window',
    ],
    ['a target outside its window', { quantities: [{ ...q0!, target: 1 }] }, 'quantities[0].target'],
    [
      'a stack that is not there',
      { quantities: [{ ...q0!, sensitivity: { roof: 1 } }] },
      'quantities[0].sensitivity.roof',
    ],
    ['NaN', { quantities: [{ ...q0!, measured: NaN }] }, 'quantities[0].measured'],
    ['a negative uncertainty', { quantities: [{ ...q0!, u: -0.1 }] }, 'quantities[0].u'],
    [
      'ids used twice',
      {
        pieces: [
          { id: 'a', thicknessMm: 0.1, count: 1 },
          { id: 'a', thicknessMm: 0.2, count: 1 },
        ],
      },
      'pieces[1].id',
    ],
    ['no stacks', { locations: [] }, 'locations'],
    ['no quantities', { quantities: [] }, 'quantities'],
    ['an odd number of plans', { plans: 0 }, 'plans'],
    ['too sure', { sensitivityRelU: -1 }, 'sensitivityRelU'],
  ])('%s', (_, wrong, path) => {
    expect(refused(() => shimSolve({ ...good, ...wrong })).fields.map((f) => f.path)).toContain(path)
  })
})

describe('pieces that are peeled or ground', () => {
  let thinnedPlans = 0
  it.each(Array.from({ length: times(12, 30) }, (_, i) => [i + 1]))(
    'agree with plain enumeration, drawer %i',
    (seed) => {
      const r = random(1000 + seed)
      const input = smallDrawer(seed)
      const cut = {
        ...input,
        pieces: [
          ...input.pieces.slice(0, 2),
          {
            id: 'lam',
            thicknessMm: 0.5,
            count: 1,
            cut: { kind: 'laminated' as const, layerMm: 0.05, minMm: 0.3 },
          },
          {
            id: 'raw',
            thicknessMm: 0.9,
            count: 1 + (seed % 2),
            cut: { kind: 'ground' as const, stepMm: 0.04 + 0.02 * r(), minMm: 0.6 },
          },
        ],
        locations: input.locations.map((l) => ({ ...l, maxPieces: Math.min(2, l.maxPieces) })),
      }
      const best = Math.max(0, ...everyPlan(cut).map((p) => p.probability))
      const result = shimSolve(cut)
      expect(result.bestProbability).toBeCloseTo(best, 9)
      if (result.status === 'fit')
        for (const stack of Object.values(result.plans[0]!.stacks)) {
          if (!stack.thin) continue
          thinnedPlans++
          expect(stack.pieceIds).toContain(stack.thin.pieceId)
          const whole = stack.pieceIds.reduce(
            (mm, id) => mm + cut.pieces.find((p) => p.id === id)!.thicknessMm,
            0,
          )
          const full = cut.pieces.find((p) => p.id === stack.thin!.pieceId)!.thicknessMm
          expect(stack.thicknessMm).toBeCloseTo(whole - full + stack.thin.toMm, 9)
          expect(stack.thin.toMm).toBeLessThan(full)
        }
    },
  )
  it('were met in these drawers', () => expect(thinnedPlans).toBeGreaterThan(5))
  it.each([
    [{ kind: 'laminated' as const, layerMm: 0, minMm: 0.1 }, 'pieces[0].cut.layerMm'],
    [{ kind: 'ground' as const, stepMm: 0.01, minMm: 0.9 }, 'pieces[0].cut.minMm'],
    [{ kind: 'ground' as const, stepMm: NaN, minMm: 0.1 }, 'pieces[0].cut.stepMm'],
  ])('are refused when they cannot be: %j', (cut, path) => {
    const input = { ...smallDrawer(1), pieces: [{ id: 'a', thicknessMm: 0.5, count: 1, cut }] }
    expect(refused(() => shimSolve(input)).fields[0]!.path).toBe(path)
  })
})

describe('a search that is watched', () => {
  /** Everything moves everything: the case that takes longest. */
  function dense(seed: number): ShimSolveInput {
    const r = random(seed)
    const ids = ['a', 'b', 'c', 'd']
    return {
      locations: ids.map((id) => ({ id, currentMm: 0.3 + r() * 0.7, minMm: 0.2, maxMm: 1.4, maxPieces: 3 })),
      quantities: ids.map((id) => ({
        id,
        measured: 0.32 + (r() - 0.5) * 0.5,
        u: 0.012,
        window: { min: 0.25, max: 0.4 },
        target: 0.32,
        sensitivity: Object.fromEntries(ids.map((k) => [k, k === id ? -0.8 : (r() - 0.5) * 0.4])),
      })),
      pieces: Array.from({ length: 20 }, (_, i) => ({
        id: `p${i}`,
        thicknessMm: Math.round((0.05 + r() * 0.9) * 1000) / 1000,
        count: 2,
      })),
      sensitivityRelU: 0.1,
    }
  }

  it.each([1, 2, 3, 4, 5, 6])(
    'has a plan that can be built, and never promises less than there is (%i)',
    (seed) => {
      const input = dense(seed)
      const stock = new Map(input.pieces.map((p) => [p.id, p]))
      const steps = shimSolveSteps(input)
      const seen: { gap: number; plan: ShimPlan }[] = []
      let step = steps.next()
      for (; !step.done; step = steps.next())
        if (step.value.plan) seen.push({ gap: step.value.gap, plan: step.value.plan })
      const best = step.value.bestProbability
      expect(step.value.status).toBe('fit')
      expect(seen.length).toBeGreaterThan(0)
      let last = 0
      for (const { gap, plan } of seen) {
        expect(plan.probability).toBeGreaterThanOrEqual(last)
        last = plan.probability
        // the gap is proved: nothing lies above it
        expect(plan.probability + gap).toBeGreaterThanOrEqual(best - 1e-12)
        const used = new Map<string, number>()
        for (const [id, s] of Object.entries(plan.stacks)) {
          expect(s.pieceIds.reduce((mm, p) => mm + stock.get(p)!.thicknessMm, 0)).toBeCloseTo(
            s.thicknessMm,
            9,
          )
          const at = input.locations.find((l) => l.id === id)!
          expect(s.pieceIds.length).toBeLessThanOrEqual(at.maxPieces)
          for (const p of s.pieceIds) used.set(p, (used.get(p) ?? 0) + 1)
        }
        for (const [id, n] of used) expect(n).toBeLessThanOrEqual(stock.get(id)!.count)
      }
    },
  )

  it('crosses to another thread whole', () => {
    const steps = shimSolveSteps(dense(1))
    let step = steps.next()
    while (!step.done && !step.value.plan) step = steps.next()
    expect(structuredClone(step.value)).toMatchObject({ plan: { probability: expect.any(Number) } })
  })
})

describe('a carrier in its thread', () => {
  const carrier = (more: object = {}): ShimSolveInput => ({
    locations: [{ id: 'carrier', currentMm: 3, minMm: 0, maxMm: 6, maxPieces: 0, stepMm: 1.5 / 18, ...more }],
    quantities: [
      {
        id: 'backlash',
        measured: 0.31,
        u: 0.007,
        window: { min: 0.12, max: 0.2 },
        target: 0.16,
        sensitivity: { carrier: -0.8 },
      },
    ],
    pieces: [],
    sensitivityRelU: 0.08,
  })

  it('is turned in whole notches from where it stands, and needs no drawer', () => {
    const input = carrier()
    const result = shimSolve(input)
    const chance = (n: number) => predictStacks(input, { carrier: 3 + (n * 1.5) / 18 }).probability
    const best = Array.from({ length: 73 }, (_, i) => i - 36).sort((a, b) => chance(b) - chance(a))
    expect(result).toMatchObject({ status: 'fit', provedOptimal: true })
    expect(result.plans.map((p) => Math.round(((p.stacks.carrier!.thicknessMm - 3) / 1.5) * 18))).toEqual(
      best.slice(0, 3).filter((n) => chance(n) >= FIT),
    )
    expect(result.plans[0]!.stacks.carrier!.pieceIds).toEqual([])
    expect(result.plans[0]!.probability).toBeCloseTo(chance(best[0]!), 12)
  })
  it('goes no further than its thread', () => {
    const result = shimSolve(carrier({ currentMm: 5.95 }))
    expect(result.status).toBe('no-fit')
    expect(result.orderSuggestions).toBeUndefined()
    for (const p of result.plans) expect(p.stacks.carrier!.thicknessMm).toBeLessThanOrEqual(6)
  })
  it('stands beside stacks of shim: both are chosen together, as plain enumeration has them', () => {
    const pieces = [0.1, 0.15, 0.2, 0.3].map((thicknessMm, i) => ({ id: `p${i}`, thicknessMm, count: 1 }))
    const input: ShimSolveInput = {
      locations: [
        { id: 'carrier', currentMm: 1, minMm: 0.5, maxMm: 1.5, maxPieces: 0, stepMm: 0.05 },
        { id: 'pinion', currentMm: 0.4, minMm: 0.1, maxMm: 0.75, maxPieces: 4 },
      ],
      quantities: [
        {
          id: 'depth',
          measured: 0.07,
          u: 0.01,
          window: { min: -0.02, max: 0.02 },
          target: 0,
          sensitivity: { pinion: 1 },
        },
        {
          id: 'backlash',
          measured: 0.31,
          u: 0.01,
          window: { min: 0.12, max: 0.2 },
          target: 0.16,
          sensitivity: { carrier: -0.8, pinion: 0.4 },
        },
      ],
      pieces,
      sensitivityRelU: 0.1,
    }
    let best = 0
    for (let n = -10; n <= 10; n++)
      for (let set = 1; set < 16; set++) {
        const pinion = pieces.reduce((mm, p, i) => mm + ((set >> i) & 1 ? p.thicknessMm : 0), 0)
        if (pinion > 0.75 + 1e-9) continue
        best = Math.max(best, predictStacks(input, { carrier: 1 + n * 0.05, pinion }).probability)
      }
    const result = shimSolve(input)
    expect(result.bestProbability).toBeCloseTo(best, 9)
    expect(best).toBeGreaterThan(0.4)
  })
  it('has so many steps left in its thread, whole ones, whatever the round-off', () => {
    const a = { kind: 'threaded', leadMm: 1.5, notches: 18, minMm: 0, maxMm: 6 } as Adjuster
    expect(stepsLeft(a, 3)).toEqual({ in: 36, out: 36 })
    expect(stepsLeft(a, 3 + (7 * 1.5) / 18)).toEqual({ in: 29, out: 43 })
    expect(stepsLeft(a, 5.95)).toEqual({ in: 0, out: 71 })
    expect(turnedText(turnedBetween(a, 3, 3 + (7 * 1.5) / 18))).toBe('7 notches in (140°)')
    expect(turnedText(turnedBetween({ ...a, notches: undefined } as never, 3, 3 - 1.5 / 72))).toBe('5° out')
    expect(turnedText(turnedBetween(a, 3, 3))).toBe('left where it is')
  })
  it('refuses a step that is none', () => {
    expect(refused(() => shimSolve(carrier({ stepMm: 0 }))).fields.map((f) => f.path)).toEqual([
      'locations[0].stepMm',
    ])
  })
})
