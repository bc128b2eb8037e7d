import { GAUGE_KIND_IDS, type GaugeKindId } from '@moray/core/measuring/gauge-kinds'
import { Day, Flag, Many, Num, One, OneOf, Text, Whole } from '../fields/decorators.ts'

/** A setting master with the length that was measured, which is seldom the one that is stamped on it. */
export class MasterOfGauge {
  @Text({ what: 'what is marked on it', min: 1, max: 40 })
  label!: string

  @Num({ what: 'measured length', unit: 'mm', min: 0.1, max: 1000 })
  lengthMm!: number
}

export class WrenchAdapter {
  @Text({ what: 'what it is called', min: 1, max: 40 })
  label!: string

  @Num({ what: 'from the drive to the fastener', unit: 'mm', min: 0, max: 1000 })
  lengthMm!: number
}

/** What a torque wrench reaches, and the lengths that count with an adapter on it. */
export class WrenchFigures {
  @Num({ what: 'smallest torque of its range', unit: 'Nm', min: 0, max: 5000 })
  fromNm!: number

  @Num({ what: 'largest torque of its range', unit: 'Nm', min: 0.01, max: 5000 })
  toNm!: number

  @Num({ what: 'from the drive to the middle of the grip', unit: 'mm', min: 20, max: 3000, optional: true })
  lengthMm?: number

  @Many(() => WrenchAdapter, { what: 'its adapters', most: 20 })
  adapters!: WrenchAdapter[]
}

/** What may change in the life of a gauge; readings keep it as it was when they were taken. */
export class GaugeFigures {
  @Num({ what: 'smallest step it shows, in the unit of its kind', min: 0.00001, max: 1000 })
  resolution!: number

  @Num({ what: 'largest permissible error, in the unit of its kind', min: 0, max: 1000 })
  mpe!: number

  @Num({ what: 'standard deviation of repeated readings, in the unit of its kind', min: 0, max: 1000 })
  repeatability!: number

  @Num({ what: 'travel for one turn of the pointer', unit: 'mm', min: 0.01, max: 100, optional: true })
  perTurnMm?: number

  @Many(() => MasterOfGauge, { what: 'setting masters', most: 20 })
  masters!: MasterOfGauge[]

  @One(() => WrenchFigures, { what: 'of a torque wrench: range, length, adapters', optional: true })
  wrench?: WrenchFigures

  @Whole({ what: 'months between calibrations', min: 1, max: 120 })
  intervalMonths!: number
}

export class AddGauge {
  @OneOf({ what: 'kind', values: GAUGE_KIND_IDS })
  kind!: GaugeKindId

  @Text({ what: 'what the shop calls it', min: 2, max: 60 })
  name!: string

  @One(() => GaugeFigures, { what: 'its figures' })
  figures!: GaugeFigures

  @Day({ what: 'day of the last calibration; left out, not known', optional: true })
  calibratedOn?: string
}

export class ChangeGauge {
  @One(() => GaugeFigures, { what: 'its figures from now on' })
  figures!: GaugeFigures

  @Text({ what: 'why they change', min: 3, max: 300 })
  reason!: string
}

export class CalibrateGauge {
  @Day({ what: 'day of the calibration' })
  on!: string

  @Text({ what: 'by whom, and what was found', min: 3, max: 300 })
  note!: string
}

export class RetireGauge {
  @Flag({ what: 'it takes no more readings; false, it does again' })
  retired!: boolean

  @Text({ what: 'why', min: 3, max: 300 })
  reason!: string
}
