import { caseTest } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { checkSheet } from '../../src/drives/check-sheet.ts'
import { figureAt, withFigure, type SheetBody } from '../../src/drives/own/body.ts'
import { bodyOf } from '../../src/drives/own/body-of.ts'
import { checkBody } from '../../src/route/check-body.ts'
import { differences } from '../../src/drives/own/differences.ts'
import { figureFields } from '../../src/drives/own/figures.ts'
import type { FigureField } from '../../src/drives/own/figure-field.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { readFigure, whyNot } from '../../src/drives/own/read-figure.ts'
import { readiness } from '../../src/drives/own/readiness.ts'
import { lostEdges } from '../../src/drives/graph/edge-fields.ts'
import { GRAPH_LISTS } from '../../src/drives/graph/rows.ts'
import { rowsAt, UNIT_LISTS, withoutRow, withRow } from '../../src/drives/own/rows.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { FAMILIES, type Family } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { sensitivities, sensitivityTrust } from '../../src/setting/train.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { solverInput } from '../../src/setting/assess.ts'
import { times } from '../long.ts'

const families = Object.keys(FAMILIES) as Family[]
const plain = (v: unknown): unknown => JSON.parse(JSON.stringify(v))
const lower = () => templateOf('outboard-fnr', 'kobbe-40', 'Kobbe 40')
/** Figures typed one after the other, as a manual prints them. */
const typed = (body: SheetBody, figures: Record<string, string>): SheetBody =>
  Object.entries(figures).reduce((b, [path, text]) => {
    const field = figureFields(b).find((f) => f.path === path)
    if (!field) throw new Error(`no figure ${path}`)
    return withFigure(b, path, readFigure(field, text).value)
  }, body)

const COUNTED = {
  'gears.pinion.teeth': '13',
  'gears.forward-gear.teeth': '28',
  'gears.reverse-gear.teeth': '28',
}
const MEASURED = {
  ...COUNTED,
  'gears.forward-gear.outsideMm': '120 mm',
  'meshes.forward.form': 'spiral',
  'meshes.forward.faceWidthMm': '17 mm',
}
const EFFECTS = {
  'adjusters.pinion.effect': '-1',
  'adjusters.forward.effect': '-1',
  'adjusters.reverse.effect': '-1',
}
const SETTING = {
  ...EFFECTS,
  'measures.depth.how.method': 'feeler-block',
  'measures.depth.how.nominalClearanceMm': '.64 mm',
  'measures.depth.how.nominalDepthMm': '38 mm',
  'measures.depth.window': '37.97 to 38.03 mm',
  'measures.backlash-forward.window': '.4 to .6 mm',
  'measures.backlash-reverse.window': '.6 to .9 mm',
}
const RADII = { 'measures.backlash-forward.radiusMm': '38 mm', 'measures.backlash-reverse.radiusMm': '38 mm' }

describe.each(families)('the template of %s', (family) => {
  const body = templateOf(family, 'own', 'Own')
  it('holds no figure of anybody’s, and hangs together', () => {
    expect(
      figureFields(body).filter((f) => f.shape.is === 'quantity' && figureAt(body, f.path) !== undefined),
    ).toEqual([])
    expect(checkBody(body)).toEqual({ wrong: [], doubtful: [] })
  })
  it('is drawn and has a route that asks for what it needs', () => {
    const sheet = filled(body)
    expect(() => checkSheet(sheet)).not.toThrow()
    const wants = new Set(routeOf(sheet).steps.flatMap((s) => s.wants ?? []))
    for (const path of wants) expect(sheet.lacks).toContain(path)
    if (!body.tests?.some((t) => t.noTest)) expect(wants).toContain('tests.case.workKpa')
  })
  it('lays nothing over another thing along a shaft', () => {
    const sheet = filled(body)
    if (!sheet.gears.length) return
    for (const axis of sheet.axes) {
      const at = [...sheet.adjusters, ...sheet.bearings, ...sheet.seals]
        .filter((x) => x.axis === axis.id)
        .map((x) => x.atMm)
        .sort((a, b) => a - b)
      at.slice(1).forEach((x, i) => expect(x - at[i]!).toBeGreaterThan(10))
      if (at.length) {
        expect(axis.fromMm).toBeLessThan(at[0]!)
        expect(axis.toMm).toBeGreaterThan(at.at(-1)!)
      }
    }
  })
  it('is no bigger for a gear twice as big, but laid out farther', () => {
    if (!body.gears.length) return
    const big = body.gears.reduce(
      (b, g) => withFigure(withFigure(b, `gears.${g.id}.teeth`, 30), `gears.${g.id}.outsideMm`, 260),
      body,
    )
    const ends = (b: SheetBody) => Math.max(...filled(b).axes.map((a) => a.toMm))
    expect(ends(big)).toBeGreaterThan(ends(body))
  })
})

