import { ownSheets } from '../../core/tests/assembly/own-sheets.ts'
import { show } from '../pages.ts'
import { counted as countedIn, countIn } from './counting.ts'
import { jobOf, post, workTo, worked } from './hand.ts'
import { expect, test } from './test.ts'

const { body } = ownSheets.find((s) => s.family === 'outboard-fnr')!

/** What the same jobs took before the route followed the state of the drive, on a drive of one's own of this family. */
const BEFORE = [
  ['Seals of the propeller shaft', 'seals:propshaft', 115, 75],
  ['Clutch', 'clutch', 124, 75],
  ['Pressure test only', 'test', 25, 45],
  ['Refit', 'refit', 42, 64],
  ['Unit bought in', 'unit', 39, 57],
] as const

test.afterAll(() => void (worked.reads = true))

for (const [label, usual, taps, keys] of BEFORE)
  test(
    `${label} on a drive of one’s own: fewer than ${taps} taps and ${keys} keys, from the bench to handover`,
    { tag: '@long' },
    async ({ page }) => {
      test.setTimeout(400_000)
      const id = `own-${usual.replace(':', '-')}`
      const sheet = { ...body, id, name: `Skua ${usual}`, demo: false }
      const made = await post(page, '/api/sheets', { anew: true, sheet })
      expect(made.status, JSON.stringify(made.body)).toBe(201)
      const opens = usual === 'seals:propshaft' || usual === 'clutch'
      await show(page, '/')
      Object.assign(worked, { visits: 0, reads: false })
      await countIn(page)
      await page.getByRole('button', { name: 'A drive comes in' }).click()
      const dialog = page.getByRole('dialog')
      await dialog.getByLabel('Serial number').fill('S-1')
      await dialog.getByLabel('Drive').selectOption({ label: sheet.name })
      await dialog.getByLabel('What for').selectOption({ label })
      await dialog.getByLabel('Boat').fill('Terna')
      await dialog.getByLabel('Owner').fill('Vik')
      if (opens) {
        await dialog.getByLabel('Complaint').fill('weeps')
        await dialog.getByRole('button', { name: 'Open the job' }).click()
      } else await dialog.getByLabel('Owner').press('Enter')
      await expect(page).toHaveURL(/jobs/)
      // from its scope to its route
      if (opens) await page.getByRole('link', { name: 'To the route' }).click()
      const job = /jobs\/([^/]+)\//.exec(page.url())![1]!
      await workTo(page, job)
      const counted = await countedIn(page)
      // to another page of the job, and back
      counted.taps += 2 * worked.visits
      test.info().annotations.push({ type: 'counted', description: JSON.stringify(counted) })
      expect((await jobOf(page, job)).state).toBe('finished')
      expect(counted.taps).toBeLessThan(taps)
      expect(counted.keys).toBeLessThan(keys)
    },
  )
