import { describe, expect, it } from 'vitest'
import { dependentsOf, progressOf, stepWithRole } from '../../src/route/progress.ts'
import type { Route, Step } from '../../src/route/route.ts'

const step = (id: string, needs: string[], more: Partial<Step> = {}): Step =>
  ({ id, stage: 'set', what: `Do ${id}`, why: '', needs, gates: [], asks: [], ...more }) as unknown as Step

/**
 * A soak that works by itself, a step for the mean time, one that does not apply, one that another page closes, and what stands on them:
 * wet (soaks 30 min) → pull → look → end; wash beside it; left-hand (never here) between wet and pull's twin; row closes itself.
 */
const route = {
  family: 'outboard-fnr',
  stages: [],
  steps: [
    step('wet', [], { waits: { kind: 'soak', minutes: 30, when: { fact: 'soaks', is: true } } }),
    step('wash', []),
    step('left', ['wet'], { appliesWhen: { fact: 'left-hand', is: true } }),
    step('pull', ['left'], { role: 'closes' }),
    step('row', ['pull'], {
      bySelf: true,
      page: 'row',
      gates: [
        { when: { fact: 'row.missing', is: 0 }, say: 'Parts are missing.' },
        { when: { fact: 'row.odd', is: 0 }, say: 'Parts are odd.' },
      ],
    }),
    step('end', ['row', 'wash']),
  ],
} as unknown as Route

const at = (facts: Record<string, boolean | number>, ...done: string[]) => {
  const p = progressOf(route, facts, new Set(done))
  return {
    ...p,
    states: Object.fromEntries(p.steps.map((s) => [s.step.id, s.state])),
    of: (id: string) => p.steps.find((s) => s.step.id === id)!,
  }
}

describe('where a job stands', () => {
  it('at the beginning: what needs nothing is open, the first of it due, the other can go on meanwhile', () => {
    const p = at({})
    expect(p.states).toEqual({
      wet: 'open',
      wash: 'open',
      left: 'not-here',
      pull: 'blocked',
      row: 'blocked',
      end: 'blocked',
    })
    expect(p.due!.step.id).toBe('wet')
    expect(p.meanwhile.map((s) => s.step.id)).toEqual(['wash'])
    expect([p.done, p.total]).toEqual([0, 5])
    expect(p.running).toEqual([])
  })
  it('says what is first, through a step that does not apply, each once', () => {
    expect(at({}).of('pull').why).toEqual(['First: Do wet.'])
    expect(at({}).of('end').why).toEqual(['First: Do row.', 'First: Do wash.'])
    expect(at({ 'left-hand': true }).of('pull').why).toEqual(['First: Do left.'])
  })
  it('a soak works by itself: what stands on it waits with the minutes left, other work is due', () => {
    const p = at({ soaks: true, 'waited.wet': 12 }, 'wet')
    expect(p.running).toEqual([{ step: route.steps[0], kind: 'soak', minutes: 18 }])
    expect(p.of('pull')).toMatchObject({
      state: 'waiting',
      why: ['Do wet: 18 min more.'],
      wait: { step: 'wet', kind: 'soak', minutes: 18 },
    })
    expect(p.due!.step.id).toBe('wash')
    expect(p.of('wet')).toEqual({ step: route.steps[0], state: 'done', why: [] })
    expect(p.of('left')).toMatchObject({ state: 'not-here', why: [] })
  })
  it('with nothing else to do the waiting step is the one that is due', () => {
    const p = at({ soaks: true, 'waited.wet': 12 }, 'wet', 'wash')
    expect(p.due!.step.id).toBe('pull')
    expect(p.meanwhile).toEqual([])
  })
  it.each([
    [29.2, 1],
    [30, 0],
    [45, 0],
    [undefined, 30],
  ])('after %s minutes there are %d left', (waited, left) => {
    const p = at({ soaks: true, ...(waited === undefined ? {} : { 'waited.wet': waited }) }, 'wet')
    expect(p.of('pull').wait?.minutes ?? 0).toBe(left)
    expect(p.states.pull).toBe(left ? 'waiting' : 'open')
    expect(p.running.map((r) => r.minutes)).toEqual(left ? [left] : [])
  })
  it('nothing soaks where nothing was put on', () => {
    const p = at({ soaks: false, 'waited.wet': 1 }, 'wet')
    expect(p.states.pull).toBe('open')
    expect(p.running).toEqual([])
  })
  it('a step that another page closes is due there once its own needs are done, and shut only by all its gates', () => {
    const open = { soaks: false, 'row.missing': 2, 'row.odd': 1 }
    const p = at(open, 'wet', 'wash', 'pull')
    expect(p.of('row')).toMatchObject({
      state: 'blocked',
      why: ['Parts are missing.', 'Parts are odd.'],
      elsewhere: true,
    })
    expect(p.due!.step.id).toBe('row')
    expect(at(open, 'wet', 'wash').of('row').elsewhere).toBeUndefined()
    expect(at({ ...open, 'row.missing': 0 }, 'wet', 'wash', 'pull').states.row).toBe('blocked')
    // an ordinary step that is blocked is nowhere else to be done
    expect(at(open, 'wet').of('end').elsewhere).toBeUndefined()
  })
  it('it is done by itself when all gates hold, and what stands on it opens; but not before its own needs', () => {
    const good = { soaks: false, 'row.missing': 0, 'row.odd': 0 }
    const p = at(good, 'wet', 'wash', 'pull')
    expect(p.of('row')).toMatchObject({ state: 'done', why: [] })
    expect(p.states.end).toBe('open')
    expect(p.due!.step.id).toBe('end')
    expect([p.done, p.total]).toEqual([4, 5])
    expect(at(good, 'wash').states.row).toBe('blocked')
    // of two needs one is not enough
    expect(at(good, 'wet', 'pull').states.end).toBe('blocked')
  })
  it('all done: nothing is due', () => {
    const p = at({ soaks: false, 'row.missing': 0, 'row.odd': 0 }, 'wet', 'wash', 'pull', 'end')
    expect(p.due).toBeUndefined()
    expect([p.done, p.total]).toEqual([5, 5])
  })
})

describe('what stands on a step', () => {
  it('is all that needs it, and what needs that, in the order of the route; not itself', () => {
    expect(dependentsOf(route, 'wet')).toEqual(['left', 'pull', 'row', 'end'])
    expect(dependentsOf(route, 'wash')).toEqual(['end'])
    expect(dependentsOf(route, 'end')).toEqual([])
  })
})

it('a step is found by its role, where one has it', () => {
  expect(stepWithRole(route, 'closes')?.id).toBe('pull')
  expect(stepWithRole(route, 'rings-in')).toBeUndefined()
})
