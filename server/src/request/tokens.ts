import { createHash, randomBytes } from 'node:crypto'

/** Letters and digits that are not taken for one another. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTVWXYZ23456789'
const CODE_LENGTH = 12

/** A code for one pairing: read off a screen if it must be, and never guessed (59 bits). */
export function pairingCode(): string {
  let code = ''
  // bytes that would make some letters likelier than others are left out
  while (code.length < CODE_LENGTH)
    for (const b of randomBytes(CODE_LENGTH))
      if (b < 256 - (256 % ALPHABET.length) && code.length < CODE_LENGTH)
        code += ALPHABET[b % ALPHABET.length]
  return code
}

/** What a device or a session is known by; only its hash is kept. */
export const newToken = (): string => randomBytes(32).toString('base64url')
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex')

/** A code as it was typed: without blanks and hyphens, in capitals. */
export const asTyped = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '')
