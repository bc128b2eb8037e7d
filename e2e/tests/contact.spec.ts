import { expect, test, type Page } from '@playwright/test'
import { contactTeeth, USUAL_CROWN } from '@moray/core/contact/as-set'
import { sideOf, type Flank } from '@moray/core/contact/flank'
import { toothContact } from '@moray/core/contact/tooth-contact'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { openJob } from './hand.ts'

/** Draws round a patch on the flank that is shown, point by point, as a finger would. */
async function drawRound(page: Page, flank: Flank, outline: [number, number][]) {
  const svg = page.locator('.flanks svg').nth(flank === 'drive' ? 0 : 1)
  const box = (await svg.boundingBox())!
  // the picture of a flank: 340 by 150, its edge 34 in, the tooth at the toe 0.72 of what it is at the heel
  const at = ([along, up]: [number, number]) => {
    const share = (along + 1) / 2
    const height = 82 * (0.72 + 0.28 * share)
    return [
      box.x + ((34 + share * 272) / 340) * box.width,
      box.y + ((75 - (up * height) / 2) / 150) * box.height,
    ] as const
  }
  await page.mouse.move(...at(outline[0]!))
  await page.mouse.down()
  for (const p of outline) await page.mouse.move(...at(p))
  await page.mouse.up()
}

test('a pattern drawn round on both flanks is read back to what the case hid, within 0.03 mm, beside the gauges', async ({
  page,
}) => {
  const pair = demoSheets.find((s) => s.id === 'alke-2-lower')!.meshes.find((m) => m.id === 'forward')!
  const { mesh } = contactTeeth(pair)
  const hidden = { pinionMm: 0.12, gearMm: -0.05, offsetMm: 0, shaftAngleErrorDeg: 0 }
  await page.goto('/jobs/alke-lower/contact')
  await expect(page.getByRole('region', { name: 'Read back' })).toContainText('Mark drive and coast')
  // what the gauges say is drawn already
  await expect(page.locator('.flanks .before')).toHaveCount(2)
  for (const flank of ['drive', 'coast'] as const) {
    await expect(page.locator('.panel h2')).toContainText(flank === 'drive' ? 'Drive' : 'Coast')
    const enter = page.getByRole('button', { name: 'Enter this patch' })
    // nothing is entered that nobody has seen
    await expect(enter).toBeDisabled()
    const { outline } = toothContact({ mesh, side: sideOf(flank, mesh), ...hidden, ...USUAL_CROWN })
    await drawRound(page, flank, outline)
    await enter.click()
    await expect(page.getByRole('button', { name: `Place 1, ${flank} flank, marked` })).toBeVisible()
  }
  const read = page.getByRole('region', { name: 'Read back' })
  await expect(read).toContainText('A setting')
  const text = await read.locator('tr', { hasText: 'Pinion' }).locator('td').first().innerText()
  const pinion = Number(/([+−])(\d\.\d+)/.exec(text)!.slice(1).join('').replace('−', '-'))
  expect(Math.abs(pinion - hidden.pinionMm)).toBeLessThanOrEqual(0.03)
  await expect(read).toContainText('Pattern and gauges disagree')
  await expect(read).toContainText('Pinion shims')
  // it is on the server, and a second mark of the same flank asks why
  await page.reload()
  await page.getByRole('button', { name: 'Place 1, drive flank, marked' }).click()
  await page.getByLabel('Toe end').fill('-0.6')
  await expect(page.getByRole('button', { name: 'Mark it anew' })).toBeDisabled()
  await page.getByLabel('Why anew').fill('smeared, read again')
  await page.getByRole('button', { name: 'Mark it anew' }).click()
  await page.goto('/jobs/alke-lower/record')
  await expect(page.getByRole('region', { name: 'History' })).toContainText('smeared, read again')
})

test('a threaded carrier goes two rounds: turned in by the plan, locked, read again, turned back, accepted', async ({
  page,
}) => {
  // a job of its own: others read the one of the demo
  const id = await openJob(page, 'rordrum-v', undefined)
  await page.goto(`/jobs/${id}/setting`)
  const field = page.locator('.panel input.text')
  const read = async (...texts: string[]) => {
    for (const [i, text] of texts.entries()) {
      await field.fill(text)
      await field.press('Enter')
      if (i < texts.length - 1) await expect(page.locator('.readings li')).toHaveCount(i + 1)
    }
  }
  await read('.31', '.32', '.31')
  const plan = page.locator('.card.open')
  await expect(plan).toContainText(/Output carrier\s*\d notches in/)
  await expect(page.locator('.tag', { hasText: 'Output carrier' })).toContainText('in')
  await plan.getByRole('button', { name: 'Build this' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('measure again after locking')
  await dialog.getByRole('button', { name: 'Build this' }).click()
  await expect(page.locator('.round.open .name')).toContainText('Trial 1')
  // locking pulled it
  await read('.10', '.10', '.11')
  await expect(page.locator('.card.open')).toContainText(/1 notch out/)
  await page.locator('.card.open').getByRole('button', { name: 'Build this' }).click()
  await dialog.getByRole('button', { name: 'Build this' }).click()
  await expect(page.locator('.round.open .name')).toContainText('Trial 2')
  await read('.16', '.16', '.17')
  // the load of its bearings, by their nut
  await expect(page.locator('.panel')).toContainText('Not read yet: Rolling torque, output taper, inner')
  await page.getByRole('button', { name: 'Read it now' }).click()
  await expect(page.locator('.panel h2')).toContainText('Rolling torque')
  await read('1.5')
  await page.getByRole('button', { name: 'Accept as built' }).click()
  await dialog.getByRole('button', { name: 'Accept as built' }).click()
  await expect(page.locator('.panel h2')).toHaveText('Accepted as built')
  await page
    .locator('.round.open')
    .getByRole('button', { name: /Output carrier/ })
    .click()
  await expect(page.locator('.panel table')).toContainText('1 notch out (20°)')
})
