import { spawn, type ChildProcess } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, afterEach, beforeAll, expect } from 'vitest'

/** The server as a process of its own: started, killed, started again. */
export const root = resolve(import.meta.dirname, '../..')
export const scratch = mkdtempSync(join(tmpdir(), 'moray-process-'))
/** tools/test.mjs makes a shop with the demo once for all that begin with one. */
const MADE = process.env.MORAY_TEST_SHOP
/** A data folder with the demo, as its first start left it. Copied, never used itself. */
export const prepared = MADE ?? join(scratch, 'prepared')
/** tools/test.mjs has built the server a moment ago; without it the source runs. */
const BUILT = process.env.MORAY_TEST_BUILT === '1'
const running = new Set<ChildProcess>()
export const SLOW_MS = 240_000

export interface Server {
  url: string
  child: ChildProcess
  said: () => string
  stop: (signal: NodeJS.Signals) => Promise<number | null>
}

export function launch(
  folder: string,
  env: NodeJS.ProcessEnv = {},
  file: 'main' | 'check' | 'backup' | 'restore' = 'main',
  args: string[] = [],
): { child: ChildProcess; said: () => string; ended: Promise<number | null> } {
  // tsx as a loader, not as a parent: one process, so that signals and exit codes are the server's own
  const how = BUILT
    ? [`server/dist/${file}.js`]
    : ['--import', 'tsx', `server/src/${file === 'main' ? file : `commands/${file}`}.ts`]
  const child = spawn(process.execPath, [...how, ...args], {
    cwd: root,
    env: { ...process.env, PORT: '0', MORAY_DATA: folder, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  running.add(child)
  let text = ''
  child.stdout!.on('data', (d) => (text += d))
  child.stderr!.on('data', (d) => (text += d))
  const ended = new Promise<number | null>((done) =>
    child.on('exit', (code) => {
      running.delete(child)
      done(code)
    }),
  )
  return { child, said: () => text, ended }
}

export async function start(folder: string, env: NodeJS.ProcessEnv = {}): Promise<Server> {
  const { child, said, ended } = launch(folder, env)
  let over = false
  void ended.then(() => (over = true))
  for (;;) {
    const url = /ready at (http:\S+)/.exec(said())?.[1]
    if (url)
      return {
        url,
        child,
        said,
        async stop(signal) {
          child.kill(signal)
          return ended
        },
      }
    if (over) throw new Error(`the server ended: ${said()}`)
    await new Promise((r) => setTimeout(r, 50))
  }
}

/** Killed without a chance to tidy up. */
export async function killHard(server: Server) {
  const pid = server.child.pid!
  await server.stop('SIGKILL')
  // dying takes a moment; nobody starts a server faster than that by hand
  for (let i = 0; i < 200 && isRunning(pid); i++) await new Promise((r) => setTimeout(r, 25))
}

function isRunning(pid: number): boolean {
  try {
    return !/\) [ZX] /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'))
  } catch {
    return false
  }
}

export const post = (
  url: string,
  path: string,
  body: object | string,
  headers: Record<string, string> = {},
) =>
  fetch(url + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-moray-person': 'ylva', ...headers },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  })
export const get = async <T>(url: string, path: string): Promise<T> =>
  (await fetch(url + path)).json() as Promise<T>

let number = 0
export function freshFolder(): string {
  const folder = join(scratch, `data-${++number}`)
  cpSync(prepared, folder, { recursive: true })
  return folder
}

/** Call once in each file of process tests. @param last what has to be undone before the folders go */
export function useProcesses(last: () => void = () => {}) {
  beforeAll(async () => {
    if (MADE) return
    const server = await start(prepared, { MORAY_DEMO: 'short' })
    expect(await server.stop('SIGTERM')).toBe(0)
  }, SLOW_MS)
  afterEach(() => {
    for (const child of running) child.kill('SIGKILL')
  })
  afterAll(() => {
    last()
    rmSync(scratch, { recursive: true, force: true })
  })
}
