import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startBuilt } from '../server/tests/built-server.ts'

export interface Server {
  url: string
  /** Ends it; what it wrote goes with it. */
  end: () => Promise<void>
}

/**
 * Starts the built server on a folder of its own.
 * @param env settings of it
 * @param shop a folder whose shop it goes on with; without one it begins anew
 */
export async function startServer(env: Record<string, string>, shop?: string): Promise<Server> {
  const data = mkdtempSync(join(tmpdir(), 'moray-e2e-'))
  if (shop !== undefined) cpSync(shop, data, { recursive: true })
  const { url, end } = await startIn(data, env)
  return {
    url,
    async end() {
      await end()
      rmSync(data, { recursive: true, force: true })
    },
  }
}

/** Starts the built server in a folder that stays when it ends. */
export async function startIn(data: string, env: Record<string, string> = {}): Promise<Server> {
  const { url, end } = await startBuilt(data, env)
  return { url, end: () => end('SIGTERM') }
}
