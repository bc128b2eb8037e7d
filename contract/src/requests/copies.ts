import { Flag, Text } from '../fields/decorators.ts'

/** Where copies go, and whether one is made each night. */
export class SetCopies {
  @Text({
    what: 'folder on the machine that Moray runs on; left out, beside the data',
    max: 400,
    optional: true,
  })
  folder?: string

  @Flag({ what: 'a copy each night' })
  nightly!: boolean
}

/** A copy now. */
export class MakeCopy {
  @Flag({ what: 'a copy is wanted' })
  wanted!: boolean
}

/** Brings a copy of the shop's folder back into an empty shop. */
export class BringBackCopy {
  @Text({ what: 'name of the copy', min: 1, max: 200 })
  name!: string
}
