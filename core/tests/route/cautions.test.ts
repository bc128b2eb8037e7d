import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { withFigure } from '../../src/drives/own/body.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { CAUTIONS, cautionsOf, type CautionId } from '../../src/route/cautions.ts'
import { holds } from '../../src/route/facts.ts'
import { usualScopes } from '../../src/route/scope.ts'
import { routeAt, startOf, walk } from './walk.ts'

const IDS = Object.keys(CAUTIONS) as CautionId[]

/** What is said at each step of every usual job of every drive: `sheet scope step` and the cautions by their ids. */
const said = demoSheets.flatMap((sheet) =>
  usualScopes(sheet).flatMap((scope) => {
    const found: { sheet: string; scope: string; step: string; ids: CautionId[] }[] = []
    walk(sheet, startOf(sheet, scope), (step, _answers, facts) => {
      const { cautions = [] } = routeAt(sheet, facts).steps.find((s) => s.id === step)!
      const texts = new Set(cautions.filter((c) => !c.when || holds(c.when, facts)).map((c) => c.say))
      const ids = IDS.filter((id) => {
        const { says } = CAUTIONS[id] as { says: string | ((s: typeof sheet, at: string) => string) }
        if (!(CAUTIONS[id].at as readonly string[]).includes(step)) return false
        try {
          return texts.has(typeof says === 'string' ? says : says(sheet, step))
        } catch {
          // a figure that this drive does not have
          return false
        }
      })
      found.push({ sheet: sheet.id, scope: scope.usual!, step, ids })
    })
    return found
  }),
)
const where = (id: CautionId) => said.filter((s) => s.ids.includes(id))
const drivesOf = (id: CautionId) => [...new Set(where(id).map((s) => s.sheet))].sort()
const scopesOf = (id: CautionId) => [...new Set(where(id).map((s) => s.scope))]

/** Acts by the step that they are done at, and the cautions that each of them must not be without. */
const NEVER_WITHOUT: Record<string, CautionId[]> = {
  receive: ['lifting'],
  drain: ['waste', 'frost'],
  'leak-found': ['engine-off', 'test-pressure', 'shop-air', 'let-out'],
  'leak-found-joined': ['engine-off', 'test-pressure', 'shop-air', 'let-out'],
  'leak-case': ['test-pressure', 'shop-air', 'let-out'],
  'leak-joined': ['test-pressure', 'shop-air', 'let-out'],
  'as-found': ['engine-off'],
  ratio: ['engine-off'],
  service: ['engine-off'],
  strike: ['engine-off'],
  'open-gear': ['engine-off'],
  locks: ['springs'],
  'left-hand': ['sudden-release'],
  'nut-found': ['sudden-release'],
  'ring-stand': ['sudden-release', 'hold-the-case'],
  'ring-mounted': ['sudden-release', 'hold-the-case', 'leg-locked'],
  clean: ['solvent', 'dust'],
  press: ['press', 'heat', 'cold'],
  join: ['lifting', 'fingers', 'leg-locked'],
  'first-run': ['exhaust'],
  propeller: ['engine-off', 'blade-blocked'],
}

/** What no demo sheet has: tests without figures or with vacuum, a propeller that stays on for the run. */
const ON_OWN_SHEETS: ReadonlySet<CautionId> = new Set(['vacuum', 'test-pressure-unknown', 'behind-propeller'])

