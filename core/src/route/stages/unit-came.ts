import type { DriveSheet } from '../../drives/sheet.ts'
import { number, pick, say, text, type StepDraft, inGear } from '../make.ts'
import { does, UNIT } from './rebuild.ts'

/** A unit that came whole: what a stranger's work must show before it goes on a boat. */
export function unitSteps(sheet: DriveSheet): (StepDraft | false)[] {
  const stamps = sheet.ratio?.stamps ?? []
  const own = stamps.filter((s) => s.own).map((s) => s.code)
  return [
    {
      id: 'unit-look',
      needs: ['approve', 'receive'],
      what: 'Look over the unit that came',
      why: 'Somebody else has closed it: what he left open is yours from now on.',
      appliesWhen: UNIT,
      instruct: [
        ...(own.length
          ? [
              say(
                `This boat needs ${own.join(' or ')}. A unit with another code bolts on too, but it is the wrong one.`,
                'variant',
              ),
            ]
          : []),
        say('Check plugs, locks, gaskets and breather. Put what is missing on the list of open items.'),
      ],
      asks: [
        ...(stamps.length
          ? [
              pick('unit.stamp', 'Code stamped on the unit', {
                ...Object.fromEntries(stamps.map((s) => [s.code, `${s.code} (${s.teeth})`])),
                other: 'another code',
                none: 'none to be read',
              }),
            ]
          : []),
        pick('unit.seals', 'Seals, plugs and faces', {
          good: 'sound, nothing weeping',
          doubtful: 'something to mend first',
        }),
        text('unit.note', 'What was seen, and what came with it', { optional: true }),
      ],
    },
    sheet.meshes.length > 0 && {
      id: 'unit-ratio',
      needs: ['approve', 'receive', 'turn-closed'],
      what: 'Count the ratio of what is fitted',
      why: 'A stamp can be swapped, and new gears can be the wrong ones; turns do not lie.',
      appliesWhen: { any: [UNIT, does('know.ratio')] },
      instruct: inGear(sheet),
      asks: [
        number('unit.input-turns', 'Turns at the input', 'turns', { min: 0.5, max: 200 }),
        number('unit.output-turns', 'Turns at the output meanwhile', 'turns', { min: 0.5, max: 200 }),
      ],
    },
  ]
}
