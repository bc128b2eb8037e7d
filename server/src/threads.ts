import { fileURLToPath } from 'node:url'

/**
 * File of a thread: while we run from source one of server/threads, which reads TypeScript, otherwise the built file beside main.js.
 * @param name of the thread's file, without its ending
 * @param from import.meta.url of the caller
 */
export function threadFile(name: 'pglite-worker' | 'worker', from: string): string {
  return fileURLToPath(
    from.endsWith('.ts') ? new URL(`../threads/${name}.mjs`, import.meta.url) : new URL(`./${name}.js`, from),
  )
}
