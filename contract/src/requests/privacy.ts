import { Text } from '../fields/decorators.ts'

/** Takes the name of an owner out of what is kept; the technical record stays. */
export class RemoveOwner {
  @Text({ what: 'owner', min: 1, max: 120 })
  owner!: string

  @Text({ what: 'why', min: 3, max: 300 })
  reason!: string
}
