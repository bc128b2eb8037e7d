// npm run screenshots: refreshes docs/screenshots from a fresh demo. Needs the build (npm run build) and Chromium.
import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import { chromiumPath } from './chromium.mjs'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const out = join(root, 'docs', 'screenshots')
const data = mkdtempSync(join(tmpdir(), 'moray-shots-'))
mkdirSync(out, { recursive: true })

const server = spawn(process.execPath, ['tools/start.mjs'], {
  cwd: root,
  env: { ...process.env, PORT: '0', MORAY_DATA: data },
  stdio: ['ignore', 'pipe', 'inherit'],
})
const url = await new Promise((ready, fail) => {
  let text = ''
  server.stdout.on('data', (d) => {
    text += d
    const found = /http:\S+/.exec(text)
    if (found) ready(found[0])
  })
  server.on('exit', () => fail(new Error('the server ended')))
})
const browser = await chromium.launch({
  executablePath: chromiumPath(),
  args: ['--no-sandbox', '--disable-background-networking'],
})

async function shot(name, path, { width = 1280, height = 800, night = false, inch = false, act } = {}) {
  const context = await browser.newContext({ viewport: { width, height } })
  const page = await context.newPage()
  await page.addInitScript(() => localStorage.setItem('moray.person', 'ylva'))
  if (night) await page.addInitScript(() => localStorage.setItem('moray.night', 'true'))
  if (inch) await page.addInitScript(() => localStorage.setItem('moray.first', '{"ylva":"imperial"}'))
  await page.goto(url + path)
  await page.waitForLoadState('load')
  await page.waitForTimeout(1200)
  if (act) await act(page)
  await page.waitForTimeout(400)
  await page.screenshot({ path: join(out, `${name}.png`) })
  await context.close()
  console.log(`docs/screenshots/${name}.png`)
}

const typeStacks = async (page) => {
  for (const text of ['.40', '22h']) {
    await page.locator('input.text').fill(text)
    await page.locator('input.text').press('Enter')
  }
  await page.locator('input.text').fill('16t')
}
await shot('bench', '/')
await shot('setting-found', '/jobs/lomvi-skarv/setting', { act: typeStacks })
const planShown = (page) => page.locator('.card.open').waitFor({ timeout: 60_000 })
await shot('setting-plan', '/jobs/alke-lower/setting', { act: planShown })
/** The pinion's stack taken some hundredths thicker: gear, contact and windows follow. */
const supposed = async (page) => {
  await planShown(page)
  await page.getByRole('button', { name: /What if/ }).click()
  const slider = page.locator('.what-if input[type=range]').first()
  await slider.focus()
  for (let i = 0; i < 6; i++) await page.keyboard.press('-')
}
await shot('what-if', '/jobs/alke-lower/setting', { act: supposed })
const inTheRound = async (page) => {
  await page.getByRole('button', { name: 'See the tooth in the round' }).click()
  await page.locator('.pair .word').first().waitFor()
}
await shot('contact', '/jobs/lomvi-done/contact', { height: 1160, act: inTheRound })
await shot('preload', '/jobs/lomvi-skarv/setting?at=bearing:driveshaft-lower')
const trialsOpen = async (page) => {
  await page.getByText('The trials side by side').click()
  await page.locator('.trials canvas, .trials svg').first().waitFor()
  await page.getByText('The trials side by side').scrollIntoViewIfNeeded()
}
await shot('trials', '/jobs/alke-lower/setting?at=measure:depth', { height: 1500, act: trialsOpen })
/** A carrier too far out, read three times: it is turned in by notches. */
const clutchChosen = (page) => page.getByRole('button', { name: 'Gear set', exact: true }).click()
await shot('scope', '/jobs/lomvi-teist/scope', { act: clutchChosen })
await shot('route-teardown', '/jobs/rordrum/route?step=left-hand')
await shot('grades', '/jobs/teist-bent/parts?view=grades&part=prop-shaft')
await shot('faults', '/jobs/lomvi-teist/faults')
await shot('record', '/jobs/lomvi-done/record', { height: 1100 })
// years are read little by little after a start
const allFound = async (page) => {
  await page.getByRole('listitem').filter({ hasText: 'LV90-17211' }).nth(3).waitFor({ timeout: 150_000 })
}
await shot('find', '/find?q=LV90-17211 forward', { act: allFound })
await shot('unit', '/boats/lomvi-90/LV90-17211')
await shot('drawer', '/drawer')
await shot('gauges', '/gauges')

/** A drive of one's own, typed in as far as a technician comes in ten minutes: by calliper, in inches. */
const post = async (path, body) => {
  const r = await fetch(`${url}${path}`, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      'x-moray-person': 'ylva',
      'x-moray-request': crypto.randomUUID(),
    },
    body: JSON.stringify(body),
  })
  if (!r.ok) throw new Error(`${path}: ${await r.text()}`)
  return r.json()
}
const figure = async (path, text, source = 'manual', was = '') =>
  post('/api/drives/kobbe-40/figures', {
    path,
    text,
    source,
    was,
    ...(source === 'manual' ? { where: '31' } : {}),
  })
await post('/api/drives', { name: 'Kobbe 40', family: 'outboard-fnr', manual: 'Kobbe service book' })
for (const [path, text, source] of [
  ['gears.pinion.teeth', '13', 'counted'],
  ['gears.forward-gear.teeth', '28', 'counted'],
  ['gears.reverse-gear.teeth', '28', 'counted'],
  ['gears.forward-gear.outsideMm', '4.72in', 'measured'],
  ['meshes.forward.form', 'spiral', 'measured'],
  ['meshes.forward.faceWidthMm', '.67in', 'measured'],
  ['measures.backlash-forward.window', '.015 to .022in'],
  ['measures.backlash-forward.radiusMm', '1.5in'],
  ['measures.backlash-reverse.window', '.030 to .045in'],
  ['adjusters.pinion.effect', '-1'],
  ['adjusters.forward.effect', '-1'],
  ['bench.leak.workKpa', '10psi'],
  ['bench.leak.maxKpa', '14psi'],
])
  await figure(path, text, source)
await shot('sheet-entry', '/drives/kobbe-40/draft?at=setting', { inch: true })
await post('/api/drives/lomvi-90/draft', { anew: false })
await shot('sheet-lists', '/drives/lomvi-90/draft?at=groups', { inch: true })
await shot('sums', '/sums/lock-alignment')

await browser.close()
server.kill('SIGTERM')
await new Promise((r) => server.on('exit', r))
rmSync(data, { recursive: true, force: true })
