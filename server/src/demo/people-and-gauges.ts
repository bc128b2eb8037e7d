import type { Person } from '@moray/contract/replies'

/** Strandvik Boat Pool, an invented workshop on an invented fjord. */
export const people: Person[] = [
  { id: 'ylva', name: 'Ylva Tangvik', role: 'technician' },
  { id: 'joar', name: 'Joar Skjelbu', role: 'technician' },
  { id: 'runa', name: 'Runa Holmsund', role: 'lead' },
]

export interface DemoGauge {
  id: string
  name: string
  type: string
  measures: string
  /** Ways of measuring that it is made for. */
  suits?: string[]
  /** In `unit`. */
  resolution: number
  mpe: number
  repeatability: number
  unit: string
  perTurnMm?: number
  masters?: { id: string; label: string; lengthMm: number }[]
  /** Months since the last calibration, and the interval. */
  monthsAgo: number
  interval: number
}

export const gauges: DemoGauge[] = [
  {
    id: 'g01',
    name: 'Depth gauge 1',
    type: 'Pinion-depth gauge',
    suits: ['master-drop'],
    measures: 'depth',
    resolution: 0.005,
    mpe: 0.006,
    repeatability: 0.004,
    unit: 'mm',
    perTurnMm: 1,
    masters: [
      { id: 'm40', label: '40 mm master', lengthMm: 40.002 },
      { id: 'm50', label: '50 mm master', lengthMm: 50.003 },
      { id: 'm60', label: '60 mm master', lengthMm: 59.998 },
    ],
    monthsAgo: 5,
    interval: 12,
  },
  {
    id: 'g02',
    name: 'Dial 1, metric',
    type: 'Plunger dial indicator',
    suits: ['end-play'],
    measures: 'length',
    resolution: 0.01,
    mpe: 0.01,
    repeatability: 0.005,
    unit: 'mm',
    perTurnMm: 1,
    monthsAgo: 4,
    interval: 12,
  },
  {
    id: 'g03',
    name: 'Dial 2, inch',
    type: 'Plunger dial indicator',
    suits: ['end-play'],
    measures: 'length',
    resolution: 0.0254,
    mpe: 0.0254,
    repeatability: 0.008,
    unit: 'mm',
    perTurnMm: 2.54,
    monthsAgo: 14,
    interval: 12,
  },
  {
    id: 'g04',
    name: 'Lever indicator',
    type: 'Lever indicator',
    measures: 'length',
    resolution: 0.002,
    mpe: 0.004,
    repeatability: 0.002,
    unit: 'mm',
    perTurnMm: 0.2,
    monthsAgo: 2,
    interval: 12,
  },
  {
    id: 'g05',
    name: 'Backlash arm with dial',
    type: 'Backlash arm',
    suits: ['backlash'],
    measures: 'length',
    resolution: 0.01,
    mpe: 0.01,
    repeatability: 0.006,
    unit: 'mm',
    perTurnMm: 1,
    monthsAgo: 3,
    interval: 12,
  },
  {
    id: 'g06',
    name: 'Micrometer 0 to 25',
    type: 'Outside micrometer',
    measures: 'length',
    resolution: 0.001,
    mpe: 0.002,
    repeatability: 0.001,
    unit: 'mm',
    monthsAgo: 6,
    interval: 12,
  },
  {
    id: 'g07',
    name: 'Depth micrometer',
    type: 'Depth micrometer',
    suits: ['arbor'],
    measures: 'length',
    resolution: 0.01,
    mpe: 0.004,
    repeatability: 0.004,
    unit: 'mm',
    monthsAgo: 6,
    interval: 12,
  },
  {
    id: 'g08',
    name: 'Feeler set',
    type: 'Feeler set',
    suits: ['feeler-block'],
    measures: 'length',
    resolution: 0.01,
    mpe: 0.005,
    repeatability: 0.005,
    unit: 'mm',
    monthsAgo: 8,
    interval: 24,
  },
  {
    id: 'g09',
    name: 'Beam wrench 0 to 3 Nm',
    type: 'Beam torque wrench',
    measures: 'torque',
    resolution: 0.05,
    mpe: 0.06,
    repeatability: 0.03,
    unit: 'Nm',
    monthsAgo: 7,
    interval: 12,
  },
  {
    id: 'g10',
    name: 'Click wrench 10 to 100 Nm',
    type: 'Click torque wrench',
    measures: 'torque',
    resolution: 0.5,
    mpe: 3,
    repeatability: 1,
    unit: 'Nm',
    monthsAgo: 5,
    interval: 12,
  },
  {
    id: 'g11',
    name: 'Pressure tester',
    type: 'Pressure and vacuum pump',
    measures: 'pressure',
    resolution: 0.5,
    mpe: 1,
    repeatability: 0.3,
    unit: 'kPa',
    monthsAgo: 9,
    interval: 12,
  },
  {
    id: 'g12',
    name: 'Surface thermometer',
    type: 'Thermometer',
    measures: 'temperature',
    resolution: 0.1,
    mpe: 0.5,
    repeatability: 0.1,
    unit: '°C',
    monthsAgo: 10,
    interval: 24,
  },
]
