import { figureAt, type BodyMesh, type SheetBody } from './body.ts'
import { flankFields } from './flank-figures.ts'
import { closingFields, fillingFields, tightnessFields } from './closing-figures.ts'
import { likeOf, toothFigure } from './geometry.ts'
import type { FigureField, FigureShape } from './figure-field.ts'
import { bearingFields, limitFields } from './bearing-figures.ts'
import { measureFields } from './measure-figures.ts'
import { angle, choice, count, length } from './shapes.ts'

/**
 * Every figure that this sheet can hold, in the order in which a manual gives them: what the entry asks for, what the list of what is missing
 * names, and what a job asks for at the place where it is needed. Which there are follows from what the drive is made of.
 */
export function figureFields(body: SheetBody): FigureField[] {
  return [
    ...gearFields(body),
    ...measureFields(body),
    ...stackFields(body),
    ...bearingFields(body),
    ...limitFields(body),
    ...closingFields(body),
    ...tightnessFields(body),
    ...fillingFields(body),
  ]
}

/** Figures that the sheet needs for what it is made of, and has not. */
export function lackingIn(body: SheetBody): string[] {
  return figureFields(body)
    .filter((f) => (f.for !== undefined || f.drawn) && figureAt(body, f.path) === undefined)
    .map((f) => f.path)
}

function gearFields(body: SheetBody): FigureField[] {
  const counted = body.meshes.filter((m) => !m.mesh)
  return [
    ...body.gears.map((g): FigureField => ({
      path: `gears.${g.id}.teeth`,
      group: 'gears',
      label: `${g.label}: teeth`,
      shape: count(3, 300, 'teeth'),
      usual: 'counted',
      place: `gear:${g.id}`,
      for: 'inspection',
    })),
    ...(counted.length
      ? body.gears.map((g): FigureField => ({
          path: `gears.${g.id}.outsideMm`,
          group: 'gears',
          label: `${g.label}: outside diameter`,
          help: 'Calliper over the tips at the thick end. One gear of a pair is enough, both are better.',
          shape: length(1000, false, 5),
          usual: 'measured',
          place: `gear:${g.id}`,
        }))
      : []),
    ...body.gears.map((g): FigureField => ({
      path: `gears.${g.id}.faceTirMm`,
      group: 'gears',
      label: `${g.label}: runout of its face at most`,
      help: 'Total, read along the axis near the rim.',
      shape: length(2, false, 0.001),
      usual: 'manual',
      place: `gear:${g.id}`,
      otherwise: 'its face is not read',
    })),
    // pairs on one pinion are cut alike: what differs in the second may be typed, and is asked for last
    ...counted.filter((m) => !likeOf(body, m)).flatMap((m) => toothFields(body, m)),
    ...counted.filter((m) => likeOf(body, m)).flatMap((m) => toothFields(body, m)),
    ...flankFields(body),
  ]
}

function toothFields(body: SheetBody, m: BodyMesh): FigureField[] {
  const like = likeOf(body, m)
  const as = like ? { otherwise: `as the ${like.label.toLowerCase()}` } : {}
  const field = (
    name: string,
    label: string,
    shape: FigureShape,
    more: Partial<FigureField>,
  ): FigureField => ({
    path: `meshes.${m.id}.${name}`,
    group: 'gears',
    label: `${m.label}: ${label}`,
    shape,
    usual: 'measured',
    place: `gear:${m.gear}`,
    ...more,
    ...as,
  })
  return [
    field('form', 'teeth are', choice({ spiral: 'curved', straight: 'straight' }), {}),
    field('faceWidthMm', 'face width', length(300, false, 0.5), {
      help: 'Calliper along a tooth, from its thick end to its thin end.',
    }),
    ...(toothFigure(body, m, 'form') === 'straight'
      ? []
      : [
          field('spiralAngleDeg', 'spiral angle in the middle of the face', angle(0, 60), {
            otherwise: '35° ± 5° is assumed',
          }),
        ]),
    field('pressureAngleDeg', 'pressure angle', angle(10, 40), {
      usual: 'manual',
      otherwise: '20° ± 2.5° is assumed',
    }),
  ]
}

function stackFields(body: SheetBody): FigureField[] {
  const backlash = body.measures.filter((m) => m.kind === 'backlash')
  return body.adjusters.flatMap((a): FigureField[] => {
    const at = `adjusters.${a.id}`
    const place = `stack:${a.id}`
    if (a.kind === 'threaded')
      return [
        {
          path: `${at}.leadMm`,
          group: 'stacks',
          label: `${a.label}: pitch of the thread, per turn`,
          shape: length(20, false, 0.1),
          usual: 'measured',
          place,
        },
        {
          path: `${at}.notches`,
          group: 'stacks',
          label: `${a.label}: notches round it`,
          shape: count(1, 200),
          usual: 'counted',
          place,
        },
      ]
    const moved = body.gears.find((g) => g.id === a.moves)
    const crushes = a.setBy === 'crush'
    return [
      ...(moved && !crushes
        ? [
            {
              path: `${at}.effect`,
              group: 'stacks' as const,
              label: `${a.label}: a thicker stack pushes the ${moved.label.toLowerCase()}`,
              shape: {
                is: 'choice' as const,
                options: [
                  { value: -1, label: 'into the mesh' },
                  { value: 1, label: 'away from it' },
                ],
              },
              usual: 'manual' as const,
              place,
              for: 'setting' as const,
            },
          ]
        : []),
      {
        path: `${at}.startMm`,
        group: 'stacks',
        label: `${a.label}: to begin with`,
        shape: length(50),
        usual: 'manual',
        place,
        otherwise: 'what is found in the case',
        drawn: true,
      },
      {
        path: `${at}.maxPieces`,
        group: 'stacks',
        label: `${a.label}: pieces at most`,
        shape: count(1, 8),
        usual: 'manual',
        place,
        otherwise: '6',
      },
      ...(moved && !crushes
        ? backlash
            .filter((m) => touches(body, m.mesh, moved.id))
            .map((m): FigureField => ({
              path: `${at}.rules.${m.id}`,
              group: 'stacks',
              label: `${a.label}, 1 mm or 1 in thicker: ${m.label.toLowerCase()} changes by`,
              help: "The manual's own rule, where it has one: minus where it gets less. 0.025 less shim for 0.03 less backlash is 1.2. It takes the place of the geometry.",
              shape: { is: 'number', unit: '', whole: false, min: -10, max: 10 },
              usual: 'manual',
              place,
            }))
        : []),
    ]
  })
}

/** Whether a gear is one of the pair. */
export const touches = (body: SheetBody, mesh: string, gear: string): boolean =>
  body.meshes.some((m) => m.id === mesh && (m.pinion === gear || m.gear === gear))