describe('cautions', () => {
  it.each(Object.entries(NEVER_WITHOUT))('at %s are never missing: %j', (step, ids) => {
    const here = said.filter((s) => s.step === step)
    expect(here.length).toBeGreaterThan(0)
    for (const s of here)
      expect(
        ids.filter(
          (id) => !s.ids.includes(id) && !(id === 'test-pressure' && s.ids.includes('test-pressure-unknown')),
        ),
        `${s.sheet} ${s.scope}`,
      ).toEqual([])
  })
  it.each(IDS.filter((id) => !ON_OWN_SHEETS.has(id)))('%s is said somewhere', (id) => {
    expect(where(id).length).toBeGreaterThan(0)
  })
  it('stand at the propeller that comes off, which is done in the tray', () => {
    const lomvi = demoSheets.find((s) => s.id === 'lomvi-90')!
    const texts = cautionsOf(lomvi, 'prop-off').map((c) => c.say)
    expect(texts).toEqual([CAUTIONS['engine-off'].says, CAUTIONS['blade-blocked'].says])
  })
  it('are said of the drives that they are true for, and of no others', () => {
    const outboards = demoSheets
      .filter((s) => s.family.startsWith('outboard'))
      .map((s) => s.id)
      .sort()
    expect(drivesOf('inverted')).toEqual(outboards)
    expect(drivesOf('cord')).toEqual(outboards)
    const greased = demoSheets.filter((s) =>
      s.graph.spaces?.some((x) => x.id === 'case' && x.holds === 'grease'),
    )
    expect(drivesOf('grease-gun')).toEqual(greased.map((s) => s.id).sort())
    const shifted = demoSheets
      .filter((s) => s.graph.unit?.shifts)
      .map((s) => s.id)
      .sort()
    expect(drivesOf('shift-at-idle')).toEqual(shifted)
    // a bare shaft on a hose is no propeller in a tank
    expect(drivesOf('bare-shaft').filter((d) => drivesOf('behind-propeller').includes(d))).toEqual([])
  })
  it('of pulling and heating stand where a carrier or a bearing is drawn, and not at an oil change or a look at the pump', () => {
    for (const id of ['puller', 'heat', 'press', 'cold', 'solvent', 'dust'] as const)
      expect(
        scopesOf(id).filter((s) => ['service', 'pump', 'test'].includes(s)),
        id,
      ).toEqual([])
    expect(scopesOf('puller')).toContain('seals:propshaft')
    // nothing is drained for a test of what stays shut
    expect(scopesOf('waste')).toContain('service')
  })
  it('of vacuum stand where the sheet tests with it', () => {
    const body = [
      ['tests.case.workKpa', -30],
      ['tests.case.maxKpa', -20],
      ['tests.case.holdMin', 5],
      ['tests.case.allowedDrop.kpa', 1],
      ['spaces.case.volumeMl', 700],
    ].reduce((b, [path, v]) => withFigure(b, String(path), v), templateOf('outboard-fnr', 'own', 'Own'))
    const at = (s: typeof body) =>
      cautionsOf(filled(s), 'leak-case')
        .map((c) => c.say)
        .join(' ')
    expect(at(body)).toContain('vacuum')
    expect(at(templateOf('outboard-fnr', 'own', 'Own'))).not.toContain('vacuum')
  })
  it('of the propeller on the run go by whether it stays on', () => {
    const bare = templateOf('outboard-fnr', 'own', 'Own')
    const propellers = bare.propellers!.map((p) => ({ ...p, held: 'castle-pin' as const }))
    const at = (afterRun: boolean) =>
      cautionsOf(
        filled({ ...bare, propellers: propellers.map((p) => ({ ...p, afterRun })) }),
        'first-run',
      ).map((c) => c.say)
    expect(at(false)).toContain(CAUTIONS['behind-propeller'].says)
    expect(at(false)).not.toContain(CAUTIONS['bare-shaft'].says)
    expect(at(true)).toContain(CAUTIONS['bare-shaft'].says)
  })
  it('are short: at most two sentences of at most 24 words, with their reason', () => {
    for (const [id, { says }] of Object.entries(CAUTIONS)) {
      if (typeof says !== 'string') continue
      const sentences = says.split(/(?<=[.])\s+/)
      expect(sentences.length, id).toBeLessThanOrEqual(2)
      for (const s of sentences) expect(s.split(/\s+/).length, `${id}: ${s}`).toBeLessThanOrEqual(24)
    }
  })
})
