import { fileURLToPath } from 'node:url'

/**
 * File of a thread: the TypeScript source while we run from source, the built file of the same name beside main.js otherwise.
 * @param path of the source below src, without its ending
 * @param from import.meta.url of the caller
 */
export function threadFile(path: string, from: string): string {
  const isSource = from.endsWith('.ts')
  const here = isSource ? import.meta.url : from
  return fileURLToPath(new URL(isSource ? `./${path}.ts` : `./${path.split('/').at(-1)}.js`, here))
}
