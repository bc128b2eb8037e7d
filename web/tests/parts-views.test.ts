import type { RowPart } from '@moray/core/job/record'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { estimate } from '@moray/core/inspection/estimate'
import { flushPromises, type VueWrapper } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import FaultsPage from '../src/job/FaultsPage.vue'
import PartsPage from '../src/job/PartsPage.vue'
import { fixtureJob, mountPart, refusal, type Given } from './job-fixture.ts'

afterEach(() => {
  vi.unstubAllGlobals()
  document.body.innerHTML = ''
})
// hooks run last first: what is mounted goes before its server and its page do

const lying = (id: number, part: string, name: string, more: Partial<RowPart> = {}): RowPart => ({
  id,
  part,
  name,
  orientation: null,
  ink: null,
  stack: null,
  note: null,
  offBy: 'Ylva',
  offAt: '2026-11-20T08:00:00.000Z',
  fitted: null,
  leftOut: null,
  ...more,
})
const button = (w: VueWrapper, name: string | RegExp) =>
  w.findAll('button').find((b) => {
    const label = b.attributes('aria-label') ?? b.text()
    return typeof name === 'string' ? label === name : name.test(label)
  })!

describe('the row', () => {
  const job = () =>
    fixtureJob('teist-6', {
      row: [
        lying(1, 'cap', 'Propeller cap'),
        lying(2, 'thrust-washer', 'Thrust washer', { orientation: 'worn side up' }),
      ],
    })
  it('sends what is typed as the part it means, with its marks, and clears for the next scan', async () => {
    const { wrapper, sent } = await mountPart(PartsPage, job())
    await wrapper.get('#lay-what').setValue('front ball')
    await wrapper.get('#lay-how').setValue('letters up')
    await wrapper.get('#lay-ink').setValue('one dot')
    await wrapper.get('form.lay').trigger('submit')
    expect((wrapper.get('#lay-what').element as HTMLInputElement).value).toBe('')
    await flushPromises()
    expect(sent).toEqual([
      {
        path: '/api/jobs/job/row',
        body: { part: 'front-ball', orientation: 'letters up', ink: 'one dot' },
      },
    ])
  })
  it('keeps scans in turn when they come faster than the answers', async () => {
    const { wrapper, sent } = await mountPart(PartsPage, job())
    for (const text of ['anode', 'Water pump impeller', 'a bolt of another boat']) {
      await wrapper.get('#lay-what').setValue(text)
      await wrapper.get('form.lay').trigger('submit')
    }
    // a name that no part has is asked about first
    expect(wrapper.get('form.lay [role=alert]').text()).toContain('No part of this drive is called')
    await wrapper.get('form.lay').trigger('submit')
    await flushPromises()
    expect(sent.map((s) => s.body)).toEqual([
      { part: 'anode' },
      { part: 'pump' },
      { name: 'a bolt of another boat' },
    ])
  })
  it('brings a refused part back into the field, and lets it through only when it is said to be out', async () => {
    const { wrapper, sent, answer } = await mountPart(PartsPage, job())
    answer(422, refusal('too-early', 'part', 'Pinion cannot come out yet: Driveshaft must be off first.'))
    await wrapper.get('#lay-what').setValue('Pinion')
    expect(wrapper.get('.held').text()).toContain('Driveshaft')
    await wrapper.get('form.lay').trigger('submit')
    await flushPromises()
    expect(wrapper.get('[role=alert]').text()).toContain('cannot come out yet')
    expect((wrapper.get('#lay-what').element as HTMLInputElement).value).toBe('Pinion')
    await button(wrapper, 'It is out all the same').trigger('click')
    await flushPromises()
    expect(sent.at(-1)!.body).toEqual({ part: 'pinion', confirmed: true })
  })
  it('moves a part by keyboard, sending the whole new order', async () => {
    const { wrapper, sent } = await mountPart(PartsPage, job())
    await button(wrapper, 'Thrust washer: earlier in the row').trigger('click')
    await flushPromises()
    expect(sent[0]).toEqual({ path: '/api/jobs/job/row/order', body: { ids: ['2', '1'] } })
    await button(wrapper, 'Propeller cap: earlier in the row').trigger('click')
    await flushPromises()
    expect(sent).toHaveLength(1)
  })
  it('takes a part off the row again with a reason, when it was not off after all', async () => {
    const { wrapper, sent } = await mountPart(PartsPage, job())
    await button(wrapper, 'Propeller cap: not off after all').trigger('click')
    await flushPromises()
    const reason = document.querySelector<HTMLTextAreaElement>('textarea')!
    reason.value = 'only loosened'
    reason.dispatchEvent(new Event('input'))
    await flushPromises()
    document.querySelector<HTMLFormElement>('.reason form, form:has(textarea)')!.requestSubmit()
    await flushPromises()
    expect(sent[0]).toEqual({
      path: '/api/jobs/job/row/1',
      body: { act: 'remove', reason: 'only loosened' },
    })
  })
  it('builds back from the end, with the marks of the part that is due', async () => {
    const { wrapper, sent } = await mountPart(PartsPage, job())
    await wrapper.findAll('.top input')[1]!.setValue(true)
    expect(wrapper.get('.next').text()).toContain('Thrust washer')
    expect(wrapper.get('.next').text()).toContain('worn side up')
    await button(wrapper, 'It is in').trigger('click')
    await flushPromises()
    expect(sent[0]).toEqual({ path: '/api/jobs/job/row/2', body: { act: 'fit' } })
  })
  it('shouts what lies on the bench once the case is to be closed', async () => {
    const closing = job()
    expect((await mountPart(PartsPage, closing)).wrapper.find('.shout').exists()).toBe(false)
    closing.closings = [
      {
        id: 1,
        step: 'pre-lube',
        answers: {},
        texts: {},
        departedFrom: [],
        reason: null,
        lead: null,
        by: '',
        at: '',
        takenBack: null,
      },
    ]
    const { wrapper } = await mountPart(PartsPage, closing)
    expect(wrapper.get('.shout').text()).toContain('1 left on the bench: Thrust washer')
  })
})

