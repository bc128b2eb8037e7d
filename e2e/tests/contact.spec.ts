import { expect, test, type Page } from './test.ts'
import { contactTeeth, USUAL_CROWN } from '@moray/core/contact/as-set'
import { sideOf, type Flank } from '@moray/core/gears/flank'
import { toothContact, type ContactSetting } from '@moray/core/contact/tooth-contact'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { toeShareOf } from '@moray/core/contact/photo'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { complaints, show } from '../pages.ts'
import { fastTo, openJob, post } from './hand.ts'

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
  const teeth = contactTeeth(pair)
  const hidden = { pinionMm: 0.12, gearMm: -0.05, offsetMm: 0, shaftAngleErrorDeg: 0 }
  await show(page, '/jobs/alke-lower/contact')
  await expect(page.getByRole('region', { name: 'Read back' })).toContainText('Mark drive and coast')
  // what the gauges say is drawn already
  await expect(page.locator('.flanks .before')).toHaveCount(2)
  for (const flank of ['drive', 'coast'] as const) {
    await expect(page.locator('.panel h2', { hasText: 'flank, place' })).toContainText(
      flank === 'drive' ? 'Drive' : 'Coast',
    )
    const enter = page.getByRole('button', { name: 'Enter this patch' })
    // nothing is entered that nobody has seen
    await expect(enter).toBeDisabled()
    const { outline } = toothContact({
      mesh: teeth.mesh,
      side: sideOf(flank, teeth),
      ...hidden,
      ...USUAL_CROWN,
    })
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
  // nothing is proposed while the two contradict each other
  await expect(read).not.toContainText('Pinion shims')
  // it is on the server, and a second mark of the same flank asks why
  await page.reload()
  await page.getByRole('button', { name: 'Place 1, drive flank, marked' }).click()
  await page.getByLabel('Toe end').fill('-0.6')
  await expect(page.getByRole('button', { name: 'Mark it anew' })).toBeDisabled()
  await page.getByLabel('Why anew').fill('smeared, read again')
  await page.getByRole('button', { name: 'Mark it anew' }).click()
  await show(page, '/jobs/alke-lower/record')
  await expect(page.getByRole('region', { name: 'History' })).toContainText('smeared, read again')
})

test(
  'a depth that is out is shown as a setting, with the shims that mend it; axes that miss each other as no setting at all',
  { tag: '@long' },
  async ({ page }) => {
    const pair = demoSheets.find((s) => s.id === 'alke-2-lower')!.meshes.find((m) => m.id === 'forward')!
    const teeth = contactTeeth(pair)
    const right = { pinionMm: 0, gearMm: 0, offsetMm: 0, shaftAngleErrorDeg: 0 }
    /** Marks what a case would show that hides this, on both flanks of a new job. */
    const readOf = async (hidden: typeof right) => {
      const id = await openJob(page, 'alke-2-lower', undefined)
      await show(page, `/jobs/${id}/contact`)
      for (const flank of ['drive', 'coast'] as const) {
        await expect(page.locator('.panel h2', { hasText: 'flank, place' })).toContainText(
          flank === 'drive' ? 'Drive' : 'Coast',
        )
        await drawRound(
          page,
          flank,
          toothContact({ mesh: teeth.mesh, side: sideOf(flank, teeth), ...hidden, ...USUAL_CROWN }).outline,
        )
        await page.getByRole('button', { name: 'Enter this patch' }).click()
        await expect(page.getByRole('button', { name: `Place 1, ${flank} flank, marked` })).toBeVisible()
      }
      return page.getByRole('region', { name: 'Read back' })
    }
    const depth = await readOf({ ...right, pinionMm: 0.15 })
    await expect(depth.locator('.lead')).toContainText('A setting')
    await expect(depth).toContainText('Pinion shims')
    const offset = await readOf({ ...right, offsetMm: 0.35 })
    await expect(offset.locator('.lead')).toContainText('Not a setting')
    // nothing is proposed that would only hide it
    await expect(offset).not.toContainText('Pinion shims')
  },
)

