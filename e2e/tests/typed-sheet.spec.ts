import type { SheetDraft } from '@moray/contract/replies'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import { bodyOf } from '@moray/core/drives/own/body-of'
import type { Edges } from '@moray/core/drives/graph/edges'
import { edgesOf } from '@moray/core/drives/graph/edges'
import type { FigureField } from '@moray/core/drives/own/figure-field'
import { figureFields } from '@moray/core/drives/own/figures'
import { readiness } from '@moray/core/drives/own/readiness'
import { demoSheets } from '@moray/core/drives/sheets/index'
import type { Family } from '@moray/core/drives/sheet'
import { checkBody } from '@moray/core/route/check-body'
import type { Column, RowForm } from '../../web/src/drives/forms/column.ts'
import { matching } from '../../web/src/drives/lists/matching.ts'
import { ROW_FORMS, rowTabOf } from '../../web/src/drives/row-forms.ts'
import { optionsOf, rowsOfForm, shownName, type ShownRow } from '../../web/src/drives/show-rows.ts'
import { show } from '../pages.ts'
import { counted, countIn, seconds, type Counted } from './counting.ts'
import { post } from './hand.ts'
import { expect, test, type Page } from './test.ts'

/** A whole drive typed out of a manual in inches, by hand and keys alone: how many there are of each, list by list. */

const IN = 25.4
const FTLB = 1.355818
const INLB = FTLB / 12
const PSI = 6.894757
const ML_PER_OUNCE = 29.5735
const short = (n: number, digits: number) => String(Number(n.toFixed(digits))).replace(/^(-?)0\./, '$1.')
const range = (v: unknown, unit: number, digits: number): string => {
  const { min, max } = (typeof v === 'object' ? v : { min: v, max: v }) as { min?: number; max?: number }
  const [a, b] = [min ?? max!, max ?? min!].map((n) => short(n / unit, digits))
  return a === b ? a! : `${a} to ${b}`
}

/** A figure as a manual in inches prints it, without its unit where that goes without saying. */
function printed({ shape, group }: FigureField, value: unknown): string {
  if (shape.is === 'quantity')
    switch (shape.quantity) {
      case 'length':
        return range(value, IN, 4)
      case 'torque':
        return group === 'bearings' ? range(value, INLB, 1) : range(value, FTLB, 0)
      case 'pressure':
        return range(value, PSI, 1)
      default:
        return String(value)
    }
  if (shape.is === 'number' && shape.unit === 'ml') return `${short(Number(value) / ML_PER_OUNCE, 0)}oz`
  return Array.isArray(value) ? value.join(', ') : typeof value === 'number' ? short(value, 3) : String(value)
}
class Hand {
  readonly by: Record<string, Counted> = {}
  private last: Counted = { taps: 0, keys: 0, entries: 0 }
  constructor(
    readonly page: Page,
    readonly id: string,
  ) {}
  draft = async () =>
    (await (await this.page.request.get(`/api/drives/${this.id}/draft`)).json()) as SheetDraft
  /** What was done since the last time goes to this list. */
  async to(list: string) {
    const now = await counted(this.page)
    const { last } = this
    const more = {
      taps: now.taps - last.taps,
      keys: now.keys - last.keys,
      entries: now.entries - last.entries,
    }
    const before = this.by[list] ?? { taps: 0, keys: 0, entries: 0 }
    this.by[list] = {
      taps: before.taps + more.taps,
      keys: before.keys + more.keys,
      entries: before.entries + more.entries,
    }
    this.last = now
  }
  tab = (name: string | RegExp) =>
    this.page
      .getByRole('navigation', { name: 'Groups of figures' })
      .getByRole('button', { name })
      .first()
      .click()
  type = (text: string) => this.page.keyboard.type(text)
  press = (key: string) => this.page.keyboard.press(key)
}

