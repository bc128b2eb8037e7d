/** What the pair wants of its depth, while it is being found: by which way, and the points of a search as they were typed. */
export interface RideDraft {
  as: 'ride-height' | 'loose-pair'
  points: { place: string; ride: string }[]
}
