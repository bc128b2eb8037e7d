import type { SheetDraft } from '@moray/contract/replies'
import { edgesOf } from '@moray/core/drives/graph/edges'
import type { Page } from '@playwright/test'
import { show } from '../pages.ts'
import { post } from './hand.ts'
import { expect, test } from './test.ts'

/** The lists of a drive's sheet, typed down like the tables of a manual. */

async function drive(page: Page, name: string, family = 'outboard-fnr') {
  const made = await post(page, '/api/drives', { name, family })
  expect(made.status, JSON.stringify(made.body)).toBe(201)
  const id = name.toLowerCase().replace(/[^a-z0-9]+/g, '-')
  const draft = async () => (await (await page.request.get(`/api/drives/${id}/draft`)).json()) as SheetDraft
  return { id, draft }
}
const list = (page: Page, name: string) => page.getByRole('region', { name, exact: true })
const cell = (page: Page, label: string) => page.getByLabel(label, { exact: true })
/** What was left is on the server. */
const kept = (page: Page) => page.waitForResponse((r) => r.url().endsWith('/rows/several') && r.ok())

test('rows are typed down with Enter and Tab, and edges by three letters', async ({ page }) => {
  const { id, draft } = await drive(page, 'Skua 51')
  await show(page, `/drives/${id}/draft?at=groups`)
  const fasteners = list(page, 'Fasteners')
  await fasteners.getByRole('button', { name: 'Add fasteners' }).click()
  await page.keyboard.type('Cap screws')
  for (const text of ['6', '180-200 inlb']) {
    await page.keyboard.press('Tab')
    await page.keyboard.type(text)
  }
  await expect(fasteners.getByText('20.3 to 22.6 Nm')).toBeVisible()
  await page.keyboard.press('Tab')
  await page.keyboard.type('l')
  await page.keyboard.press('Tab')
  // the water pump cover, by its letters
  await page.keyboard.type('wat pum')
  await page.keyboard.press('Enter')
  const saved = kept(page)
  await page.keyboard.press('Enter')
  await saved
  // the hand is in the next line, in the column in which this one was begun
  await expect(cell(page, 'What they are, new line')).toBeFocused()
  await page.keyboard.type('Trim tab bolt')
  await page.keyboard.press('Escape')
  await expect(cell(page, 'What they are, new line')).toHaveValue('')
  const groups = (await draft()).body.groups!
  const cap = groups.at(-1)!
  expect(cap).toMatchObject({ name: 'Cap screws', count: 6, hand: 'left', torqueUnit: 'inlb' })
  expect(edgesOf(cap.holds)).toEqual(['pump-cover'])
})

test('a torque column is filled downwards, with its page; what is wrong stays as it was typed', async ({
  page,
}) => {
  const { id, draft } = await drive(page, 'Skua 52')
  await show(page, `/drives/${id}/draft?at=groups`)
  const fasteners = list(page, 'Fasteners')
  await page.getByLabel('Page', { exact: true }).fill('34')
  await fasteners.getByLabel('Bare torques in').selectOption('ftlb')
  const nut = fasteners.getByRole('row', { name: /Propeller nut/ })
  await nut.getByRole('cell').nth(3).click()
  await page.keyboard.type('55')
  let saved = kept(page)
  await page.keyboard.press('Enter')
  await saved
  await page.keyboard.type('cheese')
  await page.keyboard.press('Enter')
  await expect(fasteners.getByRole('alert')).toContainText('cheese')
  saved = kept(page)
  await page.keyboard.press('ArrowUp')
  await expect(page.locator('input:focus')).toHaveValue('cheese')
  await page.keyboard.type('70 to 75')
  await page.keyboard.press('ArrowDown')
  await saved
  const { body } = await draft()
  const source = (group: string) => body.sources!.find((s) => s.path === `groups.${group}.torqueNm`)
  expect(source('propeller-nut')).toMatchObject({ where: '34', as: '55 ftlb', kind: 'manual' })
  const written = body.groups!.filter((g) => g.torqueNm).map((g) => g.id)
  expect(written).toHaveLength(2)
})

test('an edge is picked on the drawing, and a dot there leads to its row', async ({ page }) => {
  const { id, draft } = await drive(page, 'Skua 53')
  await show(page, `/drives/${id}/draft?at=joints`)
  const joints = list(page, 'Joints')
  await joints.getByRole('button', { name: 'Add a joint' }).click()
  await page.keyboard.type('Top cap')
  await page.keyboard.press('Tab')
  await page.keyboard.type('cov')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  // closed by: the dots of the fasteners are on the drawing now
  await expect(page.getByText('Tap a dot to add it to: Closed by.')).toBeVisible()
  await page.locator('[data-row="groups propeller-nut"]').click()
  const saved = kept(page)
  await page.keyboard.press('Enter')
  await saved
  const cap = (await draft()).body.joints!.find((j) => j.name === 'Top cap')!
  expect(cap).toMatchObject({ kind: 'cover', closedBy: { 'propeller-nut': true } })
  // and the other way round
  await page.keyboard.press('Escape')
  await page.locator('[data-row="joints top-cap"]').click()
  await expect(cell(page, 'Name, Top cap')).toBeFocused()
})