describe('what a sheet can do', () => {
  const state = (body: SheetBody, ability: string) => readiness(body).find((r) => r.ability === ability)!
  it('grows with what is typed, and names what each missing figure would unlock', () => {
    expect(state(lower(), 'setting').state).toBe('open')
    const half = typed(lower(), SETTING)
    expect(state(half, 'setting').state).toBe('partly')
    expect(state(half, 'setting').lacks.map((l) => l.path)).toEqual([
      'adjusters.pinion.rules.backlash-forward',
      'adjusters.pinion.rules.backlash-reverse',
      'adjusters.forward.rules.backlash-forward',
      'adjusters.reverse.rules.backlash-reverse',
    ])
    expect(state(half, 'setting').lacks[2]!.or).toEqual([
      'gears.pinion.teeth',
      'gears.forward-gear.teeth',
      'meshes.forward.form',
      'meshes.forward.faceWidthMm',
      'gears.forward-gear.outsideMm',
      'measures.backlash-forward.radiusMm',
    ])
  })
  it('takes rules or a geometry, either of them', () => {
    const rules = typed(typed(lower(), SETTING), {
      'adjusters.pinion.rules.backlash-forward': '-.8',
      'adjusters.pinion.rules.backlash-reverse': '-.02/.025',
      'adjusters.forward.rules.backlash-forward': '-1.2',
      'adjusters.reverse.rules.backlash-reverse': '-1.2',
    })
    expect(state(rules, 'setting').state).toBe('ready')
    expect(state(rules, 'contact').state).not.toBe('ready')
    const geometry = typed(typed(lower(), MEASURED), { ...SETTING, ...RADII })
    expect(state(geometry, 'setting')).toMatchObject({ state: 'ready', lacks: [] })
    expect(state(geometry, 'contact').state).toBe('ready')
  })
  it('says nothing of what the drive has not', () => {
    expect(state(templateOf('belt-lower', 'b', 'B'), 'tightness').state).toBe('none')
    expect(state(lower(), 'crush').state).toBe('none')
  })
})

describe('what is asked for', () => {
  it('is all that a pressure test takes, whatever is typed first', () => {
    const all = [
      'tests.case.workKpa',
      'tests.case.maxKpa',
      'tests.case.holdMin',
      'tests.case.allowedMlPerMin',
      'spaces.case.volumeMl',
      'spaces.case.fillMl',
    ]
    const text: Record<string, string> = { 'tests.case.workKpa': '70 kPa', 'tests.case.maxKpa': '90 kPa' }
    fc.assert(
      fc.property(fc.subarray(all), (given) => {
        const sheet = filled(typed(lower(), Object.fromEntries(given.map((p) => [p, text[p] ?? '1']))))
        const lacking = (sheet.lacks ?? []).filter(
          (l) => l.startsWith('tests.case.') || l === 'spaces.case.volumeMl',
        )
        // either the test can be done, or the route asks for what it lacks
        expect(caseTest(sheet.graph) !== null).toBe(lacking.length === 0)
        const step = routeOf(sheet).steps.find((s) => s.id === 'leak-case')!
        expect(step.wants ?? []).toEqual(lacking)
      }),
      { numRuns: times(40, 100) },
    )
  })
  it('is the torque of a nut as soon as there is one', () => {
    const steps = (body: SheetBody) =>
      Object.fromEntries(routeOf(filled(body)).steps.map((s) => [s.id, s.wants]))
    expect(steps(lower()).propeller).toEqual(['propellers.only.held'])
    const tabs = typed(lower(), { 'propellers.only.held': 'tab-washer' })
    expect(steps(tabs).propeller).toEqual(['groups.propeller-nut.torqueNm'])
    expect(steps(tabs)['ring-stand']).toEqual(['groups.big-ring.torqueNm'])
    const pin = typed(lower(), { 'propellers.only.held': 'shear-pin' })
    expect(steps(pin).propeller).toBeUndefined()
    expect(routeOf(filled(pin)).steps.some((s) => s.id === 'propeller')).toBe(true)
  })
})

