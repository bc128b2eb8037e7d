import { caseTest, joinedTest } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import { withFigure } from '../../src/drives/own/body.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { estimate } from '../../src/inspection/estimate.ts'
import { rebuildPlan, struckIn } from '../../src/job/job-plan.ts'
import { keepable } from '../../src/job/decision.ts'
import { mendedIn } from '../../src/job/acts/mended-in.ts'
import { heldTests, partedIn } from '../../src/job/proofs.ts'
import { USUAL_WAYS } from '../../src/job/record.ts'
import { baseOf, timeOf } from '../../src/route/occurrence.ts'
import { completeStep, isAsked } from '../../src/route/complete.ts'
import { holds } from '../../src/route/facts.ts'
import { honest } from '../../src/route/honest.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { reach } from '../../src/route/reach.ts'
import { comesOff } from '../../src/drives/parts.ts'
import { usualScope } from '../../src/route/scope.ts'
import { LiveJob } from './live-job.ts'

const sheetOf = (id: string) => demoSheets.find((s) => s.id === id)!
const live = (sheet: DriveSheet, usual: string, ...more: [options?: object, choice?: 'rebuild' | 'stop']) =>
  new LiveJob(sheet, usualScope(sheet, usual), ...(more as []))
/** Steps that came up once more. */
const again = (job: LiveJob) => job.order.filter((s) => timeOf(s) > 1).map(baseOf)
const onRoute = (job: LiveJob) =>
  job.job.progress.steps.filter((s) => s.state !== 'not-here').map((s) => s.step.id)

const BENT = { 'strike.case': 'cracked', 'strike.propshaft.z0': 0.5, 'strike.propshaft.z1': 0.5 }
const STRAIGHT = { 'strike.propshaft.z0': 0.02, 'strike.propshaft.z1': 0.02 }

describe('a strike', () => {
  it('takes the propeller off before it measures what lies behind it, and puts it back when nothing is wrong', () => {
    const job = live(sheetOf('lomvi-90'), 'strike', { story: STRAIGHT }, 'stop')
    job.walk('prop-off')
    expect(job.step('strike')!.state).toBe('blocked')
    job.walk()
    expect(job.order).toEqual(expect.arrayContaining(['strike', 'propeller', 'handover']))
    expect(job.order).not.toContain('first-run')
    expect(job.lines()).toEqual([])
  })
  it('that bent the shaft and cracked the case reaches the estimate, with its reason', () => {
    const job = live(sheetOf('lomvi-90'), 'strike', { story: BENT })
    job.walk('approve')
    const { record, sheet } = job
    const struck = struckIn(record, sheet)
    expect(struck.map((s) => [s.part.id, s.why])).toEqual([
      ['prop-shaft', 'bent'],
      ['housing', 'cracked'],
    ])
    expect(struck[0]!.reason).toMatch(/0\.5.* limit 0\.05/)
    const made = estimate(sheet, {
      grades: Object.fromEntries(struck.map((s) => [s.part.id, 'replace' as const])),
      reasons: Object.fromEntries(struck.map((s) => [s.part.id, s.reason])),
      seen: { housing: ['crack'] },
      rate: 900,
      consumables: 0,
      scope: rebuildPlan(record, sheet, USUAL_WAYS),
    })
    expect(made.order.flatMap((o) => o.ids ?? [])).toEqual(expect.arrayContaining(['prop-shaft', 'housing']))
    expect(made.safety.join()).toMatch(/old case/)
    // a new case: everything moves over, and all is set anew
    expect(rebuildPlan(record, sheet, USUAL_WAYS).stays).toEqual([])
  })
  it('is rebuilt with a new shaft and a new case, set and proved anew', () => {
    const job = live(sheetOf('lomvi-90'), 'strike', { story: BENT }).walk()
    expect(job.lines()).toEqual([])
    expect(job.order).toEqual(
      expect.arrayContaining(['parts-in', 'pattern', 'leak-case', 'first-run', 'propeller']),
    )
    const { parts } = job.job.work.state
    expect([parts.get('housing')!.instance, parts.get('prop-shaft')!.instance]).toEqual([2, 2])
  })
  it('whose owner stops leaves the drive as it is, with its propeller off: nobody runs it', () => {
    const job = live(sheetOf('lomvi-90'), 'strike', { story: BENT }, 'stop').walk()
    expect(job.job.work.state.end).toBe('as-it-is')
    expect(job.order).not.toContain('propeller')
    // the lines stay to be read, and are not for this end
    expect(job.job.work.lines).toContainEqual({
      code: 'unsafe-in',
      on: 'prop-shaft',
      colour: 'not-for-this-end',
    })
  })
  it.each(['as-it-is', 'boxes', 'scrapped'] as const)(
    'ends %s where the owner says so, and nothing more is done',
    (end) => {
      const job = live(sheetOf('lomvi-90'), 'strike', { story: STRAIGHT }).walk('approve')
      job.decide('stop', { ends: end })
      job.walk()
      expect(job.job.work.state.end).toBe(end)
      expect(job.order).not.toContain('propeller')
      const said = job.job.route.steps.find((s) => s.id === 'handover')!.instruct!
      expect(said.filter((i) => !i.when || holds(i.when, job.job.facts))).toHaveLength(1)
    },
  )
  it.each(['exchange', 'used'] as const)(
    'ends with an %s unit: what is kept goes over, and is as good as it was',
    (choice) => {
      const job = live(sheetOf('lomvi-90'), 'strike', { story: BENT }).walk('approve')
      const may = keepable(job.sheet, job.job.work.state).map((p) => p.id)
      expect(may).toEqual(expect.arrayContaining(['propeller', 'anode']))
      expect(may).not.toEqual(expect.arrayContaining(['prop-shaft']))
      job.decide(choice, { kept: ['propeller', 'anode'] })
      const { state } = job.job.work
      expect([state.parts.get('anode')!.at, state.parts.get('housing')!.condition]).toEqual([
        'tray',
        'unknown',
      ])
      job.walk()
      expect(job.order).toEqual(
        expect.arrayContaining(['unit-look', 'leak-case', 'anode', 'propeller', 'first-run']),
      )
      expect(job.lines()).toEqual([])
      expect([job.job.work.state.end, job.job.work.state.parts.get('anode')!.at]).toEqual(['boat', 'in'])
    },
  )
})

