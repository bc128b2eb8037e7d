import { caseTest, joinedTest } from '../drives/graph/unit-facts.ts'
import type { RecordedAct } from '../assembly/act.ts'
import { isOnlySeatedAgain, isProved, isTouched, jointAt } from '../assembly/state.ts'
import type { LeakPlan } from '../drives/leak-plan.ts'
import { objectName } from './acts/object-name.ts'
import { deriveFacts } from '../route/job-facts.ts'
import { baseOf } from '../route/occurrence.ts'
import { LEAK_TESTS, type LeakTestId } from '../route/step-ids.ts'
import type { JudgedJob } from './judged.ts'
import type { Closing } from './record.ts'

/** One pressure test as it was held, with what came of it. */
export interface HeldTest {
  closing: Closing
  test: LeakTestId
  /** By what it was held; nothing where the sheet has no figures, and somebody tested it by the manual of the unit. */
  plan?: LeakPlan
  /** What he said came of it then. */
  word?: string
  startKpa?: number
  endKpa?: number
  minutes?: number
  /** By the leak rate: tight, leaks, too short to tell, cannot be; `attempt` where it was no test. */
  verdict?: string
  /** By the criterion of the manual. */
  byManual?: string
  mlPerMin?: number
  uMlPerMin?: number
  proved: boolean
}

const isTest = (id: string): id is LeakTestId => (LEAK_TESTS as readonly string[]).includes(id)

/** Every pressure test of a job, those that did not count among them, as they would be judged today. */
export function heldTests({
  sheet,
  closings,
  facts,
}: Pick<JudgedJob, 'sheet' | 'closings' | 'facts'>): HeldTest[] {
  const schools = Object.fromEntries(Object.entries(facts).filter(([f]) => f.startsWith('school.')))
  return closings.flatMap((closing): HeldTest[] => {
    const test = baseOf(closing.step)
    if (!isTest(test) || closing.takenBack?.replacedBy) return []
    const plan = test.endsWith('joined') ? joinedTest(sheet.graph) : caseTest(sheet.graph)
    const said = closing.answers[`${test}.word`]
    if (!plan)
      return typeof said === 'string' ? [{ closing, test, word: said, proved: said === 'tight' }] : []
    const known = deriveFacts(sheet, { ...schools, ...closing.answers })
    const num = (name: string) => {
      const v = known[`${test}.${name}`]
      return typeof v === 'number' ? v : undefined
    }
    const word = (name: string) => {
      const v = known[`${test}.${name}`]
      return typeof v === 'string' ? v : undefined
    }
    const fields = {
      startKpa: num('start'),
      endKpa: num('end'),
      minutes: num('minutes'),
      verdict: word('verdict'),
      byManual: word('by-manual'),
      mlPerMin: num('ml-per-min'),
      uMlPerMin: num('u-ml-per-min'),
    }
    return [
      {
        closing,
        test,
        plan,
        ...Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined)),
        proved: known[`${test}.proved`] === true,
      },
    ]
  })
}

/** Something that was parted, and what proves that it is as it must be. */
export interface Parted {
  id: string
  name: string
  /** By what: a test, the run, a reading; the same parts seated again; or nothing. */
  proof: 'test' | 'run' | 'reading' | 'seated' | 'none'
  at?: string
  by?: string
}

/** Joints that were opened and settings that were parted, each with its proof as it stands. */
export function partedIn({ sheet, work }: Pick<JudgedJob, 'sheet' | 'work'>): Parted[] {
  const { ix, state, acts } = work
  const byAct = (act: RecordedAct | undefined, proof: Parted['proof']) =>
    act ? { proof, at: act.at, by: act.by } : { proof: 'none' as const }
  const joints = [...ix.joints].flatMap(([id, joint]): Parted[] => {
    const { partings, proof } = state.joints.get(id)!
    if (!partings || joint.row.provedBy === 'none') return []
    const holds = proof?.partings === partings && jointAt(state, joint) === 'shut'
    const act = holds ? acts.find((a) => a.n === proof.n) : undefined
    return [{ id, name: objectName(sheet, 'leak', id), ...byAct(act, act?.do === 'run' ? 'run' : 'test') }]
  })
  const settings = [...ix.settings.values()].flatMap((s): Parted[] => {
    if (!isTouched(state, s)) return []
    const name = objectName(sheet, 'measure', s.id)
    if (isProved(state, s)) {
      const { n } = state.settings.get(s.id)!.proof!
      return [
        {
          id: s.id,
          name,
          ...byAct(
            acts.find((a) => a.n === n),
            'reading',
          ),
        },
      ]
    }
    return [{ id: s.id, name, proof: isOnlySeatedAgain(state, s) ? 'seated' : 'none' }]
  })
  return [...joints, ...settings]
}
