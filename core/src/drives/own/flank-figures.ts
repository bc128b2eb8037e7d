import type { BodyMesh, SheetBody } from './body.ts'
import type { FigureField } from './figure-field.ts'
import { toothFigure } from './geometry.ts'

const SAYS = ['pushed', 'pinionHand', 'pinionTurns'] as const
type SaysPushed = Pick<BodyMesh, (typeof SAYS)[number]>

/** What is said of the flank that a pair is pushed on: its own, or that of another pair on the same pinion, whose gears are pushed alike. */
export function pushedAsSaid(body: SheetBody, m: BodyMesh): SaysPushed {
  const saying = [m, ...body.meshes.filter((x) => x.pinion === m.pinion)].find((x) =>
    SAYS.some((name) => x[name] !== undefined),
  )
  return Object.fromEntries(
    SAYS.flatMap((name) => (saying?.[name] === undefined ? [] : [[name, saying[name]]])),
  )
}

/**
 * The fields for it, for the first pair of every pinion with curved teeth: the flank as somebody sees it on the drive, or hand and turning as the
 * manual prints them.
 */
export function flankFields(body: SheetBody): FigureField[] {
  return body.meshes
    .filter((m, i) => body.meshes.findIndex((x) => x.pinion === m.pinion) === i)
    .filter((m) => (m.mesh ? Boolean(m.mesh.spiralAngleDeg) : toothFigure(body, m, 'form') !== 'straight'))
    .flatMap((m) => {
      const field = (
        name: (typeof SAYS)[number],
        label: string,
        options: Record<string, string>,
        more: Pick<FigureField, 'help' | 'usual' | 'otherwise'>,
      ): FigureField => ({
        path: `meshes.${m.id}.${name}`,
        group: 'gears',
        label: `${m.label}: ${label}`,
        shape: {
          is: 'choice',
          options: Object.entries(options).map(([value, text]) => ({ value, label: text })),
        },
        place: `gear:${m.pinion}`,
        ...more,
      })
      return [
        field(
          'pushed',
          'flank of the gear that is pushed ahead',
          { concave: 'the hollow one (concave)', convex: 'the round one (convex)' },
          {
            usual: 'measured',
            help: 'Turn the driveshaft the way the engine does, in forward: the pinion pushes one side of each gear tooth.',
            otherwise: 'by hand and turning of the pinion; asked before a pattern is read',
          },
        ),
        field(
          'pinionHand',
          'hand of the pinion',
          { left: 'left', right: 'right' },
          {
            usual: 'counted',
            help: 'Pinion upright before you, its small end up: teeth that lean to the left are left hand.',
            otherwise: 'by the flank that is pushed',
          },
        ),
        field(
          'pinionTurns',
          'way the pinion turns ahead',
          { clockwise: 'clockwise', anticlockwise: 'anticlockwise' },
          {
            usual: 'manual',
            help: 'Seen from behind it, from its shaft.',
            otherwise: 'by the flank that is pushed',
          },
        ),
      ]
    })
}
