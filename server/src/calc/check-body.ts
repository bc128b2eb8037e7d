import { checkedBody } from '@moray/contract/bodies'
import { readJson } from '../http/body.ts'

/**
 * Checks the body of what is written at a path with its class.
 * @param path of the contract, with its parameters' names
 * @returns the body as it is taken, as JSON text
 * @throws InputError when the body is refused, `broken-json` when it is no JSON
 */
export const checkBody = (path: string, text: string): string =>
  JSON.stringify(checkedBody({ path }, readJson(text)))
