import type { Window } from '@moray/core/checks/window'

/** The stretch that a window ruler shows: the window with room on both sides, and every mark that lies outside. */
export function rulerSpan(
  window: Window,
  marks: { value: number; U: number }[],
): { from: number; to: number } {
  const { min, max } = window
  const low = min ?? 0
  const high = max ?? Math.max(low * 2, low + 1)
  const width = high - low
  let from = min === undefined ? low : low - 0.5 * width
  let to = max === undefined ? high : high + 0.5 * width
  for (const m of marks) {
    from = Math.min(from, m.value - m.U - 0.12 * width)
    to = Math.max(to, m.value + m.U + 0.12 * width)
  }
  return { from, to }
}
