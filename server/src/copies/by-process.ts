import { spawn, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import type { WhichShop } from './make-copy.ts'

/**
 * Makes copies by the command `npm run backup` in a process of its own: it opens a second database, packs, and proves, and the server goes on answering.
 * @param from import.meta.url of the server's own first file
 */
export function byProcess({ data, url }: WhichShop, from: string) {
  const running = new Set<ChildProcess>()
  const command = from.endsWith('.ts')
    ? ['--import', 'tsx', fileURLToPath(new URL('./commands/backup.ts', from))]
    : [fileURLToPath(new URL('./backup.js', from))]
  return {
    make: (file: string) =>
      new Promise<void>((done, failed) => {
        const child = spawn(process.execPath, [...command, file], {
          env: { ...process.env, MORAY_DATA: data, DATABASE_URL: url ?? '' },
          stdio: ['ignore', 'ignore', 'pipe'],
        })
        running.add(child)
        let said = ''
        child.stderr.on('data', (d) => (said = (said + String(d)).slice(-4000)))
        child.on('error', failed)
        child.on('close', (code) => {
          running.delete(child)
          if (code === 0) done()
          else failed(new Error(said.trim() || `the copying ended with ${code}`))
        })
      }),
    /** Ends what is under way; a copy that is not whole has no name yet. */
    stop: () => running.forEach((c) => c.kill('SIGTERM')),
  }
}
