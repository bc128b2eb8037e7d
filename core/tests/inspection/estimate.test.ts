import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PART_KINDS, setOf, heldBy, type PartKind } from '../../src/drives/parts.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { criteria, GRADES, propose, type Grade } from '../../src/inspection/criteria.ts'
import { estimate } from '../../src/inspection/estimate.ts'
import { refused } from '../refused.ts'

const lomvi = demoSheets.find((s) => s.id === 'lomvi-90')!
const duo = demoSheets.find((s) => s.id === 'havsule-duo-lower')!
const rate = { rate: 950, consumables: 600 }

describe('criteria', () => {
  it('exist for every kind of part, each with a rule that can stand as the reason', () => {
    for (const kind of Object.keys(PART_KINDS) as PartKind[]) {
      expect(criteria[kind].length, kind).toBeGreaterThan(0)
      const ids = criteria[kind].map((c) => c.id)
      expect(new Set(ids).size, kind).toBe(ids.length)
      for (const c of criteria[kind]) expect(c.rule.length, c.id).toBeGreaterThan(8)
    }
  })
  it.each<[PartKind, string[], Grade, RegExp]>([
    ['bearing', ['smooth'], 'keep-same', /smoothly/],
    ['bearing', ['smooth', 'pits'], 'replace', /pits/],
    ['gear', ['chip'], 'replace-set', /matched pair/],
    ['gear', ['band'], 'keep', /middle/],
    ['needle', ['unknown'], 'replace', /way round/],
    ['shaft', ['polish'], 'dress', /measured again/],
    ['housing', ['crack'], 'replace', /never rebuilt/],
    ['cup', ['spun'], 'send-out', /housing/],
    ['seal', ['always'], 'replace', /every opening/],
    ['clutch', ['rounded'], 'replace-set', /both mating/],
  ])('%s with %j: %s', (kind, seen, grade, reason) => {
    const proposal = propose(kind, seen)!
    expect(proposal.grade).toBe(grade)
    expect(proposal.reason).toMatch(reason)
  })
  it('condemns a shaft by its reading alone, and the set with it', () => {
    const at = (runoutMm: number, inSet: boolean) =>
      propose('shaft', ['straight'], { runoutMm, runoutLimitMm: 0.05, inSet })!
    expect(at(0.04, false).grade).toBe('keep')
    expect(at(0.12, false)).toMatchObject({ grade: 'replace', reason: expect.stringContaining('0.120 mm') })
    expect(at(0.12, true).grade).toBe('replace-set')
  })
  it('proposes nothing before anything was seen, and refuses what is not looked for', () => {
    expect(propose('gear', [])).toBeUndefined()
    expect(refused(() => propose('gear', ['mood'])).fields[0]!.path).toBe('seen[0]')
  })
})

describe('parts', () => {
  it('say what still holds them', () => {
    expect(heldBy(lomvi.parts, 'pinion', new Set()).map((p) => p.id)).toEqual(['driveshaft'])
    expect(heldBy(lomvi.parts, 'pinion', new Set(['driveshaft']))).toEqual([])
  })
  it('know their set', () => {
    expect(setOf(lomvi.parts, 'pinion').map((p) => p.id)).toEqual(['reverse-gear', 'pinion', 'forward-gear'])
    expect(setOf(lomvi.parts, 'prop-shaft').map((p) => p.id)).toEqual(['prop-shaft'])
  })
})