/** The figures of a sheet, group by group, in the order in which they stand. */
async function typeFigures(hand: Hand, like: SheetBody) {
  const groups = [
    ['gears', /^Gears/],
    ['setting', /^Depth/],
    ['stacks', /^Stacks/],
    ['bearings', /^Bearings/],
    ['closing', /^Opening/],
    ['tightness', /^Pressure/],
    ['filling', /^Filling/],
  ] as const
  for (const [group, name] of groups) {
    const done = new Set<string>()
    let opened = false
    for (;;) {
      const { body } = await hand.draft()
      const field = figureFields(body).find(
        (f) =>
          f.group === group &&
          !done.has(f.path) &&
          figureAt(body, f.path) === undefined &&
          valueOf(like, f, body) !== undefined &&
          !/noTest|lengthsMm/.test(f.path),
      )
      if (!field) break
      if (!opened) await hand.tab(name)
      opened = true
      done.add(field.path)
      const row = hand.page.locator(`[data-path="${field.path}"]`)
      const value = valueOf(like, field, body)
      const said = hand.page.waitForResponse((r) => r.url().endsWith('/figures'))
      if (field.shape.is === 'choice') {
        const option = field.shape.options.find((o) => o.value === value)!
        await row.locator('label', { hasText: option.label }).first().click()
      } else {
        const input = row.locator('input[type="text"]')
        if (!(await input.evaluate((el) => el === document.activeElement))) await input.click()
        await hand.type(printed(field, value))
        await hand.press('Enter')
      }
      expect((await said).status(), `${field.label}: ${printed(field, value)}`).toBe(201)
    }
    await hand.to('figures')
  }
}
/** What is typed: what the manual of the like drive gives, and in place of the geometry, which no manual prints, its rules. */
function valueOf(like: SheetBody, f: FigureField, body: SheetBody): unknown {
  const [, stack] = /^adjusters\.([^.]+)\.rules\./.exec(f.path) ?? []
  // a stack that pushes its gear into the mesh takes backlash away
  if (stack) return 1.2 * (body.adjusters.find((a) => a.id === stack)!.effect ?? -1)
  return figureAt(like, f.path)
}

/** The fewest letters with which an edge is found. */
function letters(label: string, options: readonly { id: string; label: string }[], id: string): string {
  for (let n = 3; n <= label.length; n++)
    if (matching(label.slice(0, n), options)[0]?.id === id) return label.slice(0, n)
  return label
}

/** One cell, as a hand types it. */
async function typeCell(hand: Hand, body: SheetBody, form: RowForm, c: Column, value: unknown) {
  if (value === undefined) return
  switch (c.is) {
    case 'edges': {
      const options = optionsOf(body, form, c)
      for (const id of edgesOf(value as Edges)) {
        const option = options.find((o) => o.id === id)
        if (!option) continue
        await hand.type(letters(option.label, options, id))
        await hand.press('Enter')
      }
      return
    }
    case 'choice':
      return hand.type(c.choices![String(value)]!.slice(0, 4))
    case 'flag':
      return value === true ? hand.press('Space') : undefined
    case 'torque':
      return hand.type(range(value, FTLB, 0))
    case 'length':
    case 'window':
      return hand.type(range(value, IN, 4))
    case 'volume':
      return hand.type(`${short(Number(value) / ML_PER_OUNCE, 0)}oz`)
    case 'text':
    case 'count':
    case 'number':
      return hand.type(String(value))
    default:
      return undefined
  }
}

const saved = (hand: Hand) => hand.page.waitForResponse((r) => r.url().endsWith('/rows/several'))

