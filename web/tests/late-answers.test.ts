import { flushPromises } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import ReadingPanel from '../src/job/panels/ReadingPanel.vue'
import { pageIsStale } from '../src/wire/stale-page.ts'
import { useCalc } from '../src/workers/use-calc.ts'
import { settingMeasures } from '@moray/core/setting/measures'
import { useSettingWrites } from '../src/job/use-setting-writes.ts'
import { fixtureJob, mountPart, pageWith } from './job-fixture.ts'

const READING_PAGE = pageWith(ReadingPanel, () => {
  const writes = useSettingWrites(() => 'job')
  return {
    taking: writes.reading,
    aside: writes.aside,
    figures: writes.figure,
    onTake: writes.takeReading,
  }
})

afterEach(() => vi.unstubAllGlobals())

const gauge = {
  id: 'g05',
  kind: 'plunger-dial',
  name: 'Dial',
  resolution: 0.01,
  mpe: 0.01,
  repeatability: 0.005,
  perTurnMm: 1,
  masters: [],
  wrench: null,
  intervalMonths: 12,
  calibratedOn: '2026-06-01',
  dueOn: '2027-06-01',
  overdue: false,
  retired: false,
}

describe('an answer that comes late', () => {
  it('wipes nothing that was typed since the reading was sent, and clears what was sent', async () => {
    const job = fixtureJob('lomvi-90')
    const measure = settingMeasures(job.sheet).find((m) => m.id === 'backlash-forward')!
    const { wrapper } = await mountPart(READING_PAGE, job, {
      build: job.builds[0]!,
      measure,
      gauges: [gauge],
      writable: true,
    })
    const served = globalThis.fetch
    let finish!: () => void
    const held = new Promise<void>((done) => (finish = done))
    vi.stubGlobal('fetch', async (path: string, init: RequestInit) => {
      if (init?.method === 'POST') await held
      return served(path, init)
    })
    const field = wrapper.get('form.field input.text')
    await field.setValue('.62')
    await wrapper.get('form.field').trigger('submit')
    await field.setValue('.63')
    finish()
    await flushPromises()
    expect((field.element as HTMLInputElement).value).toBe('.63')
    await wrapper.get('form.field').trigger('submit')
    await flushPromises()
    expect((field.element as HTMLInputElement).value).toBe('')
  })
})

describe('a worker whose file is gone', () => {
  it('fails with words instead of starting for ever, and the page offers to be loaded anew', async () => {
    class GoneWorker extends EventTarget {
      constructor() {
        super()
        queueMicrotask(() => this.dispatchEvent(new Event('error')))
      }
      postMessage() {}
      terminate() {}
    }
    vi.stubGlobal('Worker', GoneWorker)
    const scope = effectScope()
    const calc = scope.run(() => useCalc())!
    await expect(calc.run('parse-reading', { text: '1' })).rejects.toThrow('could not be loaded')
    expect(calc.progress.value).toBeNull()
    expect(pageIsStale.value).toBe(true)
    scope.stop()
  })
})
