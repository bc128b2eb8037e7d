import type { SheetBody } from './body.ts'
import type { FigureField } from './figure-field.ts'
import { choice, length, words } from './shapes.ts'

/** What is measured, and where it should be. */
export function measureFields(body: SheetBody): FigureField[] {
  return body.measures.flatMap((m): FigureField[] => {
    const at = `measures.${m.id}`
    const place = `measure:${m.id}`
    const window: FigureField = {
      path: `${at}.window`,
      group: 'setting',
      label: m.label,
      help:
        m.kind === 'backlash'
          ? 'As the indicator shows it at the place where the manual reads it.'
          : 'From the smallest to the largest that is allowed.',
      shape: length(m.kind === 'depth' ? 400 : 20, true, m.kind === 'depth' ? -50 : 0),
      usual: 'manual',
      place,
      for: 'setting',
    }
    if (m.kind === 'backlash')
      return [
        window,
        {
          path: `${at}.member`,
          group: 'setting',
          label: `${m.label}: the shaft that is rocked carries`,
          shape: choice({ pinion: 'the pinion', gear: 'the gear' }),
          usual: 'manual',
          place,
          otherwise: 'the pinion',
        },
        {
          path: `${at}.radiusMm`,
          group: 'setting',
          label: `${m.label}: radius at which it is read`,
          help: 'From the middle of the shaft to the plunger.',
          shape: length(500, false, 3),
          usual: 'manual',
          place,
          drawn: true,
        },
        {
          path: `${at}.load`,
          group: 'setting',
          label: `${m.label}: the gear that is held`,
          shape: choice({ none: 'is only held', outward: 'is pushed onto its own bearing too' }),
          usual: 'manual',
          place,
          otherwise: 'it is only held',
        },
        {
          path: `${at}.hold`,
          group: 'setting',
          label: `${m.label}: what is held, and how it is loaded`,
          shape: words(300),
          usual: 'manual',
          place,
        },
      ]
    if (m.kind === 'end-play') return [window]
    const nominal: FigureField = {
      path: `${at}.nominal`,
      group: 'setting',
      label: `${m.label}: where it should be`,
      help: 'Where nobody prints it, the pair says it: by a ride-height search in the case, or on a surface plate.',
      shape: choice({
        printed: 'the manual prints it',
        'of-the-pair': 'nobody prints it; found for each pair',
      }),
      usual: 'manual',
      place,
      otherwise: 'the manual prints it',
    }
    const how: FigureField = {
      path: `${at}.how.method`,
      group: 'setting',
      label: `${m.label}: measured with`,
      shape: choice({
        'master-drop': 'a depth gauge against a master',
        arbor: 'an arbor in the bore of the gears',
        'feeler-block': 'a block and feelers',
      }),
      usual: 'manual',
      place,
      for: 'setting',
    }
    const further: Record<string, FigureField[]> = {
      'master-drop': [depthFigure(at, 'masterMm', `${m.label}: length of the master`, place)],
      arbor: [depthFigure(at, 'arborDiameterMm', `${m.label}: diameter of the arbor`, place)],
      'feeler-block': [
        depthFigure(at, 'nominalClearanceMm', `${m.label}: clearance at the nominal depth`, place),
        depthFigure(
          at,
          'nominalDepthMm',
          `${m.label}: nominal depth, from the middle of the gear shaft`,
          place,
        ),
      ],
    }
    const judged = m.nominal === 'of-the-pair' ? [] : [window]
    return [how, ...(further[String(m.how?.method)] ?? []), nominal, ...judged]
  })
}

const depthFigure = (at: string, name: string, label: string, place: string): FigureField => ({
  path: `${at}.how.${name}`,
  group: 'setting',
  label,
  shape: length(500, false, 0.01),
  usual: 'manual',
  place,
  for: 'setting',
})
