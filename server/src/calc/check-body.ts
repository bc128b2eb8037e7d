import { checkedBody } from '@moray/contract/bodies'
import { endpoints } from '@moray/contract/endpoints'
import { raisedIn } from '@moray/contract/sheet/raised'
import { readJson } from '../http/body.ts'

/**
 * Checks the body of what is written at a path with its class.
 * @param path of the contract, with its parameters' names
 * @returns the body as it is taken, as JSON text
 * @throws InputError when the body is refused, `broken-json` when it is no JSON
 */
export function checkBody(path: string, text: string): string {
  const body = readJson(text)
  return JSON.stringify(checkedBody({ path }, path === endpoints.importSheet.path ? raisedIn(body) : body))
}
