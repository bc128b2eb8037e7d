import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { holds, type Facts } from '../../src/route/facts.ts'
import { usualScopes } from '../../src/route/scope.ts'
import { routeAt, startOf, walk } from './walk.ts'

const sheet = (id: string) => demoSheets.find((s) => s.id === id)!

/** Steps of a usual job in their order, each with what it says on this job; undefined where the drive has no such job. */
function told(id: string, usual: string): Map<string, { words: string; attitude: string }> | undefined {
  const scope = usualScopes(sheet(id)).find((s) => s.usual === usual)
  if (!scope) return undefined
  const found = new Map<string, { words: string; attitude: string }>()
  walk(sheet(id), startOf(sheet(id), scope), (step, _answers, facts: Facts) => {
    const s = routeAt(sheet(id), facts).steps.find((x) => x.id === step)!
    const words = (s.instruct ?? []).filter((i) => !i.when || holds(i.when, facts)).map((i) => i.say)
    found.set(step, { words: words.join('\n'), attitude: s.attitude ?? '' })
  })
  return found
}
const SCOPES = (id: string) => usualScopes(sheet(id)).map((s) => s.usual!)

describe('the water pump', () => {
  const pumps = demoSheets.filter((s) => s.parts.some((p) => p.kind === 'pump')).map((s) => s.id)
  it.each(pumps)('of %s is fitted in a step of its own wherever it came off, and nowhere else', (id) => {
    for (const usual of SCOPES(id)) {
      const steps = told(id, usual)!
      const off = steps.has('pump')
      if (usual === 'pump' || usual === 'full') expect(off, usual).toBe(true)
      if (['service', 'test', 'seals:propshaft', 'strike'].includes(usual)) expect(off, usual).toBe(false)
    }
    const { words } = told(id, 'pump')!.get('pump')!
    for (const said of ['Count the vanes', 'never back', 'key', 'fingernail', 'shaft seal below'])
      expect(words).toContain(said)
  })
  it.each(demoSheets.map((s) => s.id).filter((id) => !pumps.includes(id)))(
    'is no step of %s, which has none',
    (id) => {
      for (const usual of SCOPES(id)) expect(told(id, usual)!.has('pump'), usual).toBe(false)
    },
  )
  it('job asks fewer than twenty things, and names no ring of the carrier', () => {
    const steps = told('lomvi-90', 'pump')!
    expect([...steps.values()].map((s) => s.words).join('\n')).not.toContain('Carrier O-rings')
    expect([...steps.keys()]).not.toContain('propeller')
  })
})

describe('the ratio', () => {
  it('is counted in a gear where there is a neutral, and as it is where there is none', () => {
    expect(told('lomvi-90', 'full')!.get('ratio')!.words).toContain('Engage forward')
    const plain = demoSheets.find((s) => s.meshes.length && !s.graph.unit?.shifts)!
    expect(told(plain.id, 'full')!.get('ratio')!.words).not.toContain('Engage')
  })
})

describe('tools', () => {
  it('are laid out for what the job touches', () => {
    const tools = (usual: string) => told('lomvi-90', usual)!.get('tools')!.words
    expect(tools('full')).toContain('Spline socket')
    expect(tools('seals:propshaft')).toContain('Carrier puller')
    expect(tools('seals:propshaft')).not.toContain('Spline socket')
    expect(tools('pump')).not.toMatch(/Carrier puller|Spline socket|four lugs/)
  })
})

describe('which way up', () => {
  it('is said at its act, and not at the others', () => {
    const steps = told('lomvi-90', 'full')!
    expect(steps.get('apart')!.attitude).toContain('carrier out')
    expect(steps.get('trial-in')!.attitude).toContain('forward cup')
    for (const step of ['close', 'join']) expect(steps.get(step)!.attitude, step).toBe('')
  })
})

describe('seals', () => {
  it('are those that this job fits', () => {
    const words = (usual: string) => told('lomvi-90', usual)!.get('seals')?.words ?? ''
    expect(words('seals:propshaft')).toContain('Propeller shaft, inner')
    expect(words('shift-seal')).not.toContain('Propeller shaft, inner')
    // both are of one size: there is no small one that goes in first
    expect(words('seals:propshaft')).not.toContain('small one first')
    expect(told('tjeld-8', 'seals:propshaft')!.get('seals')!.words).toContain('small one first')
  })
})

describe('a yearly service', () => {
  it('says the intervals of the sheet for the water of the job', () => {
    const { words } = told('lomvi-90', 'service')!.get('service')!
    expect(words).toContain('Impeller of the water pump: every 12 months or every 200 h, in this water.')
    expect(words).not.toContain('Impeller of the water pump: every 24 months')
  })
  it('of a sterndrive looks at bellows and joints, and that of an outboard does not', () => {
    const words = (id: string) => told(id, 'service')!.get('service')!.words
    expect(words('alke-2-upper')).toContain('bellows')
    expect(words('lomvi-90')).not.toContain('bellows')
  })
})
