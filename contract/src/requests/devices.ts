import { Flag, Text } from '../fields/decorators.ts'

export class BeginPairing {
  @Flag({ what: 'a code is wanted' })
  wanted!: boolean
}

export class PairDevice {
  @Text({ what: 'code that a known device shows', min: 4, max: 40 })
  code!: string

  @Text({ what: 'what this device is called', min: 2, max: 60 })
  name!: string
}

export class RevokeDevice {
  @Text({ what: 'why', min: 3, max: 300 })
  reason!: string
}

/** Four digits that somebody says before he writes; empty, and none are asked for. */
export class SetCode {
  @Text({ what: 'the code, four digits', max: 4 })
  code!: string
}

export class SayCode {
  @Text({ what: 'the code', min: 4, max: 4 })
  code!: string
}