describe('a left-hand thread that is typed', () => {
  it('is said at its step, at the ring and in the row', () => {
    const left = filled(
      typed(lower(), { 'groups.big-ring.hand': 'left', 'groups.big-ring.torqueNm': '190 to 200 Nm' }),
    )
    const route = routeOf(left)
    expect(route.steps.find((s) => s.id === 'left-hand')!.turn).toMatchObject({
      act: 'loosens',
      turn: 'clockwise',
    })
    expect(route.steps.find((s) => s.id === 'ring-stand')!.turn).toMatchObject({ act: 'tightens' })
    expect(left.parts.find((p) => p.id === 'ring-nut')!.thread).toBe('left')
    expect(routeOf(filled(lower())).steps.some((s) => s.id === 'left-hand')).toBe(false)
  })
})

describe('how far a sheet is trusted', () => {
  const build = { stacks: { pinion: 0.8, forward: 0.8, reverse: 0.8 }, readings: {} as never }
  it('rule-only: the manual’s rule and nothing else, at 5 %', () => {
    const sheet = filled(
      typed(typed(lower(), SETTING), { 'adjusters.forward.rules.backlash-forward': '-1.2' }),
    )
    expect(sensitivities(sheet)['backlash-forward']).toEqual({ forward: -1.2 })
    expect(sensitivityTrust(sheet)['backlash-forward']).toEqual({ forward: { from: 'rule', relU: 0.05 } })
  })
  it('by calliper: what is assumed counts as such, and what is measured narrows it', () => {
    const of = (more: Record<string, string>) =>
      sensitivityTrust(filled(typed(typed(lower(), MEASURED), { ...SETTING, ...RADII, ...more })))[
        'backlash-forward'
      ]!.forward!
    const assumed = of({})
    expect(assumed.from).toBe('geometry')
    expect(assumed.relU).toBeGreaterThan(0.07)
    expect(assumed.relU).toBeLessThan(0.1)
    const measured = of({ 'meshes.forward.spiralAngleDeg': '33', 'meshes.forward.pressureAngleDeg': '20' })
    expect(measured.relU).toBeLessThan(0.5 * assumed.relU)
  })
  it('the second pair on a pinion is cut as the first until something else is typed', () => {
    const sheet = filled(typed(lower(), MEASURED))
    expect(sheet.meshes.map((m) => m.basis)).toEqual(['measured', 'measured'])
    expect(sheet.meshes[1]!.mesh.faceWidthMm).toBe(17)
  })
  it('goes into the question to the solver, stack by stack', () => {
    const sheet = filled(
      typed(typed(lower(), MEASURED), {
        ...SETTING,
        ...RADII,
        'adjusters.forward.rules.backlash-forward': '-1.2',
      }),
    )
    const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.005 }
    const readings = Object.fromEntries(
      Object.entries({ depth: 38, 'backlash-forward': 0.7, 'backlash-reverse': 0.7 }).map(([m, value]) => [
        m,
        [{ value, gauge }],
      ]),
    )
    const forward = solverInput(sheet, { ...build, readings }, []).quantities.find(
      (q) => q.id === 'backlash-forward',
    )!
    expect(forward.relUByStack!.forward).toBe(0.05)
    expect(forward.relUByStack!.pinion).toBeGreaterThan(0.05)
  })
})

describe('what is wrong or doubtful', () => {
  it.each([
    [
      'rules against their stack',
      { ...EFFECTS, 'adjusters.forward.rules.backlash-forward': '1.2' },
      'adjusters.forward.rules.backlash-forward',
    ],
    [
      'a test above the highest pressure',
      { 'tests.case.workKpa': '80 kPa', 'tests.case.maxKpa': '70 kPa' },
      'tests.case.maxKpa',
    ],
    [
      'a face longer than its cone',
      { ...MEASURED, 'meshes.forward.faceWidthMm': '90 mm' },
      'meshes.forward.faceWidthMm',
    ],
  ])('%s', (_, figures, path) => {
    const { wrong } = checkBody(typed(lower(), figures))
    expect(wrong.map((w) => w.path)).toContain(path)
  })
  it('two diameters that make two modules are worth a second look, and no more', () => {
    const found = checkBody(typed(lower(), { ...MEASURED, 'gears.pinion.outsideMm': '90 mm' }))
    expect(found.wrong).toEqual([])
    expect(found.doubtful[0]!.message).toContain('do not make the same module')
    expect(checkBody(typed(lower(), { ...MEASURED, 'gears.pinion.outsideMm': '63.2 mm' })).doubtful).toEqual(
      [],
    )
  })
  it('a rule of nothing, and a name that leads nowhere', () => {
    const zero = withFigure(typed(lower(), EFFECTS), 'adjusters.forward.rules', { 'backlash-forward': 0 })
    expect(checkBody(zero).wrong[0]!.message).toContain('changes nothing')
    const round = {
      ...lower(),
      axes: lower().axes.map((a, i) => ({ ...a, insideOf: lower().axes[1 - i]!.id })),
    }
    expect(checkBody(round).wrong[0]!.message).toContain('cannot run inside of itself')
  })
})

