import type { Page } from '@playwright/test'

/** The main pages, which must be accessible and fit, with a heading to wait for. */
export const PAGES = [
  ['/', 'Bench'],
  ['/jobs/alke-lower/setting?build=1', 'Alke 2 lower'],
  ['/jobs/havsule-upper/setting?at=bearing:input-inner', 'Rolling torque, input taper, inner'],
  ['/jobs/lomvi-teist/setting?at=runout:propshaft:face-forward-gear', 'Face of the forward gear'],
  ['/jobs/lomvi-done/record', 'Record 26-097'],
  ['/jobs/lomvi-done/contact', 'Drive flank, place 1'],
  ['/jobs/havsule-upper/scope', 'What is it for?'],
  ['/jobs/lomvi-test/route', 'Pressure-test this case'],
  ['/jobs/rordrum/parts?view=row', 'Rordrum V'],
  ['/jobs/teist-bent/parts?view=grades&part=prop-shaft', 'Propeller shaft with its gear'],
  ['/jobs/lomvi-teist/faults', 'Likely causes'],
  ['/jobs/lomvi-done/sheet', 'Step sheet'],
  ['/find?q=forward', 'Find'],
  ['/jobs/lomvi-test/before', 'Units like this'],
  ['/shop', 'Shop'],
  ['/drawer', 'Drawer'],
  ['/gauges', 'Gauges'],
  ['/drives/havsule-duo-lower', 'Havsule Duo lower'],
  ['/drives/tjeld-8/draft?at=stacks', 'Tjeld 8'],
  ['/drives/tjeld-8/draft?at=groups', 'Tjeld 8'],
  ['/sums/leak-test', 'Leak rate of a case'],
] as const

/** The others, made of the same. */
export const MORE_PAGES = [
  ['/jobs/havsule-upper/setting?at=measure:seat:input', 'Input shims by case and gear'],
  ['/jobs/havsule-upper/setting?at=measure:bearing:upper-ball', 'Crush, upper gear bearing'],
  ['/jobs/alke-lower/setting?at=runout:propshaft:0', 'Propeller shaft, seal land'],
  ['/jobs/havsule-upper/setting', 'Havsule Duo upper'],
  ['/jobs/rordrum/setting', 'Rordrum V'],
  // not one that the journeys walk on
  ['/jobs/alke-upper/route?step=loop-1-open', 'Repair 1'],
  ['/jobs/teist-bent/parts?view=estimate', 'What it costs'],
  ['/jobs/lomvi-done/schools', 'Schools on this job'],
  ['/drives', 'Drives'],
  ['/drives/tjeld-8/draft?at=joints', 'Tjeld 8'],
  ['/drives/tjeld-8/draft?at=others', 'Tjeld 8'],
  ['/drives/tjeld-8/draft?at=loose', 'Tjeld 8'],
  ['/drives/rordrum-v/compare', 'Versions of Rordrum V'],
  ['/boats', 'Boats'],
  ['/boats/lomvi-90/LV90-19960', 'LV90-19960'],
  ['/pair', 'Pair this device'],
  ['/sums', 'Sums'],
  ['/sums/shim-solve', 'Stacks out of the drawer'],
] as const

/** A place that asks for nothing of the shop. */
export const NOWHERE = '/pair'

/** From place to place without loading the application anew, as its own links do. Back when the place is shown; what it loads may still come. */
export async function goTo(page: Page, path: string) {
  await page.locator('main').waitFor()
  await page.evaluate(async (to) => {
    interface Mounted {
      __vue_app__: {
        config: {
          globalProperties: {
            $router: { isReady(): Promise<void>; push(to: string): Promise<unknown> }
          }
        }
      }
    }
    const { $router } = (document.querySelector('#app') as unknown as Mounted).__vue_app__.config
      .globalProperties
    await $router.isReady()
    await $router.push(to)
    await new Promise((shown) => requestAnimationFrame(() => requestAnimationFrame(shown)))
  }, path)
}

export const isOpen = (page: Page): Promise<boolean> =>
  page.evaluate(() => '__vue_app__' in (document.querySelector('#app') ?? {}))

/** A place of the application, as somebody gets there who has it open; it is loaded where it is not. */
export async function show(page: Page, path: string) {
  await ((await isOpen(page)) ? goTo(page, path) : page.goto(path))
}

export type Complaints = string[]

/** Collects what the browser complains about: scripts, and the content security policy above all. */
export function complaints(page: Page): Complaints {
  const seen: string[] = []
  page.on('pageerror', (e) => seen.push(e.message))
  page.on('console', (m) => {
    if (m.type() === 'error') seen.push(m.text())
  })
  return seen
}
