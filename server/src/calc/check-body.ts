import { checkedBody, type BodyClass } from '@moray/contract/endpoint'
import { endpoints } from '@moray/contract/endpoints'
import { readJson } from '../http/body.ts'

const classes = new Map<string, BodyClass<object>>()
for (const endpoint of Object.values(endpoints))
  if (endpoint.body) classes.set(endpoint.path, endpoint.body as BodyClass<object>)

/**
 * Checks the body of what is written at a path with its class.
 * @param path of the contract, with its parameters' names
 * @returns the body as it is taken, as JSON text
 * @throws InputError when the body is refused, `broken-json` when it is no JSON
 */
export function checkBody(path: string, text: string): string {
  const body = classes.get(path)
  if (!body) throw new Error(`nothing is written at ${path}`)
  return JSON.stringify(checkedBody({ body }, readJson(text)))
}
