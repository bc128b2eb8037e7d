import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'

const ROOT = join(import.meta.dirname, '../..')
const settings = (folder: string, env: Record<string, string> = {}) => ({
  ...process.env,
  PORT: '0',
  MORAY_DATA: folder,
  ...env,
})

export interface BuiltServer {
  url: string
  child: ChildProcess
  /** Ends it, and waits until it is gone. */
  end: (signal: NodeJS.Signals) => Promise<void>
}

/** Starts the built server on a folder, with settings of its own. @throws Error when it ends before it answers */
export function startBuilt(folder: string, env?: Record<string, string>): Promise<BuiltServer> {
  const child = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: ROOT,
    env: settings(folder, env),
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const ended = new Promise<void>((done) => child.on('exit', () => done()))
  return new Promise((ready, failed) => {
    let said = ''
    child.stdout.on('data', (d) => {
      said += String(d)
      const url = /ready at (http:\S+)/.exec(said)?.[1]
      if (url)
        ready({
          url,
          child,
          end(signal) {
            child.kill(signal)
            return ended
          },
        })
    })
    void ended.then(() => failed(new Error('the server ended')))
  })
}

/** Reads every row and picture of a folder. @returns how the check ended (0: all is well), and what it said */
export function checkBuilt(folder: string): { status: number | null; said: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['server/dist/check.js'], {
    cwd: ROOT,
    env: settings(folder),
    encoding: 'utf8',
  })
  return { status, said: stdout + stderr }
}
