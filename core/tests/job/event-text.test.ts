import { describe, expect, it } from 'vitest'
import { eventText } from '../../src/job/event-text.ts'

describe('the history in words', () => {
  const stack = { kind: 'stack', data: { label: 'Pinion shims', pieces: 1, mm: 0.635 } } as never
  const trial = {
    kind: 'trial',
    data: { number: 1, stacks: [{ label: 'Pinion shims', mm: 0.635 }] },
  } as never
  it('has the reader’s own units first, in every line', () => {
    expect(eventText(stack)).toBe('Pinion shims as found: 1 piece, 0.635 mm · 25.0 t')
    expect(eventText(stack, 'imperial')).toBe('Pinion shims as found: 1 piece, 0.0250 in · 0.635 mm')
    expect(eventText(trial)).toBe('Trial 1: pinion shims 0.635 mm · 25.0 t')
    expect(eventText(trial, 'imperial')).toBe('Trial 1: pinion shims 0.0250 in · 0.635 mm')
  })
})
