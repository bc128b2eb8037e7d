import type { DriveSheet } from '../../drives/sheet.ts'
import { lowerFirst } from '../../units/words.ts'
import { number, say, text, type StepDraft } from '../make.ts'
import { does } from './rebuild.ts'

/** A nut that carries a preload: how it was can only be had before it moves. */
export function nutFound({ graph }: DriveSheet): Omit<StepDraft, 'needs'> | false {
  const nuts = (graph.groups ?? []).filter((g) => g.tightenedBy === 'preload')
  if (!nuts.length) return false
  const moves = (id: string) => does(`loosen.${id}`, `take-out.${id}`)
  return {
    id: 'nut-found',
    appliesWhen: does(...nuts.flatMap((g) => [`loosen.${g.id}`, `take-out.${g.id}`])),
    what:
      nuts.length > 1
        ? 'Read the preload before its nuts move'
        : `Read the preload before the ${lowerFirst(nuts[0]!.name)} moves`,
    why: 'Once the nut has moved, nobody knows any more how the bearings ran. It is the first thing to hold the new preload against.',
    tools: ['Torque meter or spring scale', 'Paint pen'],
    instruct: [
      say('Turn it slowly through several turns, and read the torque while it turns, not as it starts.'),
      say('Mark nut, shaft and lock against each other with one line; count the turns as the nut comes off.'),
    ],
    asks: nuts.flatMap((g) => [
      number(`nut-found.${g.id}`, `Rolling torque as found: ${g.name}`, 'Nm', {
        quantity: 'torque',
        max: 200,
        when: moves(g.id),
      }),
      text(`nut-found.${g.id}.mark`, 'How it was marked, and how many turns it came off', {
        optional: true,
        when: moves(g.id),
      }),
    ]),
  }
}
