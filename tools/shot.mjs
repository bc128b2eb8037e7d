// node tools/shot.mjs URL FILE [WIDTH HEIGHT] [--night] [--inch] [--nobody] [--full]: one picture of one page, for looking at.
import { chromium } from '@playwright/test'
import { chromiumPath } from './chromium.mjs'
const [url, file, w = '1280', h = '800'] = process.argv.slice(2).filter((a) => !a.startsWith('--'))
const browser = await chromium.launch({
  executablePath: chromiumPath(),
  args: ['--no-sandbox', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: Number(w), height: Number(h) } })
page.on('console', (m) => ['error', 'warning'].includes(m.type()) && console.log(m.type(), m.text()))
page.on('pageerror', (e) => console.log('pageerror', e.message))
const flags = process.argv
await page.addInitScript(
  ([somebody, inch]) => {
    if (somebody) localStorage.setItem('moray.person', 'ylva')
    if (inch) localStorage.setItem('moray.first', JSON.stringify({ ylva: 'imperial' }))
  },
  [!flags.includes('--nobody'), flags.includes('--inch')],
)
if (process.argv.includes('--night'))
  await page.addInitScript(() => localStorage.setItem('moray.night', 'true'))
await page.goto(url)
await page.waitForTimeout(1500)
await page.screenshot({ path: file, fullPage: process.argv.includes('--full') })
await browser.close()