describe('the estimate', () => {
  it('buys the seal kit once, and nothing else, when everything is good', () => {
    const e = estimate(lomvi, { grades: {}, ...rate })
    expect(e.order.map((r) => r.name)).toEqual(['Seal kit'])
    expect(e.options[0]).toMatchObject({
      id: 'rebuild',
      parts: 1290,
      labour: 10 * 950,
      total: 1290 + 9500 + 600,
    })
    expect(e.cheapest).toBe('rebuild')
  })
  it('buys the whole set for one tooth: the gear welded to its tube takes everything with it', () => {
    const e = estimate(duo, {
      grades: { 'tube-shaft': 'replace-set' },
      reasons: { 'tube-shaft': 'runout over its limit' },
      ...rate,
    })
    const set = e.order.find((r) => r.name === 'Gear set with tube shaft')!
    expect(set.parts).toEqual(['Tube shaft with rear gear', 'Front gear', 'Pinion'])
    expect(set.price).toBe(15200)
    expect(set.why).toContain('runout over its limit')
    expect(e.options[0]!.waitDays).toBe(10)
    expect(e.safety.join(' ')).toContain('not straightened')
  })
  it('never lets money speak for a cracked case', () => {
    const e = estimate(lomvi, {
      grades: { housing: 'replace' },
      seen: { housing: ['crack'] },
      ...rate,
    })
    expect(e.safety[0]).toBe('The old case: cracked: never rebuilt.')
    expect(e.order.flatMap((row) => row.ids ?? [])).toContain('housing')
    expect(e.options[0]!.risks.join()).toContain('everything moves into a new one')
    // the rebuild is the cheapest by far, and is not called so
    const cheap = estimate(lomvi, { grades: {}, ...rate, rate: 0 })
    expect(cheap.cheapest).toBe('rebuild')
    expect(
      estimate(lomvi, { grades: { housing: 'replace' }, seen: { housing: ['crack'] }, ...rate, rate: 0 })
        .cheapest,
    ).not.toBe('rebuild')
  })
  it('goes by what was seen, not by the words of a reason', () => {
    const worn = estimate(lomvi, {
      grades: { housing: 'send-out' },
      reasons: { housing: 'no crack, groove only' },
      seen: { housing: ['groove'] },
      ...rate,
    })
    expect(worn.options[0]!.forbidden).toBeUndefined()
  })
  it('says at how many hours the exchange unit would be the cheaper one', () => {
    const e = estimate(lomvi, { grades: { pinion: 'replace-set' }, ...rate })
    const exchange = e.options.find((o) => o.id === 'exchange')!
    const parts = e.options[0]!.parts
    expect(parts + rate.consumables + e.breakEvenHours! * rate.rate).toBeCloseTo(exchange.total, 6)
  })
  it('adds up whatever is condemned: each set or kit counts once, order of grades does not matter', () => {
    const ids = lomvi.parts.map((p) => p.id)
    fc.assert(
      fc.property(fc.subarray(ids), (bad) => {
        const grades = Object.fromEntries(bad.map((id): [string, Grade] => [id, 'replace']))
        const e = estimate(lomvi, { grades, ...rate })
        expect(new Set(e.order.map((r) => r.name)).size).toBe(e.order.length)
        expect(e.options[0]!.parts).toBe(e.order.reduce((sum, r) => sum + r.price!, 0))
        for (const id of bad) {
          const name = lomvi.parts.find((p) => p.id === id)!.name
          expect(
            e.order.some((r) => r.parts.includes(name)),
            name,
          ).toBe(true)
        }
      }),
      { numRuns: 60 },
    )
  })
  it('takes a price that nobody has said for no price: the rebuild costs at least the rest, and is not called the cheapest', () => {
    const known = estimate(lomvi, { grades: { pinion: 'replace' }, ...rate })
    const parts = lomvi.parts.map(({ price, waitDays, ...p }) =>
      p.set === lomvi.parts.find((x) => x.id === 'pinion')!.set
        ? p
        : { ...p, price: price!, waitDays: waitDays! },
    )
    const e = estimate({ ...lomvi, parts }, { grades: { pinion: 'replace' }, ...rate })
    const row = e.order.find((r) => r.ids!.includes('pinion'))!
    expect([row.price, row.waitDays]).toEqual([undefined, undefined])
    expect(e.unpriced).toEqual([row.name])
    expect(e.options[0]!.parts).toBeLessThan(known.options[0]!.parts)
    expect(e.options[0]!.waitDays).toBeUndefined()
    expect(e.cheapest).not.toBe('rebuild')
    expect(e.breakEvenHours).toBeUndefined()
    expect(known.unpriced).toBeUndefined()
  })
  it('refuses a negative rate', () => {
    expect(refused(() => estimate(lomvi, { grades: {}, rate: -1, consumables: 0 })).fields[0]!.path).toBe(
      'rate',
    )
  })
  it('names six grades', () => expect(Object.keys(GRADES)).toHaveLength(6))
})
