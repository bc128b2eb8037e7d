import { placeOf, type Outline } from '@moray/core/contact/marked'

/** A patch by its four ends, as it is set with sliders: from toe and root, to heel and top. */
export interface Ends {
  toe: number
  heel: number
  root: number
  top: number
}

const CORNERS = 16
/** An oval between its four ends. */
export const ovalOf = ({ toe, heel, root, top }: Ends): number[] =>
  Array.from({ length: CORNERS }, (_, i) => (2 * Math.PI * i) / CORNERS).flatMap((a) => [
    (toe + heel) / 2 + ((heel - toe) / 2) * Math.cos(a),
    (root + top) / 2 + ((top - root) / 2) * Math.sin(a),
  ])

export const endsOf = (outline: Outline): Ends => {
  const { extents } = placeOf(outline)
  return {
    toe: extents!.lengthMin,
    heel: extents!.lengthMax,
    root: extents!.profileMin,
    top: extents!.profileMax,
  }
}

export const pairsUp = (flat: readonly number[]): Outline =>
  Array.from({ length: flat.length / 2 }, (_, i) => [flat[2 * i]!, flat[2 * i + 1]!])