describe('grades', () => {
  const at = (part: string, work: Given = {}) =>
    mountPart(
      PartsPage,
      fixtureJob('havsule-duo-lower', work),
      {},
      `/jobs/job/parts?view=grades&part=${part}`,
    )
  it('fill themselves from what is seen, until the technician decides', async () => {
    const { wrapper, sent } = await at('front-taper')
    expect(wrapper.get('button[type=submit]').attributes('disabled')).toBeDefined()
    await wrapper.get('.seen input[value=pits]').setValue(true)
    expect(wrapper.get('.proposal').text()).toContain('replace, pits')
    await wrapper.get('input[name=grade][value=keep]').setValue(true)
    expect(wrapper.text()).toContain('That departs from the proposal')
    await wrapper.get('.seen input[value=rust]').setValue(true)
    expect((wrapper.get('input[name=grade][value=keep]').element as HTMLInputElement).checked).toBe(true)
    await wrapper.get('#why').setValue('owner insists')
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(sent[0]!.body).toEqual({
      part: 'front-taper',
      grade: 'keep',
      reason: 'owner insists',
      seen: ['pits', 'rust'],
    })
  })
  it('judge a shaft by its runout at the place it was measured, and name the set that goes with it', async () => {
    const { wrapper } = await at('tube-shaft')
    await wrapper.get('input[name=zone][value="Propeller spline"]').setValue(true)
    await wrapper.get('#runout').setValue('12h')
    expect(wrapper.find('.proposal').exists()).toBe(false)
    await wrapper.get('input[name=zone][value="Seal land"]').setValue(true)
    expect(wrapper.get('.proposal').text()).toContain('replace as a set')
    expect(wrapper.text()).toContain('With it goes front gear, pinion: one set.')
  })
  it('show what is new anyhow, and what was suspected on receiving', async () => {
    const findings = [{ finding: 'leak-turning', present: true, by: 'x', at: 'y' }]
    const { wrapper } = await at('outer-seals', { findings })
    const rows = wrapper.findAll('.list li').map((l) => l.text())
    expect(rows.find((r) => r.startsWith('Tube shaft seals'))).toContain('new anyhow')
    expect(wrapper.get('p.suspect').text()).toContain('propeller shaft seal')
  })
})

/** Where the estimate stands. */
const ESTIMATE = '/jobs/job/parts?view=estimate'