/** A camera that looks askew at the plane of a flank 30 mm long and 8 mm high at the heel: where a place of it lands in the picture. */
function camera(toeShare: number) {
  const [c, d] = [Math.cos(0.35), Math.sin(0.35)]
  return ([along, up]: [number, number]): [number, number] => {
    const [x, y] = [along * 15, up * 4 * (toeShare + ((1 - toeShare) * (along + 1)) / 2)]
    const depth = 60 + x * d + y * 0.4
    return [400 + (1300 * x * c) / depth, 300 - (1300 * (y + 0.1 * x)) / depth]
  }
}
/** A picture of that flank with its patch on it, as a file. */
const photograph = (page: Page, quad: [number, number][], patch: [number, number][]) =>
  page.evaluate(
    ([corners, seen]) => {
      const canvas = document.createElement('canvas') as unknown as {
        width: number
        height: number
        getContext: (kind: '2d') => {
          fillStyle: string
          fillRect: (x: number, y: number, w: number, h: number) => void
          beginPath: () => void
          lineTo: (x: number, y: number) => void
          fill: () => void
        }
        toDataURL: (type: string) => string
      }
      canvas.width = 800
      canvas.height = 600
      const pen = canvas.getContext('2d')
      const area = (points: [number, number][], colour: string) => {
        pen.fillStyle = colour
        pen.beginPath()
        for (const [x, y] of points) pen.lineTo(x, y)
        pen.fill()
      }
      pen.fillStyle = '#555'
      pen.fillRect(0, 0, 800, 600)
      area(corners!, '#aab')
      area(seen!, '#234')
      return canvas.toDataURL('image/png').split(',')[1]!
    },
    [quad, patch],
  )

test(
  'a pattern marked on a photo squared by its four corners is read back to what the case hid, within 0.03 mm',
  { tag: '@long' },
  async ({ page }) => {
    const sheet = demoSheets.find((s) => s.id === 'alke-2-lower')!
    const teeth = contactTeeth(sheet.meshes.find((m) => m.id === 'forward')!)
    const hidden = { pinionMm: -0.1, gearMm: 0.06, offsetMm: 0, shaftAngleErrorDeg: 0 }
    const taken = camera(toeShareOf(teeth.mesh))
    const corners = [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map((c) => taken(c as [number, number]))
    const id = await openJob(page, 'alke-2-lower', undefined)
    await show(page, `/jobs/${id}/contact`)
    for (const flank of ['drive', 'coast'] as const) {
      await expect(page.locator('.panel h2', { hasText: 'flank, place' })).toContainText(
        flank === 'drive' ? 'Drive' : 'Coast',
      )
      const { outline } = toothContact({
        mesh: teeth.mesh,
        side: sideOf(flank, teeth),
        ...hidden,
        ...USUAL_CROWN,
      })
      if (flank === 'drive') await page.getByRole('button', { name: /on a photo$/ }).click()
      const photo = page.getByRole('region', { name: 'On a photo' })
      const patch = outline.map(taken)
      const sent = page.waitForResponse((r) => r.url().includes('/files') && r.request().method() === 'POST')
      await photo.locator('input[type=file]').setInputFiles({
        name: `${flank}.png`,
        mimeType: 'image/png',
        buffer: Buffer.from(await photograph(page, corners, patch), 'base64'),
      })
      expect((await sent).status()).toBe(201)
      await expect(photo.locator('.said')).toContainText('Tap the corner 1 of 4: root at the toe')
      const frame = photo.locator('.frame')
      await expect(frame.locator('svg')).toBeVisible()
      await frame.scrollIntoViewIfNeeded()
      const box = (await frame.boundingBox())!
      const there = ([x, y]: [number, number]) =>
        [box.x + (x / 800) * box.width, box.y + (y / 600) * box.height] as const
      // a photo without its corners is not drawn on
      for (const c of corners) await page.mouse.click(...there(c))
      await expect(photo.locator('.said')).toContainText('Now draw round the patch')
      await page.mouse.move(...there(patch[0]!))
      await page.mouse.down()
      for (const p of patch) await page.mouse.move(...there(p))
      await page.mouse.up()
      await page.getByRole('button', { name: 'Enter this patch' }).click()
      await expect(page.getByRole('button', { name: `Place 1, ${flank} flank, marked` })).toBeVisible()
    }
    const read = page.getByRole('region', { name: 'Read back' })
    const text = await read.locator('tr', { hasText: 'Pinion' }).locator('td').first().innerText()
    const pinion = Number(/([+−])(\d\.\d+)/.exec(text)!.slice(1).join('').replace('−', '-'))
    expect(Math.abs(pinion - hidden.pinionMm)).toBeLessThanOrEqual(0.03)
  },
)

test('the tooth is seen in the round, with its ends named wherever it is turned to', async ({ page }) => {
  const seen = complaints(page)
  await show(page, '/jobs/alke-lower/contact')
  await page.getByRole('button', { name: 'See the tooth in the round' }).click()
  const pair = page.locator('.pair')
  const word = (text: string) => pair.locator('.word', { hasText: new RegExp(`^${text}$`) })
  const at = async (text: string) => (await word(text).boundingBox())!
  for (const text of ['toe', 'heel', 'top', 'root']) await expect(word(text)).toBeVisible()
  const flank = { toe: await at('toe'), heel: await at('heel'), top: await at('top'), root: await at('root') }
  expect(Math.abs(flank.heel.x - flank.toe.x)).toBeGreaterThan(100)
  expect(flank.top.y).toBeLessThan(flank.root.y)
  // something is drawn: paper alone has one colour
  const colours = await pair.locator('canvas').evaluate((c) => {
    const canvas = c as unknown as {
      width: number
      height: number
      getContext: (k: '2d') => {
        getImageData: (x: number, y: number, w: number, h: number) => { data: number[] }
      }
    }
    const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height)
    const found = new Set<string>()
    for (let i = 0; i < data.length; i += 4) found.add(`${data[i]} ${data[i + 1]} ${data[i + 2]}`)
    return found.size
  })
  expect(colours).toBeGreaterThan(4)
  await pair.getByRole('button', { name: 'from the toe' }).click()
  expect(Math.abs((await at('heel')).x - (await at('toe')).x)).toBeLessThan(
    Math.abs(flank.heel.x - flank.toe.x),
  )
  // with the finger it turns
  const before = await at('heel')
  const box = (await pair.locator('.frame').boundingBox())!
  await page.mouse.move(box.x + 100, box.y + 150)
  await page.mouse.down()
  await page.mouse.move(box.x + 220, box.y + 170, { steps: 4 })
  await page.mouse.up()
  await expect.poll(async () => Math.abs((await at('heel')).x - before.x)).toBeGreaterThan(5)
  expect(seen).toEqual([])
})