test('a row that is struck out says what hangs on it, and Undo heals every edge to it', async ({ page }) => {
  const { id, draft } = await drive(page, 'Skua 54')
  await show(page, `/drives/${id}/draft?at=groups`)
  const before = (await draft()).body
  await page
    .getByRole('row', { name: /Carrier ring nut/ })
    .getByRole('button')
    .first()
    .click()
  await page.getByRole('button', { name: 'Strike out' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('1 row leads to it')
  await dialog.getByRole('button', { name: 'Strike it out' }).click()
  await expect(dialog).toHaveCount(0)
  await expect(page.getByRole('row', { name: /Carrier ring nut/ })).toHaveCount(0)
  expect((await draft()).body).not.toEqual(before)
  await page.getByRole('heading', { name: 'Skua 54' }).click()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('row', { name: /Carrier ring nut/ })).toBeVisible()
  expect((await draft()).body).toEqual(before)
  await page.getByRole('button', { name: 'Do it again' }).click()
  await expect(page.getByRole('row', { name: /Carrier ring nut/ })).toHaveCount(0)
})

test('five hundred rows are pasted: all or none, and all three wrong ones are said', async ({ page }) => {
  const { id, draft } = await drive(page, 'Skua 55')
  await show(page, `/drives/${id}/draft?at=groups`)
  const before = (await draft()).body.groups!.length
  const lines = Array.from({ length: 500 }, (_, i) => [`Screw ${i}`, String((i % 8) + 1), '12 to 14'])
  lines[17]![2] = '14 to 12'
  lines[203]![1] = 'many'
  lines[444]![0] = ''
  const table = [['What they are', 'Qty of how many', 'Torque (ft-lb)'], ...lines]
    .map((l) => l.join('\t'))
    .join('\n')
  await list(page, 'Fasteners').getByRole('button', { name: 'Paste a table' }).click()
  const dialog = page.getByRole('dialog')
  const text = dialog.getByLabel('The table, as it was copied')
  await text.fill(table)
  await dialog.getByLabel('Column 2').selectOption('How many')
  const wrong = dialog.getByRole('alert')
  await expect(wrong).toContainText('3 cells are not understood')
  for (const at of ['Line 19, Torque', 'Line 205, How many', 'Line 446, What they are'])
    await expect(wrong).toContainText(at)
  await expect(dialog.getByRole('button', { name: 'Take in 500 rows' })).toBeDisabled()
  expect((await draft()).body.groups).toHaveLength(before)
  await text.fill(
    table.replace('14 to 12', '12 to 14').replace('\tmany\t', '\t4\t').replace('\n\t', '\nScrew 444\t'),
  )
  await dialog.getByLabel('Column 2').selectOption('How many')
  const saved = kept(page)
  await dialog.getByRole('button', { name: 'Take in 500 rows' }).click()
  await saved
  await expect(dialog).toHaveCount(0)
  const groups = (await draft()).body.groups!
  expect(groups).toHaveLength(before + 500)
  expect(groups.at(-1)).toMatchObject({ name: 'Screw 499', torqueUnit: 'ftlb' })
  expect(groups.at(-1)!.torqueNm!.min).toBeCloseTo(16.27, 2)
})

test('loose ends are listed with a way to each, and confirmed in one tap', async ({ page }) => {
  const { id, draft } = await drive(page, 'Skua 56')
  await show(page, `/drives/${id}/draft?at=loose`)
  const taken = list(page, 'Taken over from the family')
  await expect(taken).toBeVisible()
  await taken.getByRole('button', { name: 'Pinion nut', exact: true }).click()
  await expect(page).toHaveURL(/at=groups/)
  await expect(page.locator('tr.on')).toHaveAttribute('data-id', 'pinion-nut')
  await show(page, `/drives/${id}/draft?at=loose`)
  const inJoints = taken.locator('.list', { hasText: /In the joints(?! of)/ })
  const saved = kept(page)
  await inJoints.getByRole('button', { name: /Confirm all/ }).click()
  await saved
  await expect(inJoints).toHaveCount(0)
  expect(JSON.stringify((await draft()).body.joints)).not.toContain('assumed')
})
