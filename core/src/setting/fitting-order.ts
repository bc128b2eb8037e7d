/**
 * The order in which the pieces of a stack go in: the two thickest to the outside, thin ones between them, since a thin
 * piece next to a bearing cups and tears.
 */
export function fittingOrder<P extends { thicknessMm: number }>(pieces: readonly P[]): P[] {
  const [thickest, second, ...rest] = [...pieces].sort((a, b) => b.thicknessMm - a.thicknessMm)
  if (!thickest) return []
  return second ? [thickest, ...rest, second] : [thickest]
}
