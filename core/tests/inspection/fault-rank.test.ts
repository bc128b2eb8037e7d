import { describe, expect, it } from 'vitest'
import { faultRank } from '../../src/inspection/fault-rank.ts'
import { shopTable } from '../../src/inspection/fault-history.ts'
import { causes, checks, findings } from '../../src/inspection/fault-table.ts'
import { lomvi90 } from '../../src/drives/sheets/index.ts'
import { suspects } from '../../src/inspection/suspects.ts'
import { refused } from '../refused.ts'

describe('the fault table', () => {
  it('names only what exists, with likelihoods that can be', () => {
    const known = new Set(causes.map((c) => c.id))
    for (const f of findings) {
      expect(f.background).toBeGreaterThan(0)
      for (const [cause, p] of Object.entries(f.speaksFor)) {
        expect(known.has(cause), `${f.id} → ${cause}`).toBe(true)
        expect(p).toBeGreaterThan(f.background)
        expect(p).toBeLessThan(1)
      }
    }
    for (const c of checks)
      for (const id of c.shows)
        expect(
          findings.some((f) => f.id === id),
          id,
        ).toBe(true)
    // no cause that nothing speaks for
    for (const c of causes)
      expect(
        findings.some((f) => f.speaksFor[c.id] !== undefined),
        c.id,
      ).toBe(true)
  })
})

describe('ranking', () => {
  it.each([
    [['milky-oil', 'leak-turning'], 'propshaft-seal'],
    [['empty-case', 'film-shift-shaft'], 'shift-seal'],
    [['black-oil', 'chatter'], 'clutch-slip'],
    [['jumps-out', 'metal'], 'dog-rounded'],
    [['vibration', 'runout-high'], 'shaft-bent'],
    [['whine-one-way'], 'contact-off'],
    [['no-telltale'], 'water-tube'],
    [['prop-frozen'], 'dry-splines'],
    [['no-drive', 'metal'], 'shaft-sheared'],
  ])('%j points to %s', (found, cause) => {
    const [first] = faultRank({ findings: found }).causes
    expect(first!.id).toBe(cause)
    expect(first!.speaksFor.length).toBeGreaterThan(0)
  })
  it('gives probabilities that add up, and the weights when nothing is found', () => {
    const none = faultRank({ findings: [] })
    expect(none.causes.reduce((s, c) => s + c.probability, 0)).toBeCloseTo(1, 12)
    expect(none.causes[0]!.id).toBe('propshaft-seal')
  })
  it('listens to what is not there', () => {
    const p = (absent: string[]) =>
      faultRank({ findings: ['milky-oil'], absent }).causes.find((c) => c.id === 'propshaft-seal')!
    expect(p(['leak-turning']).probability).toBeLessThan(p([]).probability)
    expect(p(['leak-turning']).speaksAgainst).toContain('leak-turning')
  })
  it('proposes a check that is worth its cost, and none whose answer is known', () => {
    const [best] = faultRank({ findings: ['vibration'] }).nextChecks
    expect(['runout', 'look-outside', 'shake-shaft']).toContain(best!.id)
    const after = faultRank({ findings: ['vibration', 'runout-high'] }).nextChecks
    expect(after.map((c) => c.id)).not.toContain('runout')
    for (const c of after) expect(c.expectedBits).toBeGreaterThan(0)
  })
  it('refuses what it does not know, and what contradicts itself', () => {
    expect(refused(() => faultRank({ findings: ['gremlins'] })).fields[0]!.path).toBe('findings[0]')
    refused(() => faultRank({ findings: ['metal'], absent: ['metal'] }))
  })
})

describe("the shop's own history", () => {
  const history = Array.from({ length: 12 }, () => ({
    cause: 'screw-gasket',
    findings: ['milky-oil'],
    absent: ['film-hub'],
  }))
  it('raises a cause that was found again and again, and says how often', () => {
    const rank = (h: typeof history) => faultRank({ findings: ['milky-oil'], history: h }).causes
    expect(rank([])[0]!.id).toBe('propshaft-seal')
    expect(rank(history)[0]).toMatchObject({ id: 'screw-gasket', seenHere: 12 })
    expect(rank(history).find((c) => c.id === 'shift-seal')!.seenHere).toBe(0)
  })
  it('changes likelihoods toward what was seen, never to certainty', () => {
    const table = shopTable(history)
    const milky = table.findings.find((f) => f.id === 'milky-oil')!
    expect(milky.speaksFor['screw-gasket']).toBeGreaterThan(0.8)
    expect(milky.speaksFor['screw-gasket']).toBeLessThan(1)
    expect(table.findings.find((f) => f.id === 'film-hub')!.speaksFor['screw-gasket']).toBeLessThan(0.03)
    // what history says nothing about stays as it was
    expect(milky.speaksFor['propshaft-seal']).toBe(0.7)
  })
  it('lets an edit stand above both', () => {
    const edits = [{ finding: 'vibration', cause: 'dry-splines', likelihood: 0.9 }]
    const rank = (e: typeof edits) =>
      faultRank({ findings: ['vibration'], edits: e }).causes.find((c) => c.id === 'dry-splines')!.probability
    expect(rank(edits)).toBeGreaterThan(5 * rank([]))
  })
  it.each([
    [{ history: [{ cause: 'ghosts', findings: [] }] }, 'history[0].cause'],
    [{ history: [{ cause: 'wrong-oil', findings: ['mood'] }] }, 'history[0].findings'],
    [{ edits: [{ finding: 'vibration', cause: 'dry-splines', likelihood: 1 }] }, 'edits[0].likelihood'],
  ])('refuses %j', (more, path) =>
    expect(refused(() => faultRank({ findings: [], ...more })).fields[0]!.path).toBe(path),
  )
})

describe('suspects', () => {
  const { parts } = lomvi90
  const names = (...findings: string[]) => [...suspects(parts, faultRank({ findings }).causes).keys()]
  it('are the parts that the likeliest causes point at', () => {
    expect(names('milky-oil', 'leak-turning')).toEqual(expect.arrayContaining(['prop-seals', 'prop-shaft']))
    expect(names('jumps-out')).toContain('clutch-dog')
    expect(names('film-shift-shaft', 'empty-case')).toContain('shift-seal')
    expect(names('no-telltale')).toContain('pump-key')
  })
  it('are nobody while nothing is likely', () => expect(names()).toEqual([]))
})
