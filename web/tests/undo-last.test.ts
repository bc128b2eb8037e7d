import type { ReadingEntry } from '@moray/core/job/record'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Answered } from '../src/writing/for-panels.ts'
import UndoLast from '../src/job/panels/UndoLast.vue'
import { useSettingWrites } from '../src/job/use-setting-writes.ts'
import { fixtureJob, mountPart, pageWith } from './job-fixture.ts'

const UNDO_PAGE = pageWith(UndoLast, () => {
  const writes = useSettingWrites(() => 'job')
  return {
    write: writes.aside,
    onSetAside: (id: number, reason: string, answered: Answered) => writes.setAside(id, { reason }, answered),
  }
})
const onUndone = vi.fn()

beforeEach(() =>
  vi.useFakeTimers({
    now: new Date('2026-11-25T10:00:05.000Z'),
    toFake: ['Date', 'setInterval', 'clearInterval'],
  }),
)
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const reading = (by: string, at: string): ReadingEntry => ({
  id: 7,
  measure: 'backlash-forward',
  raw: 0.62,
  value: 0.62,
  text: '.62',
  unit: 'mm',
  gaugeId: 'g02',
  gaugeName: 'Indicator',
  gaugeOverdue: false,
  gauge: { resolution: 0.01, mpe: 0.01, repeatability: 0.01 },
  masterMm: null,
  clockDeg: null,
  how: null,
  note: null,
  by,
  at,
  superseded: null,
})
const shown = (by = 'Ylva', at = '2026-11-25T10:00:02.000Z') => {
  const job = fixtureJob('lomvi-90', {
    builds: [
      {
        id: 1,
        number: 0,
        by: 'Ylva',
        at: '2026-11-25T09:00:00.000Z',
        stacks: [],
        readings: [reading(by, at)],
        patterns: [],
        plan: null,
        acceptance: null,
      },
    ],
  })
  return mountPart(UNDO_PAGE, job, { build: job.builds[0]!, onUndone })
}

describe('the last reading', () => {
  it('is taken back with one key while it is fresh: superseded with its reason, and the hand goes back to it', async () => {
    const { wrapper, sent } = await shown()
    expect(wrapper.text()).toMatch(/Forward backlash\s+0\.620 mm.*entered/)
    expect(wrapper.get('button').text()).toBe('Undo, 7 s')
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true }))
    await flushPromises()
    expect(sent).toEqual([
      { path: '/api/jobs/job/readings/7/supersede', body: { reason: 'taken back at once' } },
    ])
    expect(onUndone.mock.calls).toEqual([['backlash-forward']])
  })
  it.each([
    ['after ten seconds', 'Ylva', '2026-11-25T09:59:54.000Z'],
    ['when somebody else took it', 'Joar', '2026-11-25T10:00:02.000Z'],
    ['when the clock here is far behind', 'Ylva', '2026-11-25T10:05:00.000Z'],
  ])('is not offered %s', async (_, by, at) => {
    const { wrapper } = await shown(by, at)
    expect(wrapper.find('button').exists()).toBe(false)
  })
})