describe('the estimate', () => {
  const sheet = demoSheets.find((s) => s.id === 'lomvi-90')!
  const body = {
    ...estimate(sheet, { grades: { pinion: 'replace-set' }, rate: 900, consumables: 500 }),
    rate: 900,
    consumables: 500,
    extraHours: 0,
  }
  const entry = { id: 7, body, by: 'Joar', at: '2026-11-20T08:00:00.000Z', approval: null }
  it('is made from terms that are numbers, and not from others', async () => {
    const { wrapper, sent } = await mountPart(PartsPage, fixtureJob(), {}, ESTIMATE)
    await wrapper.findAll('.terms input')[0]!.setValue('nine hundred')
    await wrapper.get('.terms').trigger('submit')
    expect(wrapper.get('.terms [role=alert]').text()).toContain('"nine hundred" is not a number')
    expect(sent).toEqual([])
    await wrapper.findAll('.terms input')[0]!.setValue('912,50')
    await wrapper.get('.terms').trigger('submit')
    await flushPromises()
    expect(sent[0]!.body).toEqual({ rate: 912.5, consumables: 600, extraHours: 0 })
  })
  it('asks what the shop has not said, and puts nothing in for it', async () => {
    const job = fixtureJob()
    const ways = { ...job.ways, rules: { ...job.ways.rules, rate: null, consumables: null, currency: null } }
    const { wrapper, sent } = await mountPart(PartsPage, { ...job, ways }, {}, ESTIMATE)
    const [labour, consumables] = wrapper.findAll('.terms input')
    expect([labour, consumables].map((i) => (i!.element as { value?: string }).value)).toEqual(['', ''])
    expect(wrapper.get('.terms').text()).not.toMatch(/kr|null/)
    await wrapper.get('.terms').trigger('submit')
    expect(wrapper.get('.terms [role=alert]').text()).toContain('is needed')
    expect(sent).toEqual([])
  })
  it('says of a price and a delivery that nobody has given that they are not known', async () => {
    const bare = { ...sheet, parts: sheet.parts.map(({ price: _p, waitDays: _w, ...p }) => p) }
    const unpriced = {
      ...estimate(bare, { grades: {}, rate: 100, consumables: 40 }),
      rate: 100,
      consumables: 40,
      extraHours: 0,
    }
    const estimates = [{ ...entry, body: unpriced }]
    const { wrapper } = await mountPart(PartsPage, fixtureJob('lomvi-90', { estimates }), {}, ESTIMATE)
    const rebuild = wrapper.get('[aria-label=Ways] tbody tr').text()
    expect(rebuild).toMatch(/not known.*at least/)
    expect(wrapper.get('[aria-label="To buy"] tbody tr').text()).toMatch(/not known.*not known/)
    expect(wrapper.get('[aria-label=Ways]').text()).not.toMatch(/NaN|undefined|null/)
    expect(wrapper.get('[aria-label="To buy"]').text()).not.toMatch(/NaN|undefined|null/)
  })
  it('shows each way with its risks, what is bought with its set, and records who decided and how', async () => {
    const { wrapper, sent } = await mountPart(
      PartsPage,
      fixtureJob('lomvi-90', { estimates: [entry] }),
      {},
      ESTIMATE,
    )
    expect(wrapper.get('[aria-label=Ways]').text()).toContain('ratio unknown until counted')
    expect(wrapper.get('[aria-label="To buy"]').text()).toContain('Reverse gear, Pinion, Forward gear')
    const record = button(wrapper, 'Record the decision')
    expect(record.attributes('disabled')).toBeDefined()
    await wrapper.get('input[name=choice][value=used]').setValue(true)
    await wrapper.findAll('.decision input:not(.sr-only):not([type=checkbox])')[1]!.setValue('at the bench')
    await wrapper.get('.decision form').trigger('submit')
    await flushPromises()
    expect(sent[0]!.body).toEqual({
      estimateId: 7,
      choice: 'used',
      customer: 'Owner',
      how: 'at the bench',
      // the propeller with what holds it, and the anode: what is usually kept
      kept: ['prop-lock', 'propeller', 'thrust-hub', 'anode'],
    })
  })
  it('offers no way that safety forbids, and says why', async () => {
    const options = entry.body.options.map((o) =>
      o.id === 'rebuild' ? { ...o, forbidden: 'The case is cracked.' } : o,
    )
    const forbidding = { ...entry, body: { ...entry.body, options } }
    const { wrapper, sent } = await mountPart(
      PartsPage,
      fixtureJob('lomvi-90', { estimates: [forbidding] }),
      {},
      ESTIMATE,
    )
    expect(wrapper.get('[aria-label=Ways]').text()).toContain('The case is cracked.')
    expect(wrapper.find('input[name=choice][value=rebuild]').exists()).toBe(false)
    await wrapper.findAll('.decision input:not(.sr-only):not([type=checkbox])')[1]!.setValue('at the bench')
    await wrapper.get('.decision form').trigger('submit')
    await flushPromises()
    expect(sent[0]!.body.choice).toBe(options.find((o) => o.id !== 'rebuild')!.id)
  })
  it('says when grades have been given since it was made', async () => {
    const grades = [
      {
        id: 1,
        part: 'pinion',
        grade: 'keep' as const,
        reason: 'x',
        seen: [],
        measuredMm: null,
        proposed: null,
        by: '',
        at: '2026-11-21T08:00:00.000Z',
        superseded: false,
      },
    ]
    const { wrapper } = await mountPart(
      PartsPage,
      fixtureJob('lomvi-90', { estimates: [entry], grades }),
      {},
      ESTIMATE,
    )
    expect(wrapper.text()).toContain('Grades have been given since this was made')
  })
})

describe('the fault finder', () => {
  it('ranks, says what speaks for and how often it was found here, and proposes the next look', async () => {
    const job = fixtureJob('lomvi-90', {
      findings: [{ finding: 'milky-oil', present: true, by: 'x', at: 'y' }],
      history: [{ cause: 'screw-gasket', findings: ['milky-oil'] }],
    })
    const { wrapper, sent } = await mountPart(FaultsPage, job)
    const causes = wrapper.findAll('.causes li').map((l) => l.text())
    expect(causes[0]).toContain('for: milky oil')
    expect(causes.find((c) => c.includes('Gasket of a drain'))).toContain('found here 1 time before')
    expect(wrapper.findAll('.checks li').length).toBeGreaterThan(2)
    await wrapper.findAll('.findings li')[1]!.findAll('input')[0]!.setValue(true)
    await flushPromises()
    expect(sent[0]).toEqual({
      path: '/api/jobs/job/findings',
      body: { finding: 'empty-case', state: 'there' },
    })
  })
})
