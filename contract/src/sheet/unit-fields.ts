import { ATTITUDE_ACTS, type AttitudeAct } from '@moray/core/drives/further'
import { Flag, Many, Num, One, OneOf, RowId, Text, Texts, Whole } from '../fields/decorators.ts'
import { AnswerTable } from '../fields/tables.ts'

const DURING = Object.keys(ATTITUDE_ACTS) as AttitudeAct[]
const GEARS = ['neutral', 'forward', 'reverse'] as const

export class AllowedDropFields {
  @Num({ what: 'may drop by; 0 is no drop', unit: 'kPa', min: 0, max: 100 })
  kpa!: number

  @Num({
    what: 'in so many minutes; the whole hold where left out',
    unit: 'min',
    min: 0.5,
    max: 1440,
    optional: true,
  })
  minutes?: number
}

/** How a case is proved tight with air. */
export class TestRow {
  @OneOf({ what: 'which test', values: ['case', 'joined'] })
  id!: 'case' | 'joined'

  @Texts({ what: 'ports to be blocked', most: 20, optional: true })
  ports?: string[]

  @Num({ what: 'pressure of the first look', unit: 'kPa', min: 0, max: 400, optional: true })
  lowKpa?: number

  @Num({ what: 'test pressure', unit: 'kPa', min: -100, max: 400, optional: true })
  workKpa?: number

  @Num({ what: 'never above', unit: 'kPa', min: -100, max: 500, optional: true })
  maxKpa?: number

  @Num({ what: 'held for', unit: 'min', min: 0.5, max: 1440, optional: true })
  holdMin?: number

  @One(() => AllowedDropFields, { what: 'what a manual allows it to drop by', optional: true })
  allowedDrop?: AllowedDropFields

  @Num({ what: 'leak rate allowed', unit: 'ml/min', min: 0.001, max: 100, optional: true })
  allowedMlPerMin?: number

  @Num({ what: 'volume of the joined unit', unit: 'ml', min: 1, max: 100_000, optional: true })
  volumeMl?: number

  @Text({ what: 'what is moved meanwhile', max: 200, optional: true })
  turns?: string

  @Text({ what: 'why there is no pressure test', max: 200, optional: true })
  noTest?: string
}

export class LabourFields {
  @Num({ what: 'opening', unit: 'h', min: 0, max: 200 })
  openHours!: number

  @Num({ what: 'setting', unit: 'h', min: 0, max: 200 })
  setHours!: number

  @Num({ what: 'closing', unit: 'h', min: 0, max: 200 })
  closeHours!: number
}

export class WholeUnit {
  @Num({ what: 'price', min: 0, max: 1e6 })
  price!: number

  @Whole({ what: 'days until it arrives', min: 0, max: 1000 })
  waitDays!: number
}

export class LeverRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @OneOf({ what: 'act', values: ['opening', 'closing', 'joining', 'measuring'] })
  act!: 'opening' | 'closing' | 'joining' | 'measuring'

  @OneOf({ what: 'gear', values: GEARS })
  gear!: (typeof GEARS)[number]

  @Text({ what: 'rod or lever', max: 120, optional: true })
  rod?: string

  @Num({ what: 'height of the rod', unit: 'mm', min: -1000, max: 1000, optional: true })
  heightMm?: number
}

export class AttitudeRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'act', min: 1, max: 80 })
  act!: string

  @OneOf({ what: 'the work that it belongs to', values: DURING, optional: true })
  during?: AttitudeAct

  @Text({ what: 'which way up', min: 1, max: 80 })
  up!: string

  @Text({ what: 'what falls out when it is turned', max: 120, optional: true })
  falls?: string
}

/** What the unit says in single lines. */
export class UnitRemarks {
  @Texts({ what: 'cautions of the sheet', most: 20, long: 300, optional: true })
  cautions?: string[]

  @Text({ what: 'trim tab', max: 120, optional: true })
  trimTab?: string

  @RowId({ what: 'sheet of its other half', optional: true })
  partner?: string

  @Text({ what: 'where the plate is', max: 120, optional: true })
  plateAt?: string

  @Text({ what: 'where the stamps are', max: 120, optional: true })
  stampsAt?: string

  @One(() => WholeUnit, { what: 'exchange unit', optional: true })
  exchange?: WholeUnit

  @One(() => WholeUnit, { what: 'used unit', optional: true })
  used?: WholeUnit
}

/** What belongs to the unit, and not to one of its rows. */
export class UnitFields extends UnitRemarks {
  @OneOf({ what: 'gear in which it is opened', values: GEARS, optional: true })
  openGear?: (typeof GEARS)[number]

  @Flag({ what: 'it is shifted', optional: true })
  shifts?: boolean

  @Flag({ what: 'water shows at a telltale', optional: true })
  telltale?: boolean

  @Num({ what: 'weight', unit: 'kg', min: 0.5, max: 2000, optional: true })
  weightKg?: number

  @One(() => LabourFields, { what: 'labour', optional: true })
  hours?: LabourFields

  @Many(() => LeverRow, { what: 'rod and lever at each act', most: 12, optional: true })
  levers?: LeverRow[]

  @Many(() => AttitudeRow, { what: 'which way up for an act', most: 20, optional: true })
  attitudes?: AttitudeRow[]
}

/** What a sheet was brought up from. */
export class UpgradedFields {
  @Whole({ what: 'format that it had', min: 1, max: 100 })
  from!: number

  @AnswerTable({ what: 'which single fact of it is which row now' })
  rows!: Record<string, string>
}
