import { propellerHeld } from '../../drives/graph/unit-facts.ts'
import type { Axis, DriveSheet } from '../../drives/sheet.ts'
import { inWords } from '../../units/format.ts'
import type { Condition } from '../facts.ts'
import { gate, number, pick, say, text, type StepDraft } from '../make.ts'
import { does, inMode } from './rebuild.ts'
import { alsoAsks } from './wanted.ts'

/** Shafts whose runout can be read while it is together: those that lie and come out of the case. */
export const shaftsAtStrike = (sheet: DriveSheet): Axis[] => sheet.axes.filter((a) => a.line === 'horizontal')

/** A blow is looked into where one was told of, or may have been, or where that is what the job is for. */
const STRUCK: Condition = {
  any: [{ fact: 'in.struck', oneOf: ['yes', 'unknown'] }, inMode('strike')],
}
/** The propeller off, and what a blow has done behind it. */
export function strikeSteps(sheet: DriveSheet): (StepDraft | false)[] {
  const { graph } = sheet
  const hasPropeller = sheet.parts.some((p) => p.kind === 'hub')
  return [
    hasPropeller && {
      id: 'prop-off',
      bySelf: true,
      needs: ['receive', 'drain', 'leak-found', 'leak-found-joined'],
      what: 'Take the propeller off',
      why: 'Behind it lie the seal, the zones that a blow bends, and the fishing line that cuts a lip.',
      appliesWhen: does('remove.hub'),
      page: 'row',
      place: 'end:aft',
      instruct: [
        say(
          'Its lock is freed before the nut. Washers and hub are laid in the row with their sides as they come.',
        ),
        say('Look for line behind it, and at the taper and splines of the hub.'),
      ],
      gates: [
        gate(
          { fact: 'row.propeller-on', is: 0 },
          'The propeller is still on, or not in the row yet: look at the row.',
        ),
      ],
    },
    {
      id: 'strike',
      needs: ['receive', ...(hasPropeller ? (['prop-off'] as const) : [])],
      wants: alsoAsks(sheet, 'runoutLimits'),
      what: 'After the strike: each shaft zone by zone',
      why: 'A bent shaft eats the new seal, a cracked case is never rebuilt.',
      appliesWhen: STRUCK,
      place: 'end:aft',
      figuresAt: ['runoutLimits'],
      tools: ['Indicator'],
      instruct: [
        say(
          'Each shaft on its own, coaxial ones too: turn one, hold the other. Where a zone is not reached, leave it out.',
        ),
      ],
      figures: shaftsAtStrike(sheet).flatMap((a) => [
        {
          label: a.label,
          fact: `strike.${a.id}.verdict`,
          words: { straight: 'straight, within its limits', bent: 'bent: replaced, not straightened' },
        },
        { label: `${a.label} is bent by`, fact: `strike.${a.id}.bend`, unit: 'mm' },
        { label: `${a.label} is highest at, by the clock`, fact: `strike.${a.id}.high` },
      ]),
      asks: [
        ...shaftsAtStrike(sheet).flatMap((a) =>
          sheet.runoutLimits.length
            ? sheet.runoutLimits.flatMap((l, i) => [
                number(
                  `strike.${a.id}.z${i}`,
                  `${a.label}, ${l.zone.toLowerCase()}: total runout, limit ${inWords(l.tirMm, 'mm')}`,
                  'mm',
                  {
                    quantity: 'length',
                    max: 20,
                    ...(i > 0 ? { optional: true } : { unless: { known: `strike.${a.id}.c${i}` } }),
                  },
                ),
                text(
                  `strike.${a.id}.c${i}`,
                  `${a.label}, ${l.zone.toLowerCase()}: round the clock from 12, six or more readings at equal steps`,
                  { optional: true },
                ),
              ])
            : [
                number(`strike.${a.id}.runout`, `${a.label}: total runout`, 'mm', {
                  quantity: 'length',
                  max: 20,
                }),
              ],
        ),
        pick('strike.case', propellerHeld(graph) ? 'Skeg, carrier and case' : 'Carrier and case', {
          whole: 'whole',
          dented: 'dented',
          cracked: 'cracked',
        }),
        pick('strike.flanges', 'Flanges, mount and tilt tube', {
          sound: 'straight, nothing cracked',
          marked: 'bent or cracked',
        }),
        pick('strike.gears', 'Gears, turned by hand through the whole round', {
          even: 'even and quiet',
          rough: 'a notch, a jump or a scrape',
        }),
      ],
    },
  ]
}