describe('a repair after handover', () => {
  it('of the propeller shaft seals asks for oil, ring nut, proof, filling, run and propeller once more', () => {
    const job = live(sheetOf('lomvi-90'), 'seals:propshaft').walk()
    const before = job.order.length
    expect(job.repair(['prop-seals'])).toBe(true)
    expect(job.lines()).toEqual([])
    job.walk()
    const steps = job.order.slice(before).map(baseOf)
    expect(steps).toEqual(
      expect.arrayContaining([
        'locks',
        'left-hand',
        'apart',
        'seals',
        'o-rings',
        'close',
        'tighten',
        'ring-mounted',
        'leak-case',
        'fill-mounted',
        'first-run',
        'propeller',
        'handover',
      ]),
    )
    expect(steps).not.toContain('receive')
    expect(job.lines()).toEqual([])
    expect(job.job.work.state.parts.get('prop-seals')!.instance).toBe(3)
  })
  it('of an input seal sets the preload of the pair anew, on two cases proves them joined', () => {
    const job = live(sheetOf('alke-2-upper'), 'seals:input').walk()
    const before = job.order.length
    job.repair(['input-seal'])
    job.walk()
    expect(job.order.slice(before).map(baseOf)).toEqual(
      expect.arrayContaining(['trial-in', 'leak-case', 'handover']),
    )
    expect(job.lines()).toEqual([])
  })
  it('can be repaired again, and again', () => {
    const job = live(sheetOf('teist-6'), 'seals:propshaft').walk()
    for (let k = 1; k <= 3; k++) {
      expect(job.repair(['prop-seal'])).toBe(true)
      // while it is open it is no other repair
      expect(job.repair(['prop-seal'])).toBe(false)
      job.walk()
      expect(job.job.work.state.parts.get('prop-seal')!.instance).toBe(2 + k)
      expect(job.lines()).toEqual([])
    }
    expect(again(job).filter((s) => s === 'seals')).toHaveLength(3)
  })
})

describe('an own sheet without figures', () => {
  it('asks for the figures of its test where the case is proved, and never says that there is nothing to prove', () => {
    let bare = templateOf('outboard-fnr', 'own', 'Own')
    bare = withFigure(bare, 'spaces.case.fillMl', 600)
    const job = live(filled(bare), 'full')
    expect(job.job.plan.prove).toEqual(['case'])
    expect(onRoute(job)).toContain('leak-case')
    expect(job.job.route.steps.find((s) => s.id === 'leak-case')!.wants!.length).toBeGreaterThan(0)
  })
})