test(
  'a threaded carrier goes two rounds: turned in by the plan, locked, read again, turned back, accepted',
  { tag: '@long' },
  async ({ page }) => {
    // a job of its own: others read the one of the demo
    const id = await openJob(page, 'rordrum-v', undefined)
    await show(page, `/jobs/${id}/setting`)
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
  },
)

/** Marks what a case would show on both flanks of a place. */
async function markBoth(page: Page, teeth: ReturnType<typeof contactTeeth>, hidden: Partial<ContactSetting>) {
  const setting = { pinionMm: 0, gearMm: 0, offsetMm: 0, shaftAngleErrorDeg: 0, ...hidden }
  for (const flank of ['drive', 'coast'] as const) {
    await expect(page.locator('.panel h2', { hasText: 'flank, place' })).toContainText(
      flank === 'drive' ? 'Drive' : 'Coast',
    )
    const side = sideOf(flank, teeth)
    await drawRound(page, flank, toothContact({ mesh: teeth.mesh, side, ...setting, ...USUAL_CROWN }).outline)
    await page.getByRole('button', { name: 'Enter this patch' }).click()
    await expect(page.getByRole('button', { name: `Place 1, ${flank} flank, marked` })).toBeVisible()
  }
}

test('a sheet that does not say which flank is pushed: asked by a picture, and nothing is read back before', async ({
  page,
}) => {
  const lomvi = bodyOf(demoSheets.find((s) => s.id === 'lomvi-90')!)
  const meshes = lomvi.meshes.map(({ pinionHand: _h, pinionTurns: _t, ...m }) => m)
  const sheet = { ...lomvi, id: 'eigen-20', name: 'Eigen 20', demo: false, meshes }
  expect((await post(page, '/api/sheets', { anew: true, sheet })).status).toBe(201)
  const id = await openJob(page, 'eigen-20', undefined)
  await show(page, `/jobs/${id}/contact`)
  const question = page.getByRole('region', { name: 'Which flank is pushed' })
  await expect(question).toBeVisible()
  await expect(page.getByRole('region', { name: 'Read back' })).toContainText('Nobody has said which flank')
  await expect(page.locator('.flanks')).not.toContainText('concave')
  const teeth = contactTeeth({ ...demoSheets.find((s) => s.id === 'lomvi-90')!.meshes[0]! })
  await markBoth(page, teeth, { pinionMm: 0.15 })
  await expect(page.getByRole('region', { name: 'Read back' })).toContainText('Nobody has said which flank')
  await question.getByRole('button', { name: 'The round side' }).click()
  await expect(question).toBeHidden()
  await expect(page.locator('.flanks')).toContainText('Drive flank, convex')
  await expect(page.getByRole('region', { name: 'Read back' })).toContainText('A setting')
  // the other pair on the same pinion is pushed alike
  await page.getByRole('button', { name: 'Reverse mesh' }).click()
  await expect(page.locator('.flanks')).toContainText('Drive flank, convex')
})

