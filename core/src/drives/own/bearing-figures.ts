import { CRUSH_TOLERANCE_MM } from '../crush-tolerance.ts'
import type { SheetBody } from './body.ts'
import type { FigureField } from './figure-field.ts'
import { length, torque } from './shapes.ts'

/** How the bearings are set. */
export function bearingFields(body: SheetBody): FigureField[] {
  return body.bearings.flatMap((b): FigureField[] => {
    const at = `bearings.${b.id}.setting`
    const place = `bearing:${b.id}`
    if (b.setting?.kind === 'rolling-torque')
      return [
        {
          path: `${at}.newNm`,
          group: 'bearings',
          label: `${b.label}: rolling torque, new bearings`,
          help: 'Without the drag of seals.',
          shape: torque(50),
          usual: 'manual',
          place,
          for: 'preload',
        },
        {
          path: `${at}.runInNm`,
          group: 'bearings',
          label: `${b.label}: rolling torque, bearings that have run`,
          shape: torque(50),
          usual: 'manual',
          place,
          otherwise: 'the window of new ones is asked for',
        },
        ...(b.setting.by === undefined
          ? []
          : [
              {
                path: `${at}.nmPerMm`,
                group: 'bearings' as const,
                label: `${b.label}: 1 mm more of its stack changes the torque by`,
                help: 'In Nm; minus where a thicker stack slackens it. Two trials measure it better.',
                shape: { is: 'number' as const, unit: '' as const, whole: false, min: -200, max: 200 },
                usual: 'manual' as const,
                place,
                otherwise: 'it is measured by two trials',
              },
            ]),
      ]
    if (b.setting?.kind === 'crush')
      return [
        {
          path: `${at}.crushMm`,
          group: 'bearings',
          label: `${b.label}: crush under the cover`,
          shape: length(1),
          usual: 'manual',
          place,
          for: 'crush',
        },
        {
          path: `${at}.toleranceMm`,
          group: 'bearings',
          label: `${b.label}: crush may differ by`,
          shape: length(1),
          usual: 'manual',
          place,
          otherwise: `${CRUSH_TOLERANCE_MM} mm`,
        },
      ]
    return []
  })
}

/** How much the shafts may run out. */
export function limitFields(body: SheetBody): FigureField[] {
  return (body.runoutLimits ?? []).flatMap((r): FigureField[] =>
    r.id === undefined
      ? []
      : [
          {
            path: `runoutLimits.${r.id}.tirMm`,
            group: 'bearings',
            label: `Runout, ${r.zone.toLowerCase()}: total at most`,
            shape: length(5),
            usual: 'manual',
            for: 'inspection',
          },
        ],
  )
}