/** New rows of a list, typed line by line. */
async function typeRows(hand: Hand, form: RowForm, rows: readonly ShownRow[]) {
  if (!rows.length) return
  const list = hand.page.getByRole('region', { name: form.title, exact: true })
  await list.getByRole('button', { name: `Add ${form.one}` }).click()
  const columns = form.shown.map((k) => form.columns.find((c) => c.key === k)!)
  for (const row of rows) {
    const { body } = await hand.draft()
    const last = columns.findLastIndex((c) => row[c.key] !== undefined)
    for (const [i, c] of columns.slice(0, last + 1).entries()) {
      if (i) await hand.press('Tab')
      await typeCell(hand, body, form, c, row[c.key])
    }
    const said = saved(hand)
    await hand.press('Enter')
    const reply = await said
    expect(reply.status(), `${form.list} ${shownName(row)}: ${await reply.text()}`).toBe(201)
  }
  await hand.press('Escape')
}
/** A column of rows that are there already, typed downwards. */
async function typeColumn(hand: Hand, form: RowForm, key: string, values: ReadonlyMap<string, unknown>) {
  const { body } = await hand.draft()
  const rows = rowsOfForm(body, form)
  const c = form.columns.find((x) => x.key === key)!
  const wanted = rows.map((r) => (r[key] === undefined ? values.get(r.id) : undefined))
  const [first, last] = [
    wanted.findIndex((v) => v !== undefined),
    wanted.findLastIndex((v) => v !== undefined),
  ]
  if (first < 0) return
  // before the columns stands the grip
  const at = 1 + form.shown.indexOf(key)
  await hand.page
    .getByRole('region', { name: form.title, exact: true })
    .locator(`tr[data-id="${rows[first]!.id}"] td`)
    .nth(at)
    .click()
  for (let i = first; i <= last; i++) {
    await typeCell(hand, body, form, c, wanted[i])
    const said = wanted[i] === undefined ? undefined : saved(hand)
    await hand.press('Enter')
    if (said) expect((await said).status(), `${form.list} ${rows[i]!.id}.${key}`).toBe(201)
  }
  await hand.press('Escape')
}

const LABELS = { groups: /^Fasteners/, parts: /^Parts/, joints: /^Joints/, others: /^Seals/ }

/** What one more drive has that its family's sheet has not: two nuts that loosen clockwise, a captive bolt, three joints, two spaces. */
const nuts = (body: SheetBody) => (body.groups ?? []).slice(0, 2).map((g) => [g.id, 'left'] as const)
const BESIDES = (body: SheetBody): Record<string, ShownRow[]> => {
  const [a, b] = body.parts.filter((p) => p.role !== 'body').map((p) => ({ [p.id]: true }))
  const closes = { [body.groups![0]!.id]: true }
  return {
    spaces: [
      { id: 'shift-cavity', name: 'Shift cavity', holds: 'dry' },
      { id: 'trim-pocket', name: 'Trim pocket', holds: 'grease', fillMl: 60 },
    ],
    joints: ['Shift cover', 'Top cap', 'Speed pick-up'].map((name) => ({
      id: name,
      name,
      kind: 'cover',
      sealedBy: a,
      closedBy: closes,
      behind: { case: true },
      provedBy: 'air',
    })),
    groups: [
      { id: 'captive', name: 'Bolt in the shaft tunnel', count: 1, torqueNm: { min: 30, max: 35 }, holds: b },
    ],
  }
}

async function typeSheet(page: Page, name: string, family: Family): Promise<Record<string, Counted>> {
  const like = bodyOf(demoSheets.find((s) => s.family === family)!)
  const made = await post(page, '/api/drives', { name, family })
  expect(made.status, JSON.stringify(made.body)).toBe(201)
  const hand = new Hand(page, name.toLowerCase().replaceAll(' ', '-'))
  await show(page, `/drives/${hand.id}/draft`)
  await countIn(page)
  await typeFigures(hand, like)
  const besides = BESIDES((await hand.draft()).body)
  for (const [tab, label] of Object.entries(LABELS)) {
    await hand.tab(label)
    await hand.to('figures')
    // spaces first, since joints lead to them
    const forms = ROW_FORMS.filter((f) => rowTabOf(f.list) === tab && f.list !== 'settings')
    for (const form of forms.toSorted((a, b) => Number(b.list === 'spaces') - Number(a.list === 'spaces'))) {
      const { body } = await hand.draft()
      const known = rowsOfForm(like, form)
      const there = new Set(rowsOfForm(body, form).map((r) => r.id))
      if (form.list === 'groups') {
        for (const key of ['count', 'torqueNm', 'treatment'])
          await typeColumn(hand, form, key, new Map(known.map((r) => [r.id, r[key]])))
        await typeColumn(hand, form, 'hand', new Map(nuts(body)))
      }
      if (form.list === 'parts')
        await typeColumn(hand, form, 'number', new Map(body.parts.map((p, i) => [p.id, `8${i}-417`])))
      const fresh = known.filter((r) => !there.has(r.id) && form.list !== 'ways')
      await typeRows(hand, form, [...(besides[form.list] ?? []), ...fresh])
      if (form.list === 'groups') await captive(hand, form)
      await hand.to(form.list)
    }
  }
  await confirmAll(hand)
  await publish(hand)
  return hand.by
}