test('straight teeth: one sum of both moves, which part is out by the height, and no shim of a single part', async ({
  page,
}) => {
  const pair = demoSheets.find((s) => s.id === 'rordrum-v')!.meshes[0]!
  const teeth = contactTeeth(pair)
  const id = await openJob(page, 'rordrum-v', undefined)
  await show(page, `/jobs/${id}/contact`)
  await expect(page.locator('.flanks')).not.toContainText(/concave|convex/)
  await markBoth(page, teeth, { pinionMm: 0.25 })
  const read = page.getByRole('region', { name: 'Read back' })
  await expect(read).toContainText('A setting')
  await expect(read).toContainText('tell the two moves only together')
  await expect(read).toContainText('Pinion inward')
  const sum = Number(/= \+(\d\.\d+)/.exec((await read.innerText()).replaceAll('\n', ' '))![1])
  expect(
    Math.abs(sum - 0.25 * (pair.mesh.pinionTeeth / Math.hypot(pair.mesh.pinionTeeth, pair.mesh.gearTeeth))),
  ).toBeLessThan(0.06)
  await expect(read.locator('.shims')).toHaveCount(0)
})

test('the pattern is due, and drawn, before the build is accepted', async ({ page }) => {
  const id = await openJob(page, 'teist-6', undefined)
  let job = await fastTo(page, id, 'set-gears')
  for (const m of job.sheet.measures)
    for (let i = 0; i < m.readings; i++) {
      const text = `${m.target ?? 0.3} mm`
      const reading = { build: 0, measure: m.id, text, unit: 'mm', gaugeId: 'g02', confirmed: true }
      expect((await post(page, `/api/jobs/${id}/readings`, reading)).status).toBe(201)
    }
  await show(page, `/jobs/${id}/setting`)
  await expect(page.getByText('The contact pattern comes first')).toBeVisible()
  await page.getByRole('link', { name: 'Read the contact pattern' }).click()
  // nothing is accepted yet: what is marked is no later finding
  await expect(page.locator('.panel')).not.toContainText('later finding')
  await markBoth(page, contactTeeth(job.sheet.meshes[0]!), {})
  await expect(page.getByRole('region', { name: 'Read back' })).toContainText('It sits')
  job = await fastTo(page, id, 'pattern')
  expect(job.acceptance).toBeNull()
  expect(job.builds.at(-1)!.patterns).toHaveLength(2)
  await show(page, `/jobs/${id}/route`)
  await expect(page.getByRole('link', { name: 'Draw the pattern on the flank' })).toBeVisible()
  await fastTo(page, id, 'accept')
  await show(page, `/jobs/${id}/route`)
  await expect(page.locator('.panel')).toContainText('Nothing is accepted as built')
  await page.locator('.panel').getByRole('link', { name: 'To Setting' }).click()
  await page.getByRole('button', { name: 'Accept as built' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Accept' }).click()
  await expect(page.getByRole('heading', { name: 'Accepted as built' })).toBeVisible()
})
