import type { Quantity } from '../units/factors.ts'

/** What is true of every gauge of one kind; the single gauge adds its own figures. */
export interface GaugeKind {
  label: string
  /** What it measures; `depth` is a length from a master. */
  measures: 'depth' | 'length' | 'torque' | 'pressure' | 'temperature'
  quantity: Quantity
  /** Canonical unit of its figures and readings. */
  unit: 'mm' | 'Nm' | 'kPa' | '°C'
  /** Ways of measuring that it is made for, by id, the first choice first. */
  suits: readonly string[]
  /** It has a pointer that goes round: so much travel for a turn. */
  dial: boolean
  /** It is set on masters of a known length. */
  masters: boolean
  /** It reads to an arbor, whose measured diameter counts where the shop has its own. */
  arbors?: boolean
  /** Figures of a usual one, in `unit`: proposed, never taken without being seen. */
  usual: UsualFigures
  /** The same of one for an inch shop, in its own unit; as `usual` where left out. */
  usualInch?: UsualFigures & { unit: 'in' | 'in-lb' | 'ft-lb' | 'psi' }
}

interface UsualFigures {
  resolution: number
  mpe: number
  repeatability: number
}

const length = { measures: 'length', quantity: 'length', unit: 'mm', dial: false, masters: false } as const
const torque = {
  measures: 'torque',
  quantity: 'torque',
  unit: 'Nm',
  suits: [],
  dial: false,
  masters: false,
} as const

/** Kinds of gauges by id. Usual figures: workshop-grade instruments; the certificate of the single one stands above them. */
export const GAUGE_KINDS = {
  'depth-gauge': {
    ...length,
    label: 'Pinion-depth gauge',
    measures: 'depth',
    suits: ['master-drop'],
    dial: true,
    masters: true,
    usual: { resolution: 0.005, mpe: 0.006, repeatability: 0.004 },
    usualInch: { unit: 'in', resolution: 0.0005, mpe: 0.0005, repeatability: 0.0002 },
  },
  'plunger-dial': {
    ...length,
    label: 'Plunger dial indicator',
    suits: ['end-play', 'backlash'],
    dial: true,
    usual: { resolution: 0.01, mpe: 0.01, repeatability: 0.005 },
    usualInch: { unit: 'in', resolution: 0.001, mpe: 0.001, repeatability: 0.0005 },
  },
  'lever-dial': {
    ...length,
    label: 'Lever indicator',
    suits: ['end-play', 'backlash'],
    dial: true,
    usual: { resolution: 0.002, mpe: 0.004, repeatability: 0.002 },
    usualInch: { unit: 'in', resolution: 0.0001, mpe: 0.0002, repeatability: 0.0001 },
  },
  'backlash-arm': {
    ...length,
    label: 'Backlash arm',
    suits: ['backlash'],
    dial: true,
    usual: { resolution: 0.01, mpe: 0.01, repeatability: 0.006 },
    usualInch: { unit: 'in', resolution: 0.001, mpe: 0.001, repeatability: 0.0005 },
  },
  'outside-micrometer': {
    ...length,
    label: 'Outside micrometer',
    suits: [],
    usual: { resolution: 0.001, mpe: 0.002, repeatability: 0.001 },
    usualInch: { unit: 'in', resolution: 0.0001, mpe: 0.0001, repeatability: 0.00005 },
  },
  'depth-micrometer': {
    ...length,
    label: 'Depth micrometer',
    arbors: true,
    suits: ['arbor', 'seat'],
    usual: { resolution: 0.01, mpe: 0.004, repeatability: 0.004 },
    usualInch: { unit: 'in', resolution: 0.001, mpe: 0.0002, repeatability: 0.0002 },
  },
  'feeler-set': {
    ...length,
    label: 'Feeler set',
    suits: ['feeler-block', 'crush'],
    usual: { resolution: 0.01, mpe: 0.005, repeatability: 0.005 },
    usualInch: { unit: 'in', resolution: 0.001, mpe: 0.0002, repeatability: 0.0002 },
  },
  'beam-wrench': {
    ...torque,
    suits: ['rolling-torque'],
    label: 'Beam torque wrench',
    usual: { resolution: 0.05, mpe: 0.06, repeatability: 0.03 },
    usualInch: { unit: 'in-lb', resolution: 0.5, mpe: 0.5, repeatability: 0.25 },
  },
  'click-wrench': {
    ...torque,
    label: 'Click torque wrench',
    usual: { resolution: 0.5, mpe: 3, repeatability: 1 },
    usualInch: { unit: 'ft-lb', resolution: 0.5, mpe: 2, repeatability: 1 },
  },
  'pressure-tester': {
    label: 'Pressure and vacuum pump',
    measures: 'pressure',
    quantity: 'pressure',
    unit: 'kPa',
    suits: [],
    dial: false,
    masters: false,
    usual: { resolution: 0.5, mpe: 1, repeatability: 0.3 },
    usualInch: { unit: 'psi', resolution: 0.1, mpe: 0.2, repeatability: 0.05 },
  },
  thermometer: {
    label: 'Thermometer',
    measures: 'temperature',
    quantity: 'temperature',
    unit: '°C',
    suits: [],
    dial: false,
    masters: false,
    usual: { resolution: 0.1, mpe: 0.5, repeatability: 0.1 },
  },
} as const satisfies Record<string, GaugeKind>

export type GaugeKindId = keyof typeof GAUGE_KINDS
export const GAUGE_KIND_IDS = Object.keys(GAUGE_KINDS) as GaugeKindId[]
export const kindOfGauge = (id: GaugeKindId): GaugeKind => GAUGE_KINDS[id]
