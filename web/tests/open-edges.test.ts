import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import OpenEdges from '../src/job/panels/OpenEdges.vue'
import type { ShownJob } from '../src/job/shown-job.ts'
import { fixtureJob } from './job-fixture.ts'

beforeEach(() => setActivePinia(createPinia()))

/** A full rebuild of a drive on whose sheet nobody knows whether oil stands behind the carrier. */
function unknowing(): ShownJob {
  const job = fixtureJob('lomvi-90', { scopes: [] })
  const { graph } = job.sheet
  const joints = graph.joints!.map((j) =>
    j.id === 'carrier' ? { ...j, behind: { case: 'unknown' as const } } : j,
  )
  return { ...job, sheet: { ...job.sheet, graph: { ...graph, joints } } }
}
const shown = (job: ShownJob, step: string) =>
  mount(OpenEdges, { props: { job, step, write: { busy: false, error: null, clear: () => {} } } })

describe('what a sheet does not know', () => {
  it('is asked at the step that touches it, and answered in one tap', async () => {
    const panel = shown(unknowing(), 'apart')
    expect(panel.text()).toContain('Carrier: does the gearcase stand behind it?')
    await panel
      .findAll('button')
      .find((b) => b.text() === 'No')!
      .trigger('click')
    expect(panel.emitted('settle')![0]![0]).toEqual({
      list: 'joints',
      row: 'carrier',
      field: 'behind',
      to: 'case',
      seen: 'no',
    })
  })
  it('is not asked at a step that touches nothing of it, nor again where it could not be told', () => {
    expect(shown(unknowing(), 'receive').text()).toBe('')
    const told = {
      id: 1,
      kind: 'not-known' as const,
      subject: 'joints.carrier.behind.case',
      reason: '',
      by: 'Ylva',
    }
    const asked = { ...unknowing(), told: [{ ...told, at: '2026-11-20T08:00:00.000Z' }] } as ShownJob
    expect(shown(asked, 'apart').text()).toBe('')
  })
})
