import { chromium } from '@playwright/test'
import { chromiumPath } from '../chromium.ts'
import { startServer } from '../servers.ts'

/**
 * Part of npm run bench: how soon the setting page of the built application can be used, and how many pictures a second it shows while a stack is
 * dragged: two meshes, four flanks, drawing, rulers, odds.
 */
const DRAG_MS = 5000
const { url, end } = await startServer({})
const browser = await chromium.launch({
  executablePath: chromiumPath(),
  args: ['--no-sandbox', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.addInitScript(() => localStorage.setItem('moray.person', 'ylva'))
const opened: number[] = []
for (let i = 0; i < 5; i++) {
  const started = performance.now()
  await page.goto(`${url}/jobs/alke-lower/setting`)
  await page.locator('.card.open').waitFor()
  opened.push(performance.now() - started)
}
await page.getByRole('button', { name: /What if/ }).click()
const slider = page.locator('.what-if input[type=range]').first()
await slider.scrollIntoViewIfNeeded()
const box = (await slider.boundingBox())!
await page.evaluate(`
  shown = 0
  patches = 0
  tick = () => { shown++; requestAnimationFrame(tick) }
  requestAnimationFrame(tick)
  new MutationObserver((all) => (patches += all.some((m) => m.target.classList.contains('patch')) ? 1 : 0))
    .observe(document.querySelector('section[aria-label="Contact"]'), { subtree: true, attributes: true })
  began = performance.now()`)
const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
await page.mouse.move(middle.x, middle.y)
await page.mouse.down()
const started = performance.now()
let moves = 0
while (performance.now() - started < DRAG_MS)
  await page.mouse.move(middle.x + Math.sin(++moves / 15) * box.width * 0.4, middle.y)
const rates = await page.evaluate(
  '({ framesPerSecond: (1000 * shown) / (performance.now() - began), patchesPerSecond: (1000 * patches) / (performance.now() - began) })',
)
await page.mouse.up()
process.stdout.write(
  `${JSON.stringify({
    name: 'what-if',
    viewport: '1280x800',
    usableFirstMs: Math.round(opened[0]!),
    usableMedianMs: Math.round(opened.sort((a, b) => a - b)[2]!),
    ...(rates as object),
    movesPerSecond: Math.round((1000 * moves) / DRAG_MS),
  })}\n`,
)
await browser.close()
await end()
