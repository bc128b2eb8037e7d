import { PERSON_HEADER } from '@moray/contract/endpoints'
import { Refusal } from '../http/refusal.ts'
import type { Who } from './who.ts'

/** @throws Refusal always: nobody known writes */
export function mustBeSomebody(person: string): never {
  throw new Refusal(
    422,
    'no-person',
    person === ''
      ? 'Say who is working: choose a name at the top of the page.'
      : `Nobody here is called "${person}"; choose a name at the top of the page.`,
    [{ path: PERSON_HEADER, message: 'names nobody who works here' }],
  )
}

/** @throws Refusal always: nobody writes under this name without having said its code */
export function mustSayCode(): never {
  throw new Refusal(
    401,
    'code-needed',
    'Under this name a code is asked for first. What you typed is still there; say the code, then send it again.',
    [{ path: PERSON_HEADER, message: 'has a code that was not said on this device' }],
  )
}

/**
 * Signing requires the code to have been said within the last two minutes; an older session is not enough.
 * @returns whether it is signed; a name without a code signs nothing
 */
export function signedBy(who: Who, what: string): boolean {
  if (who.code === 'today')
    throw new Refusal(
      401,
      'code-needed',
      `${what} is signed with the code of your name: say it, then do it again.`,
      [{ path: PERSON_HEADER, message: 'has a code that was not said for this signature' }],
    )
  return who.code === 'now'
}

/** What only the lead may do, the lead does in a request of his own. @throws Refusal 403 */
export function mustBeLead(who: Who, what: string): void {
  if (who.role !== 'lead')
    throw new Refusal(
      403,
      'lead-only',
      `${what} is for the lead of this shop: let him choose his name and do it.`,
      [{ path: PERSON_HEADER, message: 'is not the lead' }],
    )
}
