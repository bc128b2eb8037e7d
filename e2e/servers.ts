import { spawn } from 'node:child_process'
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'

const root = resolve(import.meta.dirname, '..')

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
export function startIn(data: string, env: Record<string, string> = {}): Promise<Server> {
  const child = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, PORT: '0', MORAY_DATA: data, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const ended = new Promise<void>((done) => child.on('exit', () => done()))
  const end = () => {
    child.kill('SIGTERM')
    return ended
  }
  return new Promise((ready, failed) => {
    let text = ''
    child.stdout.on('data', (d) => {
      text += String(d)
      const url = /http:\S+/.exec(text)?.[0]
      if (url) ready({ url, end })
    })
    void ended.then(() => failed(new Error('the server ended before it answered')))
  })
}
