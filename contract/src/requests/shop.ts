import { Flag, Num, OneOf, Text, Texts } from '../fields/decorators.ts'

export class ChooseSchool {
  @Text({ what: 'school', min: 1, max: 40 })
  school!: string

  @Text({ what: 'choice', min: 1, max: 40 })
  choice!: string

  @Text({ what: 'why this job does it differently', optional: true, max: 300 })
  reason?: string
}

export class SetShopRules {
  @Flag({ what: 'a departure needs the lead' })
  departuresNeedLead!: boolean

  @Num({ what: 'labour per hour; left out, not known', min: 0, max: 100_000, optional: true })
  rate?: number

  @Num({ what: 'consumables of a usual job; left out, not known', min: 0, max: 1_000_000, optional: true })
  consumables?: number

  @Text({ what: 'currency; left out, not known', min: 1, max: 12, optional: true })
  currency?: string

  @OneOf({ what: 'units that are read first', values: ['metric', 'imperial'], optional: true })
  units?: 'metric' | 'imperial'

  @Text({ what: 'name and address of the shop, to head its records', max: 300, optional: true })
  heading?: string

  @Texts({ what: 'stands of the shop', least: 1, most: 40 })
  stands!: string[]
}

export class SetLikelihood {
  @Text({ what: 'finding', min: 1, max: 60 })
  finding!: string

  @Text({ what: 'cause', min: 1, max: 60 })
  cause!: string

  @Num({
    what: 'how often the finding goes with the cause; left out, as in the table',
    min: 0.005,
    max: 0.995,
    optional: true,
  })
  likelihood?: number

  @Text({ what: 'why', min: 3, max: 300 })
  reason!: string
}

/** Somebody who works here. The first one is the lead, since nobody else could say so. */
export class AddPerson {
  @Text({ what: 'name', min: 2, max: 60 })
  name!: string

  @OneOf({ what: 'role', values: ['technician', 'lead'] })
  role!: 'technician' | 'lead'
}

/** A person's name, role, and whether he still works here; what he wrote keeps his name. */
export class ChangePerson {
  @Text({ what: 'name', min: 2, max: 60 })
  name!: string

  @OneOf({ what: 'role', values: ['technician', 'lead'] })
  role!: 'technician' | 'lead'

  @Flag({ what: 'works here no more' })
  retired!: boolean
}

/** Leaves the demo: everything in it goes, an empty shop begins. */
export class LeaveDemo {
  @OneOf({ what: 'said out loud, since it cannot be taken back', values: ['leave the demo'] })
  confirm!: 'leave the demo'
}