describe('a lower half on the boat', () => {
  it('is tested with the other half, with both volumes and the lower maximum, before and after', () => {
    const sheet = sheetOf('alke-2-lower')
    const job = live(sheet, 'seals:propshaft')
    expect(onRoute(job)).toEqual(expect.arrayContaining(['leak-found-joined', 'leak-joined']))
    expect(onRoute(job)).not.toContain('leak-found')
    expect(onRoute(job)).not.toContain('leak-case')
    expect(joinedTest(sheet.graph)!.volumeMl).toBeGreaterThan(caseTest(sheet.graph)!.volumeMl)
    job.walk()
    expect(job.lines()).toEqual([])
  })
})

describe('new gears', () => {
  it('come with the bearings that are pressed on the old ones, and the preload that their nut sets is read', () => {
    const job = live(sheetOf('lomvi-90'), 'gear-set')
    const pressed = job.job.plan.renew.filter((r) => r.why === 'pressed').map((r) => r.part)
    expect(pressed).toEqual(expect.arrayContaining(['reverse-ball', 'forward-taper']))
    expect(job.job.plan.disturbed).toContain('bearing:driveshaft-lower')
    job.walk()
    expect(job.order).toContain('unit-ratio')
    expect(job.lines()).toEqual([])
  })
  it('keep a bearing that was pressed off and found good', () => {
    const job = live(sheetOf('lomvi-90'), 'gear-set')
    job.walk('inspect')
    job.graded(['reverse-ball'], 'keep')
    expect(job.job.plan.renew.map((r) => r.part)).not.toContain('reverse-ball')
  })
})

describe('the input seal of an upper', () => {
  it('disturbs the preload that its nut carries', () => {
    const job = live(sheetOf('alke-2-upper'), 'seals:input')
    expect(job.job.plan.disturbed).toEqual(['bearing:input-inner'])
    expect(onRoute(job)).toEqual(expect.arrayContaining(['preload', 'accept']))
  })
})

describe('left-hand threads', () => {
  it('are said by name where there are several, each where this job loosens it', () => {
    const lomvi = sheetOf('lomvi-90')
    const groups = lomvi.graph.groups!.map((g) =>
      g.id === 'propeller-nut' ? { ...g, hand: 'left' as const } : g,
    )
    const job = live({ ...lomvi, graph: { ...lomvi.graph, groups } }, 'service')
    const { step } = job.step('left-hand')!
    const said = step.instruct!.filter((i) => holds(i.when!, job.job.facts)).map((i) => i.say)
    expect(said).toEqual(['Propeller nut: clockwise loosens it.'])
    expect(step.instruct!).toHaveLength(2)
  })
})

describe('a hold point', () => {
  it('wants words that say something', () => {
    const job = live(sheetOf('lomvi-90'), 'clutch').walk('seals')
    const { facts, done, route } = job.job
    const close = (seen: string) => () => completeStep(route, facts, done, 'seals', { 'seals.seen': seen })
    expect(close('x')).toThrow(/says nothing yet/)
    expect(close('both springs inward')).not.toThrow()
  })
})

describe('an owner who stops', () => {
  it('ends it as it is, also after a step was taken back: nothing of the rebuild is asked any more', () => {
    const job = live(sheetOf('lomvi-90'), 'full').walk('inside')
    job.takeBack('seals')
    job.decide('stop')
    const before = job.order.length
    job.walk()
    expect(job.order.slice(before)).toEqual(['handover'])
    expect(job.job.work.state.end).toBe('as-it-is')
  })
})

describe('a case that waits for the other one', () => {
  it('is not handed over while something of its own is not right, and asks nothing that is done over there', () => {
    const job = live(sheetOf('alke-2-lower'), 'full')
    job.follow()
    job.walk('tighten')
    job.leave('tighten')
    const said = job.step('handover')!.why.join(' ')
    expect(said).toMatch(/Pinion nut: loosened, and not tightened since/)
    expect(said).not.toMatch(/Not joined again|Gearcase: empty|Drain screw/)
  })
})

describe('a step that was left undone', () => {
  it('is a line of the list at handover, by name, and is not asked for again and again', () => {
    const job = live(sheetOf('lomvi-90'), 'seals:propshaft').walk('leak-case')
    job.leave('leak-case')
    job.walk('fill-mounted')
    // nothing is filled in before a proof: somebody goes on over that, too
    job.accept('fill-mounted')
    job.walk('handover')
    expect(job.step('handover')!.why).toEqual([
      'Carrier: opened, and not proved tight since.',
      'Propeller shaft to carrier: opened, and not proved tight since.',
    ])
    expect(() => job.walk()).toThrow(/handover is shut/)
    expect(mendedIn(job.job.route, job.sheet, job.job.work.lines[0]!)?.id).toBe('leak-case')
    job.waive('joint-not-proved carrier')
    expect(job.step('handover')!.why).toEqual([
      'Propeller shaft to carrier: opened, and not proved tight since.',
    ])
    job.waive('joint-not-proved propshaft')
    job.walk()
    expect(job.job.progress.due).toBeUndefined()
    expect(job.record.closings.at(-1)!.departedFrom).toEqual([])
  })
})

