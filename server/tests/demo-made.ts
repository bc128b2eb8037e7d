import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** What went wrong while a demo was made stands beside its file. */
const failure = (file: string) => `${file}.failed`

/** Has the demo made in a process of its own; the file is there when it is. @param address of a database on a PostgreSQL server that gets it too */
export function makeDemo(file: string, address?: string): ChildProcess {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', join(import.meta.dirname, 'make-demo.ts'), file, ...(address ? [address] : [])],
    { stdio: ['ignore', 'ignore', 'pipe'] },
  )
  let said = ''
  child.stderr!.on('data', (d) => (said += String(d)))
  child.on('close', (code) => code && writeFileSync(failure(file), said || `ended with ${code}`))
  return child
}

/** Waits until the demo is made. @throws Error with what its process said when it was not */
export async function demoMade(file: string): Promise<void> {
  while (!existsSync(file)) {
    if (existsSync(failure(file)))
      throw new Error(`the demo could not be made: ${readFileSync(failure(file), 'utf8')}`)
    await new Promise((r) => setTimeout(r, 50))
  }
}
