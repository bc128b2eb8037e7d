import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { traitsOf } from '../../src/inspection/fault-drive.ts'
import { faultRank, onDrive } from '../../src/inspection/fault-rank.ts'
import { causes, checks, findings } from '../../src/inspection/fault-table.ts'

const sheet = (id: string) => demoSheets.find((s) => s.id === id)!
const causesOn = (id: string) => onDrive(causes, traitsOf(sheet(id))).map((c) => c.id)
const rankOn = (id: string, found: string[]) => faultRank({ findings: found, drive: traitsOf(sheet(id)) })

describe('faults of a drive', () => {
  it('are only those of parts that it has', () => {
    expect(causesOn('lomvi-90')).not.toContain('clutch-slip')
    expect(causesOn('lomvi-90')).not.toContain('universal-joint')
    expect(causesOn('lomvi-90')).toEqual(
      expect.arrayContaining(['dog-rounded', 'pump-key', 'propshaft-seal']),
    )
    expect(causesOn('havhest-r-upper')).toEqual(expect.arrayContaining(['clutch-slip', 'universal-joint']))
    expect(causesOn('havhest-r-upper')).not.toContain('propshaft-seal')
    expect(causesOn('sivkrok-b')).toContain('belt-worn')
    for (const id of ['wrong-oil', 'contact-off', 'clutch-slip', 'universal-joint'])
      expect(causesOn('sivkrok-b')).not.toContain(id)
  })
  it('name no slipping clutch on black oil and chatter where dogs drive it', () => {
    expect(rankOn('lomvi-90', ['black-oil', 'chatter']).causes[0]!.id).toBe('wrong-oil')
    expect(rankOn('havhest-r-upper', ['black-oil', 'chatter']).causes[0]!.id).toBe('clutch-slip')
  })
  it('do not send anybody to look at what was looked at', () => {
    const next = (found: string[]) => rankOn('lomvi-90', found).nextChecks.map((c) => c.id)
    expect(next(['chatter'])).toContain('drain')
    expect(next(['chatter', 'black-oil'])).not.toContain('drain')
  })
  it.each(demoSheets.map((s) => s.id))(
    'of %s: every check that is proposed can be done there, and says its minutes',
    (id) => {
      const traits = traitsOf(sheet(id))
      const here = new Set(onDrive(checks, traits).map((c) => c.id))
      for (const c of rankOn(id, []).nextChecks) {
        expect(here.has(c.id)).toBe(true)
        expect(c.minutes).toBeGreaterThanOrEqual(5)
      }
      expect(onDrive(findings, traits).length).toBeGreaterThan(5)
      expect(onDrive(causes, traits).length).toBeGreaterThan(3)
    },
  )
  it('of no drive in particular are those of the whole table, but for what only few have', () => {
    expect(faultRank({ findings: [] }).causes.map((c) => c.id)).not.toContain('belt-worn')
    expect(faultRank({ findings: [] }).causes).toHaveLength(causes.length - 1)
    // a fault of another drive in the shop's history is no fault of this one
    const history = [{ cause: 'clutch-slip', findings: ['black-oil'] }]
    expect(
      faultRank({ findings: [], history, drive: traitsOf(sheet('lomvi-90')) }).causes.length,
    ).toBeGreaterThan(5)
  })
})
