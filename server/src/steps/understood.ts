import type { CloseStep } from '@moray/contract/requests/route'
import { InputError } from '@moray/core/checks/input-error'
import { honestOf } from '@moray/core/route/honest'
import type { Answers } from '@moray/core/route/complete'
import type { Step } from '@moray/core/route/route'
import { parseReading } from '@moray/core/units/notation'
import { numberExample, numberIn } from '@moray/core/units/plain-number'

/** Numbers typed in bench notation become canonical; the text is kept beside them. */
export function understood(
  step: Step,
  raw: CloseStep['answers'],
): { answers: Answers; texts: Record<string, string> } {
  const answers: Answers = {}
  const texts: Record<string, string> = {}
  for (const [fact, value] of Object.entries(raw)) {
    const ask = step.asks.find((a) => a.fact === fact)
    if (ask?.kind !== 'number' || typeof value !== 'string' || honestOf(value)) {
      answers[fact] = value
      continue
    }
    if (value.trim() === '') continue
    texts[fact] = value.trim()
    answers[fact] = numberOf(`answers.${fact}`, value.trim(), ask)
  }
  return { answers, texts }
}

function numberOf(
  path: string,
  text: string,
  ask: Extract<Step['asks'][number], { kind: 'number' }>,
): number {
  if (ask.quantity) {
    try {
      return parseReading({ text, quantity: ask.quantity }).value
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      throw new InputError(
        e.code,
        e.fields.map((f) => ({ path, message: f.message })),
      )
    }
  }
  const value = numberIn(text, ask.unit)
  if (value !== undefined) return value
  throw new InputError('invalid-input', [
    { path, message: `"${text}" is not understood; ${numberExample(ask.unit)} is` },
  ])
}
