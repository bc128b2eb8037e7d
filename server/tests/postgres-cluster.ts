import { spawnSync } from 'node:child_process'
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** Folder of PostgreSQL's programs as Debian lays them, the newest version; undefined when it is not installed. */
export function postgresPrograms(): string | undefined {
  const base = '/usr/lib/postgresql'
  if (!existsSync(base)) return undefined
  const newest = readdirSync(base)
    .map(Number)
    .filter(Number.isFinite)
    .sort((a, b) => b - a)[0]
  const bin = join(base, String(newest), 'bin')
  return existsSync(join(bin, 'initdb')) ? bin : undefined
}

export interface Cluster {
  /** Address of a database on it. */
  url: (database: string) => string
  /** Stops the server, as a machine that is shut down does, or at once; its data stay. */
  halt: (mode: 'fast' | 'immediate') => void
  /** Starts it again. */
  resume: () => void
  /** Stops it for good. */
  stop: () => void
}

/**
 * A PostgreSQL server of the tests' own: a folder below /tmp with its socket in it; runs as the user postgres when we are root.
 * @param durable what it has acknowledged survives that it is stopped at once; otherwise it is quicker
 */
export function startCluster(bin: string, { durable = false } = {}): Cluster {
  const folder = mkdtempSync(join(tmpdir(), 'moray-pg-'))
  const user = process.getuid?.() === 0 ? idsOf('postgres') : undefined
  if (user) chownSync(folder, user.uid, user.gid)
  const data = join(folder, 'data')
  const run = (program: string, ...args: string[]) => {
    const result = spawnSync(join(bin, program), args, {
      ...user,
      cwd: folder,
      encoding: 'utf8',
      stdio: ['ignore', 'ignore', 'pipe'],
    })
    if (result.status !== 0) throw new Error(`${program} failed: ${result.stderr || String(result.error)}`)
  }
  run('initdb', '-D', data, '-U', 'postgres', '-A', 'trust', '--no-sync', '-E', 'UTF8', '--locale=C.UTF-8')
  const options = `-k ${folder} -c listen_addresses='' -c fsync=off -c full_page_writes=off -c max_connections=60${durable ? '' : ' -c synchronous_commit=off'}`
  const resume = () =>
    run('pg_ctl', '-D', data, '-w', '-t', '60', '-l', join(folder, 'log'), '-o', options, 'start')
  resume()
  return {
    resume,
    halt: (mode) => run('pg_ctl', '-D', data, '-m', mode, '-w', 'stop'),
    url: (database) => `socket://postgres@${folder}?db=${database}`,
    stop() {
      run('pg_ctl', '-D', data, '-m', 'immediate', 'stop')
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

function idsOf(name: string): { uid: number; gid: number } {
  const id = (flag: string) => Number(spawnSync('id', [flag, name], { encoding: 'utf8' }).stdout.trim())
  return { uid: id('-u'), gid: id('-g') }
}
