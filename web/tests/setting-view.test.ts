import { buildState } from '@moray/core/job/build-state'
import { lomvi90 } from '@moray/core/drives/sheets/index'
import { assess } from '@moray/core/setting/assess'
import { mount } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { beforeEach, describe, expect, it } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import { showThou } from '@moray/core/units/format'
import PlanCard from '../src/job/panels/decide/PlanCard.vue'
import type { ShownBuild, ShownJob } from '../src/job/shown-job.ts'
import { drawingTags, dueFocus, focusFrom, focusId, stackOf } from '../src/job/setting-view.ts'

const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.005 }
const who = { by: 'Ylva', at: '2026-11-20T08:00:00Z', superseded: null }

function build(stacks: Record<string, number>, readings: Record<string, number[]>, number = 0): ShownBuild {
  let id = 0
  const own = {
    stacks: Object.entries(stacks).map(([location, mm]) => ({
      id: ++id,
      location,
      thicknessMm: mm,
      pieces: [{ id: `c${id}`, thicknessMm: mm, text: `${mm}`, origin: 'case' as const }],
      ...who,
    })),
    readings: Object.entries(readings).flatMap(([measure, values]) =>
      values.map((value) => ({
        id: ++id,
        measure,
        raw: value,
        value,
        text: `${value}`,
        unit: 'mm',
        gaugeId: 'g',
        gaugeName: 'Gauge',
        gaugeOverdue: false,
        gauge,
        masterMm: null,
        clockDeg: null,
        how: null,
        note: null,
        ...who,
      })),
    ),
  }
  const state = buildState(own)
  return {
    id: 1,
    acceptance: null,
    state,
    number,
    kind: number ? 'trial' : 'found',
    by: 'Ylva',
    at: who.at,
    plan: null,
    check: [],
    asked: lomvi90.measures,
    patterns: [],
    assessment: assess(lomvi90, state),
    ...own,
  }
}
const job = (...builds: ShownBuild[]) =>
  ({ sheet: lomvi90, builds, pieces: [], acceptance: null }) as unknown as ShownJob

describe('what is due on the page', () => {
  it('follows the core: stacks, readings, decision', () => {
    expect(focusId(dueFocus(lomvi90, build({}, {})))).toBe('stack:pinion')
    const stacks = { pinion: 0.6, forward: 0.7, reverse: 0.8 }
    expect(focusId(dueFocus(lomvi90, build(stacks, {})))).toBe('measure:depth')
    const all = {
      depth: [38.4, 38.4, 38.4],
      'backlash-forward': [0.47, 0.47, 0.47],
      'backlash-reverse': [0.7, 0.7, 0.7],
    }
    expect(focusId(dueFocus(lomvi90, build(stacks, all)))).toBe('decide')
    // whoever reads gauges goes on reading before he is sent back to a stack
    const half = build({ pinion: 0.6 }, { depth: [38.4, 38.4, 38.4] })
    expect(focusId(dueFocus(lomvi90, half))).toBe('stack:forward')
    expect(focusId(dueFocus(lomvi90, half, focusFrom(lomvi90, 'measure:depth')))).toBe(
      'measure:backlash-forward',
    )
  })
  it('takes from the address only what this drive has', () => {
    expect(focusId(focusFrom(lomvi90, 'measure:depth')!)).toBe('measure:depth')
    expect(focusFrom(lomvi90, 'measure:mood')).toBeUndefined()
    expect(focusFrom(lomvi90, 'stack:roof')).toBeUndefined()
    expect(focusFrom(lomvi90, '')).toBeUndefined()
    expect(focusFrom(lomvi90, 'decide')).toEqual({ kind: 'decide' })
  })
})

/** Digits as a reader of millimetres sees them. */
const own = { digits: (mm: number, d = 2) => mm.toFixed(d), other: (mm: number) => showThou(mm) }
const metric = { ...own, of: () => ({ ...own, unit: 'mm', say: own.other, both: own.other }) }

beforeEach(() => setActivePinia(createPinia()))

describe('numbers on the drawing', () => {
  const b = build({ pinion: 0.6, forward: 0.7 }, { depth: [38.52, 38.52] })
  it('stand at every place, a dash where nothing is known', () => {
    const tags = Object.fromEntries(drawingTags(job(b), b, metric).map((t) => [t.id, t]))
    expect(tags['stack:pinion']).toMatchObject({ value: '0.600', below: '23.6 t' })
    expect(tags['stack:reverse']!.value).toBe('—')
    expect(tags['measure:depth']).toMatchObject({ value: '38.520', verdict: 'out' })
    expect(tags['measure:backlash-forward']!.value).toBe('—')
  })
  it('show where a plan would lead, and say that it is planned', () => {
    const plan = {
      stacks: { pinion: 0.5 },
      predicted: { depth: { value: 38.42, U: 0.01, probability: 0.9 } },
    }
    const tags = Object.fromEntries(drawingTags(job(b), b, metric, plan).map((t) => [t.id, t]))
    expect(tags['stack:pinion']!.value).toBe('0.500')
    expect(tags['measure:depth']).toMatchObject({ value: '38.420', below: 'planned · 1.5126 in' })
    expect(tags['measure:depth']!.verdict).toBeUndefined()
  })
  it('leave out what was set aside', () => {
    const set = build({ pinion: 0.6 }, {})
    set.stacks[0]!.superseded = { reason: 'miscounted', by: 'Ylva', at: who.at }
    expect(stackOf(set, 'pinion')).toBeUndefined()
  })
})

describe('a plan on its card', () => {
  const pieces = [0.05, 0.3, 0.1, 0.4].map((thicknessMm, i) => ({
    id: `d${i}`,
    thicknessMm,
    count: 3,
    label: '',
    origin: 'drawer' as const,
  }))
  const card = (probability: number) =>
    mount(PlanCard, {
      global: { plugins: [PrimeVue] },
      props: {
        job: { ...job(build({}, {})), pieces },
        plan: {
          stacks: { pinion: { thicknessMm: 0.85, pieceIds: ['d0', 'd1', 'd2', 'd3'] } },
          predicted: { depth: { value: 38.4, U: 0.012, probability } },
          probability,
          pieces: 4,
        },
        current: { pinion: 0.8 },
        rank: 1,
        open: true,
        busy: false,
        fits: true,
      },
    })
  it('lays thick pieces to the outside and thin ones between them', () => {
    expect(
      card(0.9)
        .findAll('.piece')
        .map((p) => p.text()),
    ).toEqual(['0.400', '0.100', '0.050', '0.300'])
  })
  it('says how the stack changes, and what it will read', () => {
    const text = card(0.9).text()
    expect(text).toContain('+0.050')
    expect(text).toContain('38.400')
  })
  it.each([
    [1, '> 99.9 %'],
    [0.994, '99.4 %'],
    [0.7, '70 %'],
    [0.004, '0.40 %'],
  ])('never promises more than it knows: %s', (p, text) => expect(card(p).get('.odds').text()).toBe(text))
  it('is taken by its button', async () => {
    const c = card(0.9)
    await c.get('.p-button').trigger('click')
    expect(c.emitted('take')).toHaveLength(1)
  })
})
