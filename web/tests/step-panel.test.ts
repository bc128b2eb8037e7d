import type { JobRecord } from '@moray/core/job/record'
import type { Closing } from '@moray/core/job/record'
import type { Ask } from '@moray/core/route/route'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import AskField from '../src/job/route/AskField.vue'
import { routeView } from '../src/job/route/route-view.ts'
import StageList from '../src/job/route/StageList.vue'
import type { ShownJob } from '../src/job/shown-job.ts'
import { keys } from '../src/wire/queries.ts'
import StepPanel from '../src/job/route/StepPanel.vue'
import { useOwn } from '../src/stores/own.ts'
import { useShop } from '../src/stores/shop.ts'
import { useStepWrites } from '../src/job/use-step-writes.ts'
import { fixtureJob, mountPart, pageWith, refusal } from './job-fixture.ts'

const STEP_PAGE = pageWith(StepPanel, () => {
  const writes = useStepWrites(() => 'job')
  return {
    writes,
    onKeep: writes.keepDraft,
    onClose: writes.closeStep,
    onAgree: writes.agree,
    onTakeBack: writes.takeBack,
    onCorrect: writes.correctStep,
    onFigure: writes.addFigure,
  }
})

beforeEach(() => setActivePinia(createPinia()))
afterEach(() => {
  vi.unstubAllGlobals()
  document.body.innerHTML = ''
})
// hooks run last first: what is mounted goes before its server and its page do

const closed = (step: string, more: Partial<Closing> = {}): Closing => ({
  id: 1,
  step,
  answers: {},
  texts: {},
  departedFrom: [],
  reason: null,
  lead: null,
  by: 'Ylva',
  at: '2026-11-20T08:00:00.000Z',
  takenBack: null,
  ...more,
})

describe('a question', () => {
  const ask = (a: Partial<Ask>) => ({ fact: 'x', label: 'Turns', kind: 'number', unit: 'mm', ...a }) as Ask
  const field = (a: Ask, modelValue?: unknown, more = {}) =>
    mount(AskField, { props: { ask: a, modelValue: modelValue as string, ...more } })

  it('shows a number in both systems before it counts, and says what it does not understand', () => {
    const length = ask({ quantity: 'length' } as Partial<Ask>)
    expect(field(length, '16t').text()).toContain('0.406 mm · 16.0 t')
    expect(field(length, '16q').text()).toContain('"q"')
    expect(field(length, '16q').get('input').attributes('aria-invalid')).toBe('true')
  })
  it('is ticked with one tap, and unticked again to nothing', async () => {
    const wrapper = field(ask({ kind: 'tick' }))
    await wrapper.get('input').setValue(true)
    await wrapper.get('input').setValue(false)
    expect(wrapper.emitted('update:modelValue')).toEqual([[true], [undefined]])
  })
  it('offers its choices as one group with its question as the name', async () => {
    const options = [
      { value: 'up', label: 'cup up' },
      { value: 'down', label: 'cup down' },
    ]
    const wrapper = field(ask({ kind: 'choice', options } as Partial<Ask>), 'up')
    expect(wrapper.get('legend').text()).toBe('Turns')
    expect(wrapper.findAll('label.on').map((l) => l.text())).toEqual(['cup up'])
    await wrapper.findAll('input')[1]!.setValue(true)
    expect(wrapper.emitted('update:modelValue')).toEqual([['down']])
  })
  it('says why an answer is wrong, as an alert', () => {
    expect(field(ask({}), '1', { wrong: 'Turn it round.' }).get('[role=alert]').text()).toBe('Turn it round.')
  })
})

async function panel(job: ShownJob, id: string) {
  const view = routeView(job)
  const step = view.progress.steps.find((s) => s.step.id === id)!
  const mounted = await mountPart(STEP_PAGE, job, { view, step })
  return { ...mounted, page: mounted.wrapper, wrapper: mounted.wrapper.findComponent(StepPanel) }
}
const upTo = (job: ShownJob, id: string): Closing[] => {
  const { steps } = routeView(job).route
  return steps
    .slice(
      0,
      steps.findIndex((s) => s.id === id),
    )
    .map((s, i) => closed(s.id, { id: i + 1 }))
}
const standing = (id: string, work: Parameters<typeof fixtureJob>[1] = {}) =>
  fixtureJob('lomvi-90', { closings: upTo(fixtureJob(), id), ...work })

