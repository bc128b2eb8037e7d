import type { PieceCut } from '@moray/core/setting/shim-problem'

/** The shim drawer: [as marked, measured mm, pieces]. Metric trays A and B, inch trays C and D; some lines are empty. */
const METRIC: [string, number, number][] = [
  ['0.05', 0.051, 6],
  ['0.08', 0.079, 4],
  ['0.10', 0.101, 5],
  ['0.12', 0.12, 3],
  ['0.15', 0.149, 6],
  ['0.18', 0.181, 2],
  ['0.20', 0.2, 5],
  ['0.22', 0.221, 0],
  ['0.25', 0.249, 4],
  ['0.28', 0.281, 2],
  ['0.30', 0.301, 4],
  ['0.33', 0.331, 1],
  ['0.35', 0.349, 3],
  ['0.38', 0.379, 1],
  ['0.40', 0.402, 4],
  ['0.45', 0.448, 2],
  ['0.50', 0.501, 4],
  ['0.55', 0.55, 2],
  ['0.60', 0.599, 3],
  ['0.65', 0.652, 0],
  ['0.70', 0.7, 2],
  ['0.80', 0.801, 2],
  ['0.90', 0.902, 1],
  ['1.00', 1.001, 2],
]
const INCH: [string, number, number][] = [
  ['2t', 0.0512, 4],
  ['3t', 0.0758, 5],
  ['4t', 0.1012, 3],
  ['5t', 0.1274, 4],
  ['6t', 0.1526, 0],
  ['7t', 0.1782, 2],
  ['8t', 0.2028, 3],
  ['10t', 0.2544, 4],
  ['12t', 0.3051, 2],
  ['14t', 0.3552, 1],
  ['17t', 0.4321, 3],
  ['18t', 0.457, 0],
  ['20t', 0.5083, 2],
  ['24t', 0.6093, 1],
  ['28t', 0.7108, 1],
  ['32t', 0.8126, 2],
]

export interface DemoLine {
  id: string
  place: string
  text: string
  thicknessMm: number
  count: number
  cut?: PieceCut
}

/** Blanks for spacers: no stack of the demo's drives takes them as they are. */
const BLANKS: Pick<DemoLine, 'text' | 'thicknessMm' | 'count' | 'cut'>[] = [
  { text: '6.10', thicknessMm: 6.104, count: 3, cut: { kind: 'ground', stepMm: 0.01, minMm: 5 } },
]

export const drawerLines: DemoLine[] = [
  ...METRIC.map(([text, thicknessMm, count], i) => ({
    text,
    thicknessMm,
    count,
    place: `${i < 12 ? 'A' : 'B'}${(i % 12) + 1}`,
  })),
  ...INCH.map(([text, thicknessMm, count], i) => ({
    text,
    thicknessMm,
    count,
    place: `${i < 8 ? 'C' : 'D'}${(i % 8) + 1}`,
  })),
  ...BLANKS.map((line) => ({ ...line, place: 'E1' })),
].map((line, i) => ({ id: `s${String(i + 1).padStart(3, '0')}`, ...line }))
