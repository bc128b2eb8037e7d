/**
 * 95 % points of the chi-square distribution for 1 to 16 degrees of freedom (Abramowitz & Stegun, Handbook of Mathematical Functions, 1964,
 * table 26.8).
 */
const AT_95 = [
  3.841, 5.991, 7.815, 9.488, 11.07, 12.592, 14.067, 15.507, 16.919, 18.307, 19.675, 21.026, 22.362, 23.685,
  24.996, 26.296,
]

/**
 * What the sum of so many squared standard normal deviations stays below in 95 of 100.
 * @param freedom degrees of freedom, 1 or more; beyond the table by Wilson and Hilferty (Proc. Nat. Acad. Sci. 17, 1931, 684)
 */
export function chiSquare95(freedom: number): number {
  const listed = AT_95[freedom - 1]
  if (listed !== undefined) return listed
  const a = 2 / (9 * freedom)
  return freedom * (1 - a + 1.6449 * Math.sqrt(a)) ** 3
}
