import { demoSheets } from '@moray/core/drives/sheets/index'
import { describe, expect, it } from 'vitest'
import { answersOf, inWindow, trialRows } from '../src/job/trials/trials-view.ts'
import { fixtureJob } from './job-fixture.ts'

const sheet = demoSheets.find((s) => s.id === 'lomvi-90')!

describe('where a value lies in its window', () => {
  const at = (window: object, value: number) => inWindow({ window } as never, value)
  it('is −1 at the lower limit, 0 in the middle, 1 at the upper one, whatever the unit', () => {
    expect(at({ min: 38.2, max: 38.4 }, 38.2)).toBeCloseTo(-1, 9)
    expect(at({ min: 38.2, max: 38.4 }, 38.3)).toBeCloseTo(0, 9)
    expect(at({ min: 38.2, max: 38.4 }, 38.4)).toBeCloseTo(1, 9)
    expect(at({ min: 0.2, max: 0.4 }, 0.5)).toBeCloseTo(2, 9)
  })
  it('has its open side as far off as its limit', () => {
    expect(at({ max: 0.05 }, 0.05)).toBeCloseTo(1, 9)
    expect(at({ max: 0.05 }, 0)).toBeCloseTo(-1, 9)
    expect(at({ min: 0.3 }, 0.3)).toBeCloseTo(-1, 9)
  })
})

describe('the builds of a job side by side', () => {
  it('has a row for every measure with limits, and a cell for every build', () => {
    const { builds } = fixtureJob()
    const rows = trialRows(sheet, builds)
    expect(rows.map((r) => r.measure.id)).toEqual(sheet.measures.map((m) => m.id))
    for (const r of rows) expect(r.cells.map((c) => c.build)).toEqual(builds.map((b) => b.number))
  })
  it('says by the sheet how everything answers, and nothing more while one build was read', () => {
    const answers = answersOf(sheet, fixtureJob().builds.slice(0, 1), undefined)
    expect(answers.length).toBeGreaterThanOrEqual(5)
    expect(answers.every((a) => a.learned === undefined && a.units === undefined)).toBe(true)
    expect(Math.abs(answers.find((a) => a.measure === 'depth')!.sheet)).toBe(1)
  })
})