/** Which joint the captive bolt goes in before stands in a column that is not shown at first. */
async function captive(hand: Hand, form: RowForm) {
  const { body } = await hand.draft()
  const list = hand.page.getByRole('region', { name: form.title, exact: true })
  await list.getByRole('button', { name: 'All columns' }).click()
  const row = body.groups!.find((g) => g.name === 'Bolt in the shaft tunnel')!
  await list
    .locator(`tr[data-id="${row.id}"] td`)
    .nth(1 + form.columns.findIndex((c) => c.key === 'captiveUntil'))
    .click()
  await hand.type(body.joints![0]!.name.slice(0, 3))
  await hand.press('Enter')
  const said = saved(hand)
  await hand.press('Enter')
  expect((await said).status()).toBe(201)
  await hand.press('Escape')
  await list.getByRole('button', { name: 'Fewer columns' }).click()
}
async function confirmAll(hand: Hand) {
  await hand.tab(/^Loose ends/)
  const buttons = hand.page.getByRole('button', { name: /^Confirm (all|it)/ })
  while (await buttons.count()) {
    const said = saved(hand)
    await buttons.first().click()
    expect((await said).status()).toBe(201)
    await hand.page.waitForTimeout(50)
  }
  await hand.to('loose ends')
}
async function publish(hand: Hand) {
  const { body } = await hand.draft()
  expect(checkBody(body).wrong).toEqual([])
  // no manual prints tooth measures, nor what parts cost in this shop
  const open = readiness(body).filter(
    (r) => r.state === 'open' && !['contact', 'estimate'].includes(r.ability),
  )
  expect(open.map((r) => r.ability)).toEqual([])
  expect((body.groups ?? []).filter((g) => g.hand === 'left').length).toBeGreaterThanOrEqual(2)
  expect(body.groups!.some((g) => edgesOf(g.captiveUntil).length)).toBe(true)
  await hand.page.getByRole('button', { name: 'Check and publish' }).click()
  await hand.page.getByRole('button', { name: 'Publish it' }).click()
  await expect(hand.page).not.toHaveURL(/draft/)
  await hand.to('publish')
}

const sum = (all: readonly Counted[]): Counted =>
  all.reduce((a, b) => ({ taps: a.taps + b.taps, keys: a.keys + b.keys, entries: a.entries + b.entries }))

test.afterEach(async ({ page }) => {
  await page.getByLabel('Units that are read first').selectOption('metric')
})
for (const [what, drives] of [
  ['an outboard lower', [['Skua 71', 'outboard-fnr']]],
  [
    'a sterndrive of two cases',
    [
      ['Skua 72 upper', 'stern-upper'],
      ['Skua 72 lower', 'stern-lower-fnr'],
    ],
  ],
] as const)
  test(
    `${what} in inches, from bare to published, in less than 25 minutes of typing`,
    { tag: '@long' },
    async ({ page }) => {
      test.setTimeout(600_000)
      await show(page, '/drives')
      await page.getByLabel('Units that are read first').selectOption('imperial')
      const lists: Record<string, Counted>[] = []
      for (const [name, family] of drives) lists.push(await typeSheet(page, name, family))
      const all = sum(lists.flatMap((l) => Object.values(l)))
      const minutes = seconds(all) / 60
      test.info().annotations.push({ type: 'counted', description: JSON.stringify({ lists, all, minutes }) })
      expect(minutes).toBeLessThan(25)
    },
  )