describe('the step panel', () => {
  it('says which way a left-hand thread turns, in words and with an arrow, and goes on with Enter', async () => {
    const { wrapper, sent } = await panel(standing('left-hand'), 'left-hand')
    expect(wrapper.get('.turning').text()).toContain('Carrier ring nut: clockwise loosens.')
    expect(wrapper.find('.turning svg').exists()).toBe(true)
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(sent.at(-1)).toMatchObject({
      path: '/api/jobs/job/steps',
      body: { step: 'left-hand', answers: {} },
    })
    expect(wrapper.emitted('next')).toHaveLength(1)
  })
  it('says a slip before it is sent, and offers no way round what could hurt', async () => {
    const { wrapper, answer } = await panel(standing('leak-case'), 'leak-case')
    const start = wrapper.findAll('.ask').find((a) => a.text().includes('Pressure at the start'))!
    await start.get('input').setValue('120')
    expect(start.get('[role=alert]').text()).toContain('Above the sheet')
    answer(422, refusal('slip', 'answers.leak-case.start', 'Above the sheet'))
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(wrapper.emitted('next')).toBeUndefined()
    expect(wrapper.text()).not.toContain('Go on all the same')
    expect(wrapper.text()).toContain('Nobody goes on over this')
    // the hand is taken to what is wrong
    expect(document.activeElement).toBe(start.get('input').element)
  })
  it('begins with the first thing asked, a choice or a tick as well as a field', async () => {
    vi.useFakeTimers()
    const { wrapper } = await panel(standing('receive'), 'receive')
    ;(document.activeElement as HTMLElement | null)?.blur()
    await vi.advanceTimersByTimeAsync(1000)
    vi.useRealTimers()
    expect(document.activeElement).toBe(wrapper.find('.ask input').element)
    expect((document.activeElement as HTMLInputElement).type).toBe('radio')
  })
  it('corrects an answer with a reason, by sending all of them', async () => {
    const closings = [
      closed('ratio', { id: 9, answers: { 'ratio.input-turns': 21.5, 'ratio.output-turns': 10 } }),
    ]
    const { wrapper, sent } = await panel(fixtureJob('lomvi-90', { closings }), 'ratio')
    await wrapper
      .findAll('button')
      .find((b) => b.text() === 'Correct an answer')!
      .trigger('click')
    await wrapper.findAll('.ask input')[1]!.setValue('10.1')
    await wrapper.get('form.step-form').trigger('submit')
    await flushPromises()
    await wrapper.get('.reason textarea').setValue('miscounted')
    await wrapper.get('.reason form').trigger('submit')
    await flushPromises()
    expect(sent.at(-1)).toEqual({
      path: '/api/jobs/job/steps/9/correct',
      body: { reason: 'miscounted', answers: { 'ratio.input-turns': 21.5, 'ratio.output-turns': '10.1' } },
    })
  })
  it('writes nothing under a name that nobody chose', async () => {
    const { wrapper, sent } = await panel(standing('left-hand'), 'left-hand')
    useOwn().chosen = ''
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(sent.filter((s) => s.path.endsWith('/steps'))).toHaveLength(0)
    expect(useShop().asking).toBe(true)
  })
  it('shows what the server has against the answers that were sent, not against later ones', async () => {
    const { wrapper, answer } = await panel(standing('receive'), 'receive')
    answer(422, refusal('answer-missing', 'answers.in.struck', 'not answered yet'))
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(wrapper.get('[role=alert]').text()).toBe('not answered yet')
    await wrapper.get('input[value=no]').setValue(true)
    expect(wrapper.find('[role=alert]').exists()).toBe(false)
  })
  it('says why it is shut, leads to where it opens, and closes nothing', async () => {
    const { wrapper } = await panel(standing('apart'), 'apart')
    expect(wrapper.get('.shut').text()).toContain('not in the row yet')
    expect(wrapper.get('a.page-link').attributes('href')).toContain('/jobs/job/parts?view=row')
    expect(wrapper.get('button[type=submit]').attributes('disabled')).toBeDefined()
    expect(wrapper.text()).toContain('Go on all the same')
  })
  it('shows what was answered, as typed too, with a departure and its lead', async () => {
    const closings = [
      closed('identify', {
        answers: { 'id.stamp': 'L14' },
        departedFrom: ['Another variant.'],
        reason: 'plate swapped',
        lead: 'Runa',
      }),
    ]
    const { wrapper } = await panel(fixtureJob('lomvi-90', { closings }), 'identify')
    const text = wrapper.text()
    for (const words of [
      'L14 (14 : 28)',
      'plate swapped',
      'agreed by Runa',
      'Another variant.',
      'Do it again',
    ])
      expect(text).toContain(words)
  })
  it('ends, once the drive is handed over, with the record', async () => {
    const { wrapper } = await panel(
      fixtureJob('lomvi-90', { state: 'finished', closings: [closed('identify')] }),
      'identify',
    )
    expect(wrapper.findAll('a.page-link').map((a) => [a.attributes('href'), a.text()])).toEqual([
      ['/jobs/job/record', 'To the record'],
      ['/', 'Back to the bench'],
    ])
    expect(wrapper.text()).not.toContain('Do it again')
  })
  it('takes up a draft where it was left, and says how long the test has run', async () => {
    const begunAt = new Date(Date.now() - 25 * 60_000).toISOString()
    const draft = {
      step: 'leak-case',
      answers: { 'leak-case.start': '10 psi' },
      begunAt,
      by: 'Ylva',
      at: begunAt,
    }
    const job = standing('leak-case', { drafts: [draft] })
    const { wrapper } = await panel(job, 'leak-case')
    expect(wrapper.get('[role=timer]').text()).toMatch(/25 min\s*running; hold 5 min more/)
    expect(wrapper.findAll('input').some((i) => (i.element as HTMLInputElement).value === '10 psi')).toBe(
      true,
    )
    expect(wrapper.text()).toContain('68.9 kPa')
  })
  it('keeps what is typed on the server a moment later', async () => {
    vi.useFakeTimers()
    const { wrapper, sent } = await panel(standing('ratio'), 'ratio')
    await wrapper.findAll('input')[0]!.setValue('21,5')
    await vi.advanceTimersByTimeAsync(1500)
    vi.useRealTimers()
    await flushPromises()
    expect(sent).toEqual([
      { path: '/api/jobs/job/draft', body: { step: 'ratio', answers: { 'ratio.input-turns': '21,5' } } },
    ])
  })
  it('leaves its answers where the same step finds them when it is looked at again', async () => {
    const job = standing('ratio')
    const first = await panel(job, 'ratio')
    await first.wrapper.findAll('input')[0]!.setValue('21,5')
    // another step is looked at: this panel goes
    first.page.unmount()
    await flushPromises()
    expect(first.client.getQueryData<JobRecord>(keys.job('job'))!.drafts).toMatchObject([
      { step: 'ratio', answers: { 'ratio.input-turns': '21,5' } },
    ])
  })
  it('tries a refused draft no more once it is gone', async () => {
    vi.useFakeTimers()
    const { page, wrapper, sent, answer } = await panel(standing('ratio'), 'ratio')
    answer(503, refusal('busy', '', 'busy'))
    await wrapper.findAll('input')[0]!.setValue('21,5')
    page.unmount()
    await vi.advanceTimersByTimeAsync(3000)
    vi.useRealTimers()
    await flushPromises()
    expect(sent).toHaveLength(1)
  })
  it('names the school that decides how it is done, and why', async () => {
    const { wrapper } = await panel(standing('seals'), 'seals')
    expect(wrapper.get('.school').text()).toContain('Outside of a seal: thin sealant of the sheet, because')
  })
})

describe('the list of stages', () => {
  it('opens the stage that is looked at, tells how far each is, and leads to a step', async () => {
    const job = standing('apart')
    const { wrapper } = await mountPart(StageList, job, { view: routeView(job), current: 'apart' })
    const stages = wrapper.findAll('.stage')
    expect(stages[0]!.text()).toMatch(/^Receive(\d+)\/\1$/)
    expect(stages.map((s) => s.attributes('aria-expanded'))[1]).toBe('true')
    expect(wrapper.get('[aria-current=step]').text()).toContain('due now')
    await stages[0]!.trigger('click')
    await wrapper.findAll('.steps button')[0]!.trigger('click')
    expect(wrapper.emitted('go')).toEqual([['receive']])
  })
})
