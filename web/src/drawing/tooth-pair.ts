import { meshGeometry, type Mesh } from '@moray/core/gears/mesh'
import { toothShape, type Point3, type ToothShape } from '@moray/core/contact/tooth-shape'
import {
  BufferGeometry,
  Color,
  DoubleSide,
  Float32BufferAttribute,
  Group,
  Mesh as Body,
  MeshBasicMaterial,
} from 'three'

/** Colours of the picture, as the page has them. */
export interface PairInk {
  gear: string
  pinion: string
  edge: string
  lit: string
  patch: string
}

const ALONG = 18
const UP = 8
/** Teeth of the gear that are shown, the middle one with its patch. */
const GEAR_TEETH = [-2, -1, 0, 1, 2]
const PINION_TEETH = [-1, 0, 1]

type Quad = [Point3, Point3, Point3, Point3]
interface Face {
  quad: Quad
  colour: string
}

const steps = (n: number) => Array.from({ length: n }, (_, i) => i)
const share = (i: number, n: number) => -1 + (2 * i) / n

/** Ray casting; lines of a patch are short and closed. */
function inside(line: readonly [number, number][], x: number, y: number): boolean {
  let within = false
  line.forEach(([ax, ay], i) => {
    const [bx, by] = line[(i + 1) % line.length]!
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) within = !within
  })
  return within
}

function turned([x, y, z]: Point3, by: number): Point3 {
  const [c, s] = [Math.cos(by), Math.sin(by)]
  return [x * c - y * s, x * s + y * c, z]
}

/** Faces of one tooth: both flanks, the land on top, the ends. */
function toothFaces(
  tooth: ToothShape,
  by: number,
  colourOf: (side: 1 | -1, along: number, up: number) => string,
  land: string,
): Face[] {
  const at = (along: number, up: number, side: 1 | -1) => turned(tooth.at(along, up, side), by)
  const faces: Face[] = []
  for (const side of [1, -1] as const)
    for (const i of steps(ALONG))
      for (const k of steps(UP)) {
        const [a, b, u, v] = [share(i, ALONG), share(i + 1, ALONG), share(k, UP), share(k + 1, UP)]
        faces.push({
          quad: [at(a, u, side), at(b, u, side), at(b, v, side), at(a, v, side)],
          colour: colourOf(side, (a + b) / 2, (u + v) / 2),
        })
      }
  for (const i of steps(ALONG)) {
    const [a, b] = [share(i, ALONG), share(i + 1, ALONG)]
    faces.push({ quad: [at(a, 1, 1), at(b, 1, 1), at(b, 1, -1), at(a, 1, -1)], colour: land })
  }
  for (const end of [-1, 1])
    for (const k of steps(UP)) {
      const [u, v] = [share(k, UP), share(k + 1, UP)]
      faces.push({ quad: [at(end, u, 1), at(end, v, 1), at(end, v, -1), at(end, u, -1)], colour: land })
    }
  return faces
}

/** The root between two teeth. */
function rootFaces(tooth: ToothShape, by: number, colour: string): Face[] {
  return steps(ALONG).map((i) => {
    const [a, b] = [share(i, ALONG), share(i + 1, ALONG)]
    const left = (along: number) => turned(tooth.at(along, -1, 1), by)
    const right = (along: number) => turned(tooth.at(along, -1, -1), by + tooth.pitchAngle)
    return { quad: [left(a), left(b), right(b), right(a)], colour }
  })
}

function bodyOf(faces: readonly Face[], opacity = 1): Body {
  const geometry = new BufferGeometry()
  const positions: number[] = []
  const colours: number[] = []
  for (const { quad, colour } of faces) {
    const { r, g, b } = new Color(colour)
    for (const corner of [0, 1, 2, 0, 2, 3]) {
      positions.push(...quad[corner]!)
      colours.push(r, g, b)
    }
  }
  geometry.setAttribute('position', new Float32BufferAttribute(positions, 3))
  geometry.setAttribute('color', new Float32BufferAttribute(colours, 3))
  return new Body(
    geometry,
    new MeshBasicMaterial({ vertexColors: true, side: DoubleSide, opacity, transparent: opacity < 1 }),
  )
}

/** What is drawn, and where its ends are, for the words beside it. */
export interface ToothPair {
  group: Group
  /** Ends of the tooth with the patch: along −1 toe to +1 heel, up −1 root to +1 top, on the flank that is lit. */
  place: (along: number, up: number) => Point3
  /** Straight out of the middle of the lit flank. */
  out: Point3
  centre: Point3
}

/**
 * A few teeth of the gear with those of the pinion lifted out of them, the patch on the lit flank of the middle one.
 * @param side of the lit flank, as the core counts it
 * @param outline of the patch on that flank
 */
export function toothPair(
  mesh: Mesh,
  side: 1 | -1,
  outline: readonly [number, number][] | undefined,
  ink: PairInk,
): ToothPair {
  const gear = toothShape(mesh, 'gear')
  const group = new Group()
  const plain = () => ink.gear
  const painted = (s: 1 | -1, along: number, up: number) => {
    if (s !== side) return ink.gear
    return outline?.length && inside(outline, along, up) ? ink.patch : ink.lit
  }
  const teeth = GEAR_TEETH.flatMap((n) => [
    ...toothFaces(gear, n * gear.pitchAngle, n === 0 ? painted : plain, ink.edge),
    ...rootFaces(gear, n * gear.pitchAngle, ink.edge),
  ])
  group.add(bodyOf(teeth))

  const pinion = toothShape(mesh, 'pinion')
  const mate = PINION_TEETH.flatMap((n) =>
    toothFaces(pinion, (n + 0.5) * pinion.pitchAngle, () => ink.pinion, ink.pinion),
  )
  const body = bodyOf(mate, 0.28)
  // both cones touch along the line at which the middle tooth stands; the pinion is lifted straight off it
  const g = meshGeometry(mesh)
  const shaft = ((mesh.shaftAngleDeg ?? 90) * Math.PI) / 180
  body.rotation.set(0, shaft, Math.PI, 'YXZ')
  const lift = 0.8 * (g.outerConeDistanceMm - g.innerConeDistanceMm)
  body.position.set(Math.cos(gear.coneAngle) * lift, 0, -Math.sin(gear.coneAngle) * lift)
  group.add(body)

  const place = (along: number, up: number) => gear.at(along, up, side)
  const [toe, heel, root, top] = [place(-0.5, 0), place(0.5, 0), place(0, -0.5), place(0, 0.5)]
  const along = heel.map((v, i) => v - toe[i]!) as Point3
  const up = top.map((v, i) => v - root[i]!) as Point3
  const normal: Point3 = [
    along[1] * up[2] - along[2] * up[1],
    along[2] * up[0] - along[0] * up[2],
    along[0] * up[1] - along[1] * up[0],
  ]
  const size = Math.hypot(...normal)
  const middle = place(0, 0)
  // out of the tooth: the way in which the flank stands off the middle of the tooth
  const inward = gear.at(0, 0, side === 1 ? -1 : 1)
  const facing = normal.reduce((sum, v, i) => sum + v * (middle[i]! - inward[i]!), 0) >= 0 ? 1 : -1
  return { group, place, out: normal.map((v) => (facing * v) / size) as Point3, centre: middle }
}
