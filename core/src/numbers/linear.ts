/**
 * Solves a small symmetric positive definite system by Cholesky (the matrices here are normal equations, which are
 * positive definite unless the unknowns cannot be told apart).
 * @param matrix rows; only the lower half is read
 * @returns undefined when a pivot falls below 10⁻¹² of its own diagonal: the unknowns cannot be told apart
 */
export function solveSymmetric(matrix: readonly number[][], right: readonly number[]): number[] | undefined {
  const n = matrix.length
  const lower = matrix.map((row) => row.slice())
  for (let i = 0; i < n; i++)
    for (let k = 0; k <= i; k++) {
      let sum = lower[i]![k]!
      for (let j = 0; j < k; j++) sum -= lower[i]![j]! * lower[k]![j]!
      if (i === k) {
        if (!(sum > 1e-12 * matrix[i]![i]!)) return undefined
        lower[i]![i] = Math.sqrt(sum)
      } else lower[i]![k] = sum / lower[k]![k]!
    }
  const x = right.slice()
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= lower[i]![k]! * x[k]!
    x[i]! /= lower[i]![i]!
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= lower[k]![i]! * x[k]!
    x[i]! /= lower[i]![i]!
  }
  return x
}
