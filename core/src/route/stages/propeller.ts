import type { Window } from '../../checks/window.ts'
import { propellerHeld, propellerNutPath } from '../../drives/graph/unit-facts.ts'
import { torqueUnitAt } from '../../drives/own/source.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { inWords } from '../../units/format.ts'
import type { TorqueUnit } from '../../units/torque-unit.ts'
import type { Condition } from '../facts.ts'
import { bySchool, number, say, type StepDraft } from '../make.ts'
import type { Instruct } from '../route.ts'
import { does, LEADS } from './rebuild.ts'
import { torqueAsks, wrenchFigures } from './torque-asks.ts'
import { lackingUnder, wantingStep } from './wanted.ts'

/** The propeller goes on: the step with the sheet's own figures, or one that asks for them. */
export function propellerSteps(sheet: DriveSheet): { propeller: StepDraft | null; later: StepDraft | false } {
  const { graph } = sheet
  const held = propellerHeld(graph)
  const propGone: Condition = {
    all: [LEADS, does('fit.hub', 'tighten.propeller', 'know.propeller-turns')],
  }
  const printed = torqueUnitAt(sheet.sources, `${propellerNutPath(sheet.graph)}.torqueNm`)
  const propeller: StepDraft | null = !held
    ? null
    : {
        id: 'propeller',
        needs: held.afterRun ? ['first-run'] : ['join', 'turn-closed', 'strike', 'service', 'ring-mounted'],
        what: 'Fit the propeller',
        why: 'Through the teeth a nut torque breaks what you have just set.',
        appliesWhen: propGone,
        place: 'end:aft',
        school: 'prop-nut',
        figuresAt: ['propellers', propellerNutPath(sheet.graph)],
        ...(held.kind === 'tabs' ? { figures: wrenchFigures('prop') } : {}),
        instruct: [
          ...(graph.unit?.shifts
            ? [
                say(
                  'Neutral, and a blade blocked on wood: in gear the torque goes through the teeth.',
                  'prop-in-gear',
                ),
              ]
            : []),
          say('Splines greased thinly, taper the right way; washers and hub in order.'),
          ...(sheet.further?.propellers ?? []).map((p) =>
            say(
              `${p.name}: ${[...(p.washers ?? [])].join(', ')}${p.turnsForward ? `; turns ${p.turnsForward} going forward` : ''}.`,
            ),
          ),
          ...(held.kind === 'tabs'
            ? nutHints(held.torqueNm, printed)
            : [say('Shear pin in, cap clocked to the hole, split pin flared both ways.')]),
        ],
        asks:
          held.kind === 'tabs'
            ? [
                ...torqueAsks('prop', 'Propeller nut', held.torqueNm, printed),
                {
                  ...number('prop.tabs', `Tabs in their slots (this drive: ${held.tabs})`, '', {
                    whole: true,
                    max: 20,
                  }),
                  must: { fact: 'prop.tabs', atLeast: held.tabs } as const,
                  wrong: `The sheet asks for ${held.tabs} tabs. Advance the nut to where they meet, never back.`,
                  slip: 'few-tabs' as const,
                },
                number('prop.threads', `Threads showing (at least ${held.threads})`, '', {
                  min: held.threads,
                  max: 40,
                  whole: true,
                }),
              ]
            : [],
      }
  const nut = lackingUnder(sheet, 'propellers', propellerNutPath(sheet.graph))
  const later = nut.length > 0 && {
    ...wantingStep(nut, {
      id: 'propeller',
      what: 'Fit the propeller',
      why: 'Through the teeth a nut torque breaks what you have just set.',
      appliesWhen: propGone,
      place: 'end:aft',
    }),
    needs: ['first-run' as const],
  }
  return { propeller, later }
}

/** How far the nut is drawn, by the way of the shop. */
function nutHints(torque: Window, printed: TorqueUnit | undefined): Instruct[] {
  const low = torque.min ?? 0
  const middle = torque.max === undefined ? low : (low + torque.max) / 2
  return [
    bySchool(
      'prop-nut',
      'low-end',
      `Set the wrench to the low end, ${inWords(low, 'Nm', printed)}, then on to where the tabs meet.`,
    ),
    bySchool(
      'prop-nut',
      'middle',
      `Set the wrench to the middle, ${inWords(middle, 'Nm', printed)}, then on to where the tabs meet.`,
    ),
    bySchool('prop-nut', 'feel', 'By feel, then on to the lock; what was set is entered all the same.'),
  ]
}
