/**
 * Standard normal distribution.
 *
 * erf and erfc after W. J. Cody, "Rational Chebyshev approximations for the error function",
 * Math. Comp. 23 (1969) 631-637; relative error below 1.2e-16 in exact arithmetic, a few ulp here.
 */
const SMALL_P = [
  3.20937758913846947e3, 3.77485237685302021e2, 1.13864154151050156e2, 3.1611237438705656,
  1.85777706184603153e-1,
]
const SMALL_Q = [2.84423683343917062e3, 1.28261652607737228e3, 2.44024637934444173e2, 2.36012909523441209e1]
const MID_P = [
  1.23033935479799725e3, 2.05107837782607147e3, 1.71204761263407058e3, 8.8195222124176909e2,
  2.98635138197400131e2, 6.61191906371416295e1, 8.88314979438837594, 5.64188496988670089e-1,
  2.15311535474403846e-8,
]
const MID_Q = [
  1.23033935480374942e3, 3.43936767414372164e3, 4.36261909014324716e3, 3.29079923573345963e3,
  1.62138957456669019e3, 5.37181101862009858e2, 1.17693950891312499e2, 1.57449261107098347e1,
]
const FAR_P = [
  6.58749161529837803e-4, 1.60837851487422766e-2, 1.25781726111229246e-1, 3.60344899949804439e-1,
  3.05326634961232344e-1, 1.63153871373020978e-2,
]
const FAR_Q = [
  2.33520497626869185e-3, 6.05183413124413191e-2, 5.27905102951428412e-1, 1.87295284992346047,
  2.56852019228982242,
]
const ONE_OVER_SQRT_PI = 0.5641895835477563

/** Complementary error function, accurate in the right tail (no cancellation). */
export function erfc(x: number): number {
  const a = Math.abs(x)
  if (a <= 0.46875) {
    const z = x * x
    let top = SMALL_P[4]! * z
    let low = z
    for (let i = 3; i > 0; i--) {
      top = (top + SMALL_P[i]!) * z
      low = (low + SMALL_Q[i]!) * z
    }
    return 1 - (x * (top + SMALL_P[0]!)) / (low + SMALL_Q[0]!)
  }
  let tail: number
  if (a <= 4) {
    let top = MID_P[8]! * a
    let low = a
    for (let i = 7; i > 0; i--) {
      top = (top + MID_P[i]!) * a
      low = (low + MID_Q[i]!) * a
    }
    tail = Math.exp(-a * a) * ((top + MID_P[0]!) / (low + MID_Q[0]!))
  } else if (a < 27) {
    const z = 1 / (a * a)
    let top = FAR_P[5]! * z
    let low = z
    for (let i = 4; i > 0; i--) {
      top = (top + FAR_P[i]!) * z
      low = (low + FAR_Q[i]!) * z
    }
    tail = (Math.exp(-a * a) / a) * (ONE_OVER_SQRT_PI - (z * (top + FAR_P[0]!)) / (low + FAR_Q[0]!))
  } else tail = 0
  return x < 0 ? 2 - tail : tail
}

/**
 * Probability that a normal quantity lands in [min, max].
 * Computed in the tail on whose side the window lies, so that small probabilities keep their digits.
 * @param sigma standard deviation ≥ 0; 0 makes it a plain comparison
 */
export function probabilityInWindow(mean: number, sigma: number, min: number, max: number): number {
  if (sigma === 0) return mean >= min && mean <= max ? 1 : 0
  const k = Math.SQRT1_2 / sigma
  const low = (min - mean) * k
  const high = (max - mean) * k
  if (low > 0) return 0.5 * (erfc(low) - erfc(high))
  if (high < 0) return 0.5 * (erfc(-high) - erfc(-low))
  return 1 - 0.5 * (erfc(high) + erfc(-low))
}
