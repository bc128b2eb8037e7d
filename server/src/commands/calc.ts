import { readFileSync } from 'node:fs'
import { createInterface } from 'node:readline'
import { InputError } from '@moray/core/checks/input-error'
import {
  calculate,
  calculation,
  calculations,
  describeCalculation,
} from '@moray/contract/calculations/registry'
import { errorBody, type ErrorBody } from '@moray/contract/errors'

/**
 * `calc NAME < input.json`, `calc NAME --lines`, `calc list`, `calc describe NAME`.
 * Results on standard output; errors as JSON on standard error with exit code 2 (bad input) or 1 (our fault).
 */
const USAGE = 'calc NAME < input.json | calc NAME --lines < many.jsonl | calc list | calc describe NAME'

function asError(e: unknown): ErrorBody {
  if (e instanceof InputError) return errorBody(e.code, e.message, e.fields)
  if (e instanceof SyntaxError) return errorBody('broken-json', `the input is not JSON: ${e.message}`)
  return errorBody('internal', e instanceof Error ? e.message : String(e))
}

function fail(e: unknown): never {
  const body = asError(e)
  process.stderr.write(`${JSON.stringify(body)}\n`)
  process.exit(body.error.code === 'internal' ? 1 : 2)
}

const print = (value: unknown) => process.stdout.write(`${JSON.stringify(value)}\n`)

async function lines(name: string) {
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
    if (line.trim() === '') continue
    try {
      print(calculate(name, JSON.parse(line)))
    } catch (e) {
      print(asError(e))
    }
  }
}

// the reader of our output may stop early (`… | head`)
process.stdout.on('error', (e: NodeJS.ErrnoException) => process.exit(e.code === 'EPIPE' ? 0 : 1))

const [name, second] = process.argv.slice(2)
try {
  if (!name) throw new InputError('usage', [{ path: '', message: USAGE }])
  if (name === 'list') calculations.forEach((c) => process.stdout.write(`${c.name}\n`))
  else if (name === 'describe') print(describeCalculation(second ?? ''))
  else if (second === '--lines') {
    calculation(name)
    await lines(name)
  } else if (second !== undefined)
    throw new InputError('usage', [{ path: second, message: `is not understood; ${USAGE}` }])
  else print(calculate(name, JSON.parse(readFileSync(0, 'utf8'))))
} catch (e) {
  fail(e)
}