describe('a test that somebody else has made', () => {
  it('is said so with his name, proves nothing here, and is accepted by name', () => {
    const sheet = sheetOf('lomvi-90')
    const { asks } = routeOf(sheet).steps.find((s) => s.id === 'leak-case')!
    const story = Object.fromEntries(
      asks
        .filter((a) => !a.optional)
        .map((a) => [a.fact, a.firm ? honest('not-done') : honest('elsewhere', 'the yard, on paper')]),
    )
    const job = live(sheet, 'seals:propshaft', { story }).walk('fill-mounted')
    expect(job.order).toContain('leak-case')
    const act = job.job.work.acts.find((a) => a.do === 'prove')!
    expect([act.sure, act.fig?.verdict]).toEqual(['said', 'unclear'])
    job.accept('fill-mounted')
    job.walk('handover')
    expect(job.order.filter((s) => s === 'leak-case')).toHaveLength(1)
    for (const line of job.lines()) job.waive(line)
    job.walk()
    expect(job.job.progress.due).toBeUndefined()
  })
})

describe('what a step did, and was undone since', () => {
  it('is left to do once more, and so is all that it touches; the step stays done', () => {
    const job = live(sheetOf('lomvi-90'), 'seals:propshaft').walk('first-run')
    expect(job.undo('ring-mounted')).toBe(true)
    expect(job.lines()).toContain('group-not-tight big-ring')
    expect(job.undo('ring-mounted')).toBe(false)
    expect(job.undo('receive')).toBe(false)
    job.walk()
    expect(again(job)).toEqual(
      expect.arrayContaining(['tighten', 'ring-mounted', 'leak-case', 'fill-mounted']),
    )
    expect(job.record.closings.filter((c) => c.takenBack)).toEqual([])
    expect(job.lines()).toEqual([])
  })
})

describe('what was loosened', () => {
  it('is entered by group when it is tightened, and nothing else is', () => {
    const job = live(sheetOf('lomvi-90'), 'pump').walk('tighten')
    const { step } = job.step('tighten')!
    const asked = step.asks.filter((a) => isAsked(a, job.job.facts)).map((a) => a.fact)
    expect(asked).toContain('torque.pump-screws')
    expect(asked).not.toContain('torque.pinion-nut')
  })
})

describe('nothing is asked that the job does not need', () => {
  it.each([
    ['pump', ['propeller', 'leak-case', 'fill-mounted', 'shift-check']],
    ['shift-seal', ['propeller']],
  ] as const)('%s on an outboard', (usual, without) => {
    const job = live(sheetOf('lomvi-90'), usual)
    const steps = onRoute(job)
    for (const id of without)
      if (!(usual === 'pump' && id === 'shift-check')) expect(steps, id).not.toContain(id)
  })
  it('a refit asks once for the code and once for the ratio', () => {
    const steps = onRoute(live(sheetOf('lomvi-90'), 'refit'))
    expect(steps).not.toContain('identify')
    expect(steps).not.toContain('ratio')
    expect(steps).toEqual(expect.arrayContaining(['unit-look', 'unit-ratio']))
  })
  it('the same parts seated again on the boat are checked by nobody who cannot read them', () => {
    expect(onRoute(live(sheetOf('lomvi-90'), 'seals:propshaft'))).not.toContain('check-set')
  })
})

describe('the record', () => {
  const job = live(sheetOf('lomvi-90'), 'seals:propshaft').walk()
  it('holds every pressure test with its rate, its U and its limits', () => {
    const tests = heldTests(job.job)
    expect(tests.map((t) => t.test)).toEqual(['leak-found', 'leak-case'])
    const [, proof] = tests
    expect(proof).toMatchObject({ verdict: 'tight', proved: true, minutes: 30 })
    expect(proof!.mlPerMin! + proof!.uMlPerMin!).toBeLessThan(proof!.plan!.allowedMlPerMin!)
  })
  it('says of all that was parted how it is proved', () => {
    const parted = Object.fromEntries(partedIn(job.job).map((p) => [p.id, p.proof]))
    expect(parted).toMatchObject({ carrier: 'test', propshaft: 'test', drain: 'run' })
    expect(parted['backlash-reverse']).toBe('seated')
    const open = live(sheetOf('lomvi-90'), 'seals:propshaft').walk('leak-case')
    expect(partedIn(open.job).find((p) => p.id === 'carrier')!.proof).toBe('none')
  })
})

