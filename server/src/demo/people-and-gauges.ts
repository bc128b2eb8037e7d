import type { Wrench } from '@moray/core/torque/wrench'
import type { Person } from '@moray/contract/replies'
import type { GaugeKindId } from '@moray/core/measuring/gauge-kinds'

/** Strandvik Boat Pool, an invented workshop on an invented fjord. */
export const people: Omit<Person, 'retired' | 'coded'>[] = [
  { id: 'ylva', name: 'Ylva Tangvik', role: 'technician' },
  { id: 'joar', name: 'Joar Skjelbu', role: 'technician' },
  { id: 'runa', name: 'Runa Holmsund', role: 'lead' },
]

export interface DemoGauge {
  id: string
  kind: GaugeKindId
  name: string
  /** Figures in the unit of the kind. */
  resolution: number
  mpe: number
  repeatability: number
  perTurnMm?: number
  masters?: { id: string; label: string; lengthMm: number }[]
  wrench?: Wrench
  /** Months since the last calibration, and the interval. */
  monthsAgo: number
  interval: number
}

export const gauges: DemoGauge[] = [
  {
    id: 'g01',
    name: 'Depth gauge 1',
    kind: 'depth-gauge',
    resolution: 0.005,
    mpe: 0.006,
    repeatability: 0.004,
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
    kind: 'plunger-dial',
    resolution: 0.01,
    mpe: 0.01,
    repeatability: 0.005,
    perTurnMm: 1,
    monthsAgo: 4,
    interval: 12,
  },
  {
    id: 'g03',
    name: 'Dial 2, inch',
    kind: 'plunger-dial',
    resolution: 0.0254,
    mpe: 0.0254,
    repeatability: 0.008,
    perTurnMm: 2.54,
    monthsAgo: 14,
    interval: 12,
  },
  {
    id: 'g04',
    name: 'Lever indicator',
    kind: 'lever-dial',
    resolution: 0.002,
    mpe: 0.004,
    repeatability: 0.002,
    perTurnMm: 0.2,
    monthsAgo: 2,
    interval: 12,
  },
  {
    id: 'g05',
    name: 'Backlash arm with dial',
    kind: 'backlash-arm',
    resolution: 0.01,
    mpe: 0.01,
    repeatability: 0.006,
    perTurnMm: 1,
    monthsAgo: 3,
    interval: 12,
  },
  {
    id: 'g06',
    name: 'Micrometer 0 to 25',
    kind: 'outside-micrometer',
    resolution: 0.001,
    mpe: 0.002,
    repeatability: 0.001,
    monthsAgo: 6,
    interval: 12,
  },
  {
    id: 'g07',
    name: 'Depth micrometer',
    kind: 'depth-micrometer',
    resolution: 0.01,
    mpe: 0.004,
    repeatability: 0.004,
    monthsAgo: 6,
    interval: 12,
  },
  {
    id: 'g08',
    name: 'Feeler set',
    kind: 'feeler-set',
    resolution: 0.01,
    mpe: 0.005,
    repeatability: 0.005,
    monthsAgo: 8,
    interval: 24,
  },
  {
    id: 'g09',
    name: 'Beam wrench 0 to 3 Nm',
    kind: 'beam-wrench',
    wrench: { fromNm: 0, toNm: 3, adapters: [] },
    resolution: 0.02,
    mpe: 0.03,
    repeatability: 0.02,
    monthsAgo: 7,
    interval: 12,
  },
  {
    id: 'g10',
    name: 'Click wrench 10 to 100 Nm',
    kind: 'click-wrench',
    wrench: {
      fromNm: 10,
      toNm: 100,
      lengthMm: 385,
      adapters: [{ label: 'Flat adapter 30', lengthMm: 45 }],
    },
    resolution: 0.5,
    mpe: 3,
    repeatability: 1,
    monthsAgo: 5,
    interval: 12,
  },
  {
    id: 'g11',
    name: 'Pressure tester',
    kind: 'pressure-tester',
    resolution: 0.5,
    mpe: 1,
    repeatability: 0.3,
    monthsAgo: 9,
    interval: 12,
  },
  {
    id: 'g12',
    name: 'Surface thermometer',
    kind: 'thermometer',
    resolution: 0.1,
    mpe: 0.5,
    repeatability: 0.1,
    monthsAgo: 10,
    interval: 24,
  },
]
