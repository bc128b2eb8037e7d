/**
 * How sure an edge is: said, taken from what an older sheet or the family implies and confirmed by nobody, or asked about and not known. An edge that
 * nobody has spoken of is not in its map.
 */
export type Sure = true | 'assumed' | 'unknown'

/** Edges of a row to other rows by their ids. A map, so that a variant can patch one of them; stored at one end only, the inverse is derived. */
export type Edges = Record<string, Sure>

/** Ids of the edges that are there, said or assumed; those that are not known are left out. */
export const edgesOf = (edges: Edges | undefined): string[] =>
  Object.entries(edges ?? {}).flatMap(([id, sure]) => (sure === 'unknown' ? [] : [id]))

/** Edges that were said. */
export const said = (...ids: string[]): Edges => Object.fromEntries(ids.map((id) => [id, true]))

/** Edges that are taken for granted until somebody confirms them. */
export const assumed = (...ids: string[]): Edges => Object.fromEntries(ids.map((id) => [id, 'assumed']))

/** A field with edges, or nothing where there are none. */
export const ifAny = <K extends string>(name: K, edges: Edges): { [k in K]?: Edges } =>
  Object.keys(edges).length ? ({ [name]: edges } as { [k in K]?: Edges }) : {}