describe('figures as manuals print them', () => {
  const fields = new Map(figureFields(typed(lower(), SETTING)).map((f) => [f.path, f]))
  const at = (path: string): FigureField => fields.get(path)!
  it.each([
    ['measures.backlash-forward.window', '.015 - .022in', { min: 0.381, max: 0.5588 }, '.015 - .022in'],
    ['measures.backlash-forward.window', '0,47 ± 0,09 mm', { min: 0.38, max: 0.56 }, '0,47 ± 0,09 mm'],
    [
      'bearings.driveshaft-lower.setting.newNm',
      '4 to 7 inlb',
      { min: 0.4519393, max: 0.7908938 },
      '4 to 7 inlb',
    ],
    ['spaces.case.fillMl', '0.6 l', 600, '0.6 l'],
    ['spaces.case.fillMl', '620', 620, '620 ml'],
    ['adjusters.pinion.rules.backlash-forward', '-.03/.025', -1.2, '-.03/.025'],
    ['adjusters.pinion.rules.backlash-forward', '−0.03 per 0.025', -1.2, '−0.03 per 0.025'],
    ['tests.case.ports', 'drain hole, vent', ['drain hole', 'vent'], 'drain hole, vent'],
    ['adjusters.pinion.effect', '-1', -1, 'into the mesh'],
  ])('%s: %s', (path, text, value, as) => {
    const read = readFigure(at(path), text)
    expect(read.as).toBe(as)
    if (typeof value === 'number') expect(read.value).toBeCloseTo(value, 6)
    else if (Array.isArray(value) || typeof value === 'string') expect(read.value).toEqual(value)
    else
      for (const side of ['min', 'max'] as const)
        expect((read.value as { min: number; max: number })[side]).toBeCloseTo(value[side], 6)
  })
  it.each([
    ['spaces.case.fillMl', '3 gallons', 'is no volume here'],
    ['spaces.case.fillMl', 'much', 'is no number'],
    ['spaces.case.fillMl', '0', 'lies between'],
    ['measures.backlash-forward.window', '', 'is empty'],
    ['measures.backlash-forward.window', '15 to 22', 'Look at the unit'],
    ['adjusters.pinion.rules.backlash-forward', '.03/0', 'no number that can be used'],
    ['gears.pinion.teeth', '13 kg', 'is not understood here'],
  ])('%s: %s is refused', (path, text, why) => {
    expect(whyNot(at(path), text)).toContain(why)
  })
  it('never come to anything but a value or a refusal', () => {
    fc.assert(
      fc.property(fc.constantFrom(...fields.values()), fc.string({ maxLength: 40 }), (field, text) => {
        const why = whyNot(
          field,
          text,
          field.shape.is === 'quantity' && field.shape.quantity === 'length' ? 'in' : undefined,
        )
        return why === undefined || why.length > 3
      }),
    )
  })
})