describe('a unit that came', () => {
  const SHEETS = demoSheets.map((s) => [s.id, s] as const)
  const FULL = { usual: 'full', mounted: false }
  const lying = (sheet: DriveSheet, ...ids: string[]) =>
    reach({ parts: sheet.parts.filter(comesOff), targets: ids }).order
  it.each(SHEETS)(
    'in boxes is built up from its list: nothing is taken apart, nothing read as found, %s',
    (_, sheet) => {
      const all = sheet.parts.filter(comesOff).map((p) => p.id)
      const scope = {
        ...usualScope(sheet, 'full'),
        ...FULL,
        came: 'boxes' as const,
        lying: lying(sheet, ...all),
      }
      const job = new LiveJob(sheet, scope).walk()
      expect(job.lines()).toEqual([])
      const never = ['apart', 'drain', 'as-found', 'leak-found', 'leak-found-joined', 'ratio', 'prop-off']
      expect(job.order.filter((s) => never.includes(s))).toEqual([])
      expect(job.order).toEqual(expect.arrayContaining(['clean', 'close', 'turn-closed', 'handover']))
      // the ratio is counted once it turns
      expect(job.order.includes('unit-ratio')).toBe(sheet.meshes.length > 0)
    },
  )
  it('opened by somebody is not opened again, and what he had off is proved like everything else', () => {
    const sheet = sheetOf('lomvi-90')
    const beside = lying(sheet, 'carrier')
    const scope = {
      ...usualScope(sheet, 'seals:propshaft'),
      mounted: false,
      came: 'opened' as const,
      lying: beside,
    }
    const job = new LiveJob(sheet, scope).walk()
    expect(job.order).not.toContain('as-found')
    expect(job.order).not.toContain('drain')
    expect(job.job.work.acts.filter((a) => a.do === 'remove' && a.on === 'carrier')).toHaveLength(1)
    expect(job.order).toEqual(
      expect.arrayContaining(['seals', 'leak-case', 'join', 'fill-mounted', 'handover']),
    )
    expect(job.lines()).toEqual([])
  })
  it('whole and off the boat is not parted from it again, but joined', () => {
    const sheet = sheetOf('lomvi-90')
    const job = new LiveJob(sheet, { ...usualScope(sheet, 'full'), came: 'off' }).walk()
    expect(job.job.work.acts.filter((a) => a.do === 'part')).toEqual([])
    expect(job.order).toEqual(expect.arrayContaining(['as-found', 'drain', 'join']))
    expect(job.lines()).toEqual([])
  })
})

describe('a leak whose place is not known', () => {
  const JOINTS = ['lomvi-90', 'alke-2-upper', 'alke-2-lower', 'teist-6'].flatMap((id) =>
    (sheetOf(id).graph.joints ?? [])
      .filter((j) => j.provedBy !== 'none')
      .map((j) => [`${id}: ${j.name}`, id, j.id] as const),
  )
  it.each(JOINTS)('opens nothing before it is found, then no more than it takes: %s', (_, id, joint) => {
    const job = live(sheetOf(id), 'test', { story: { 'place.where': joint } }).walk()
    expect(job.repair([])).toBe(true)
    expect(job.job.progress.due!.step).toMatchObject({ id: 'find-place', stage: 'repair-1' })
    expect(job.step('handover-2')!.state).toBe('blocked')
    expect(job.job.work.left.deeds.filter((d) => ['remove', 'loosen', 'take-out'].includes(d.do))).toEqual([])
    job.walk()
    expect(job.lines()).toEqual([])
    const { acts, state } = job.job.work
    const found = acts.find((a) => a.do === 'leak' && a.on === joint)!
    expect(state.joints.get(joint)!.proof!.n).toBeGreaterThan(found.n)
    expect(state.joints.get(joint)!.leaks).toBe(false)
    expect(job.order.slice(-1)).toEqual(['handover-2'])
  })
  it('that was only hub grease opens nothing; one that nobody finds is a line until it is accepted', () => {
    const story = { 'place.where': 'outside' }
    const hub = live(sheetOf('lomvi-90'), 'pump', { story }).walk()
    hub.repair([])
    const before = hub.order.length
    hub.walk()
    expect(hub.order.slice(before)).toEqual(['find-place', 'handover-2'])
    story['place.where'] = 'not-found'
    hub.repair([])
    hub.walk('handover-3')
    expect(hub.step('handover-3')!.why).toEqual(['A leak was told of, and its place is not found.'])
    hub.waive('open-item leak')
    hub.walk()
    expect(hub.job.progress.due).toBeUndefined()
  })
})
