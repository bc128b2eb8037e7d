/**
 * The one rule for text that anybody sends: well-formed, no control characters but line feed, none that turn the direction of
 * writing. What the database cannot keep, and what would show something else than it holds, is refused before it gets there.
 */

/** C0, DEL and C1 without line feed; direction overrides and isolates (U+202A–E, U+2066–9); line and paragraph separators. */
// eslint-disable-next-line no-control-regex -- the point of it
const FORBIDDEN = /[\u0000-\u0009\u000b-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069]/u
/** Something that can be seen: a letter, a digit, punctuation or a sign. */
const VISIBLE = /[\p{L}\p{N}\p{P}\p{S}]/u

/** What is wrong with the characters of a text; undefined when nothing is. */
export function textProblem(text: string): string | undefined {
  if (!text.isWellFormed()) return 'holds half a character (a lone surrogate); type it again'
  const found = FORBIDDEN.exec(text)
  if (found) {
    const code = found[0].codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')
    return `holds the character U+${code}, which cannot be kept; take it out (a line feed is allowed)`
  }
  return undefined
}

/** Whether anybody could see anything of it. */
export const isVisible = (text: string): boolean => VISIBLE.test(text)

/** An id as it may stand in a path or name a field: letters, digits, and . _ : -. */
export const ID_PATTERN = /^[\w.:-]{1,80}$/
