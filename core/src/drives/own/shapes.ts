import type { FigureShape } from './figure-field.ts'

/** Shapes of figures, by their quantity and what can be at most. */
export const length = (max: number, range = false, min = 0): FigureShape => ({
  is: 'quantity',
  quantity: 'length',
  min,
  max,
  ...(range ? { range } : {}),
})
export const torque = (max: number) =>
  ({ is: 'quantity', quantity: 'torque', range: true, min: 0, max }) as const
/** Torque of a fastener: manuals print a range, or one figure. */
export const FASTENER_TORQUE = { ...torque(5000), single: true } as const
export const pressure = (max: number): FigureShape => ({
  is: 'quantity',
  quantity: 'pressure',
  min: -100,
  max,
})
export const angle = (min: number, max: number): FigureShape => ({
  is: 'quantity',
  quantity: 'angle',
  min,
  max,
})
export const count = (min: number, max: number, unit: '' | 'teeth' = ''): FigureShape => ({
  is: 'number',
  unit,
  whole: true,
  min,
  max,
})
export const words = (max = 120): FigureShape => ({ is: 'words', max })
export const choice = (options: Record<string, string>): FigureShape => ({
  is: 'choice',
  options: Object.entries(options).map(([value, label]) => ({ value, label })),
})
