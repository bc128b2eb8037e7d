import { describe, expect, it } from 'vitest'
import { faultRank } from '../../src/inspection/fault-rank.ts'
import { causes, checks, findings } from '../../src/inspection/fault-table.ts'
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
