import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'

const root = resolve(import.meta.dirname, '../..')
const running: ChildProcess[] = []
const folders: string[] = []

/** One server more than the one that all tests share, with settings of its own. @returns its address */
export async function server(env: Record<string, string>): Promise<string> {
  const data = mkdtempSync(join(tmpdir(), 'moray-e2e-'))
  folders.push(data)
  const child = spawn(process.execPath, ['tools/start.mjs'], {
    cwd: root,
    env: { ...process.env, PORT: '0', MORAY_DATA: data, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  running.push(child)
  return new Promise((ready, failed) => {
    let text = ''
    child.stdout!.on('data', (d) => {
      text += String(d)
      const url = /http:\S+/.exec(text)?.[0]
      if (url) ready(url)
    })
    child.on('exit', () => failed(new Error('the server ended')))
  })
}

/** Ends the servers that were started and still run: files that share a worker share the list. What they wrote goes with them. */
export async function endServers(): Promise<void> {
  await Promise.all(
    running.splice(0).map((child) => {
      if (child.exitCode !== null || child.signalCode !== null) return undefined
      child.kill('SIGTERM')
      return new Promise((done) => child.on('exit', done))
    }),
  )
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true, force: true })
}
