import { caseTest } from '../../drives/graph/unit-facts.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { inWords } from '../../units/format.ts'
import { pick, say, text, type StepDraft } from '../make.ts'
import { does } from './rebuild.ts'

/** Answer that no joint of the case leaks: what was seen came from the hub, or from outside. */
export const NOT_FROM_HERE = 'outside'
/** Answer that nobody has found it. */
export const NOT_FOUND = 'not-found'

/** A leak is told of, and its place is not known yet: it is found before anything is opened. */
export function findPlace({ graph }: DriveSheet): StepDraft | false {
  const joints = (graph.joints ?? []).filter((j) => j.provedBy !== 'none')
  if (!joints.length) return false
  const test = caseTest(graph)
  const under = test ? ` at ${inWords(test.lowKpa, 'kPa')} first` : ''
  return {
    id: 'find-place',
    needs: ['receive'],
    ofRepair: true,
    appliesWhen: does('know.place'),
    what: 'Find the place of the leak',
    why: 'What is opened at the wrong place is opened twice. Nothing comes off until the place is known.',
    tools: ['Pressure tester with its gauge', 'Lamp and mirror'],
    consumables: ['Cleaner', 'Chalk or powder', 'Soap water'],
    instruct: [
      say(
        'Clean it and dry it. Grease from the propeller hub, thrown outwards, looks like a leak of the shaft.',
      ),
      say(
        'Powder round every joint and wait: oil draws a line from where it comes out, not from where it drips.',
      ),
      say(`Then air${under}, with soap on every joint, and all turned and shifted meanwhile.`),
    ],
    asks: [
      pick('place.where', 'It comes out at', {
        ...Object.fromEntries(joints.map((j) => [j.id, j.name])),
        [NOT_FROM_HERE]: 'nowhere here: hub grease, exhaust or rain',
        [NOT_FOUND]: 'not found',
      }),
      text('place.seen', 'How it was seen', { optional: true }),
    ],
  }
}