describe('bodies', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    '%s is the same after it was kept as a body',
    (_, sheet) => {
      expect(plain(filled(plain(bodyOf(sheet)) as SheetBody))).toEqual(plain(sheet))
    },
  )
  it('change at one place only, and keep nothing empty', () => {
    const body = lower()
    const once = withFigure(body, 'tests.case.workKpa', 70)
    expect(differences(body, once)).toMatchObject([{ path: 'tests.case.workKpa', to: 70 }])
    expect(withFigure(once, 'tests.case.workKpa', undefined)).toEqual(body)
    expect(body).toEqual(lower())
  })
  it('differ figure by figure, whatever the order of their rows', () => {
    const body = typed(lower(), SETTING)
    expect(differences(body, { ...body, gears: [...body.gears].reverse() })).toEqual([])
    const other = typed(body, { 'measures.backlash-forward.window': '.45 to .6 mm' })
    expect(differences(body, other)).toEqual([
      {
        path: 'measures.backlash-forward.window',
        label: 'Forward backlash',
        from: { min: 0.4, max: 0.6 },
        to: { min: 0.45, max: 0.6 },
      },
    ])
  })
  it('without a row hang together still, whichever it is', () => {
    for (const family of families) {
      const body = templateOf(family, 'own', 'Own')
      for (const list of ['adjusters', 'bearings', 'measures', 'parts'] as const)
        for (const { id } of body[list])
          expect(checkBody(withoutRow(body, list, id)).wrong, `${family} without ${list} ${id}`).toEqual([])
    }
  })
})

describe('rows of the graph', () => {
  const lists = [...GRAPH_LISTS.filter((l) => l !== 'parts'), ...UNIT_LISTS]
  it('of every demo sheet can be taken out one by one and put back as they were', () => {
    for (const sheet of demoSheets)
      for (const list of lists)
        for (const row of rowsAt(bodyOf(sheet), list)) {
          const body = bodyOf(sheet)
          const without = withoutRow(body, list, row.id)
          expect(rowsAt(without, list).some((r) => r.id === row.id)).toBe(false)
          const at = rowsAt(body, list).findIndex((r) => r.id === row.id)
          expect(rowsAt(withRow(without, list, row, at), list), `${sheet.id} ${list} ${row.id}`).toEqual(
            rowsAt(body, list),
          )
          expect(lostEdges(without), `${sheet.id} without ${list} ${row.id}`).toEqual([])
        }
  })
  it('stay in their order when one is changed, and leave no trace when the last one goes', () => {
    const two = ['a', 'b'].reduce((b, id) => withRow(b, 'tools', { id }), lower())
    const changed = withRow(two, 'tools', { id: 'a', name: 'Puller' } as { id: string })
    expect(changed.tools).toEqual([{ id: 'a', name: 'Puller' }, { id: 'b' }])
    const none = ['a', 'b'].reduce((b, id) => withoutRow(b, 'tools', id), changed)
    expect(none).toEqual(lower())
  })
  it('name no fastener that was taken out, and wait for what it waited for', () => {
    const body: SheetBody = {
      ...lower(),
      parts: [
        { id: 'hub', name: 'Hub', kind: 'hub' },
        { id: 'cap', name: 'Cap', kind: 'cup', after: { screws: true } },
      ],
      groups: [
        { id: 'screws', name: 'Cover screws', count: 4, after: { hub: true } },
        { id: 'plug', name: 'Plug', count: 1 },
      ],
      joints: [{ id: 'c', name: 'Cover', kind: 'cover', closedBy: { screws: true, plug: 'assumed' } }],
    }
    const without = withoutRow(body, 'groups', 'screws')
    expect(without.joints![0]!.closedBy).toEqual({ plug: 'assumed' })
    expect(without.parts[1]!.after).toEqual({ hub: true })
  })
})

describe('a stack that sets a bearing', () => {
  const body = bodyOf(demoSheets.find((s) => s.id === 'havhest-r-upper')!)
  it('is asked for what a millimetre of it does to the torque, as long as there is one', () => {
    const asked = (b: typeof body) => figureFields(b).map((f) => f.path)
    expect(asked(body)).toContain('bearings.input-inner.setting.nmPerMm')
    const without = withoutRow(body, 'adjusters', 'preload')
    expect(without.bearings.find((b) => b.id === 'input-inner')!.setting).toEqual({
      kind: 'rolling-torque',
      newNm: { min: 0.6, max: 1 },
    })
    expect(asked(without)).not.toContain('bearings.input-inner.setting.nmPerMm')
    expect(without.parts.map((p) => p.id)).not.toContain('preload-shims')
  })
  it('is refused by name when the bearing names one that is not there', () => {
    const wrong = {
      ...body,
      bearings: body.bearings.map((b) =>
        b.id === 'input-inner' ? { ...b, setting: { kind: 'rolling-torque' as const, by: 'nowhere' } } : b,
      ),
    }
    expect(
      checkBody(wrong)
        .wrong.map((p) => p.path)
        .join(),
    ).toMatch(/bearings.*setting\.by/)
  })
})
