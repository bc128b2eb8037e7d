import { spawn } from 'node:child_process'
import { cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { startBuilt } from '../tests/built-server.ts'

/**
 * npm run bad-copies -- [rounds] [seed]: kills `npm run backup` and `npm run restore` without warning at chance moments, while a server writes to the shop.
 * After each round: the copy that stood there is the old one or a new whole one; the folder that was restored into holds nothing, the old shop or the
 * whole new one; what was half done is swept away; and the next try succeeds. Exit code 1 when any of that does not hold.
 */
const ROUNDS = Number(process.argv[2] ?? 20)
let seed = Number(process.argv[3] ?? 1)
const chance = () => {
  seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31
  return seed / 2 ** 31
}
const ROOT = resolve(import.meta.dirname, '../..')
const place = mkdtempSync(join(tmpdir(), 'moray-bad-copies-'))
const say = (line: string) => process.stdout.write(`${line}\n`)
let wrong = 0
const must = (holds: boolean, what: string) => {
  if (holds) return
  wrong++
  say(`WRONG: ${what}`)
}

const args = (command: string, rest: string[]) => [join(ROOT, 'server/dist', `${command}.js`), ...rest]
const env = (data: string) => ({ ...process.env, MORAY_DATA: data, MORAY_DEMO: 'on' })
/** Beside the clients, which write from this very process. */
function run(command: string, data: string, rest: string[] = []): Promise<{ ok: boolean; said: string }> {
  return new Promise((done) => {
    const child = spawn(process.execPath, args(command, rest), { env: env(data) })
    let said = ''
    child.stdout.on('data', (d) => (said += String(d)))
    child.stderr.on('data', (d) => (said += String(d)))
    child.on('close', (code) => done({ ok: code === 0, said }))
  })
}
/** Begins a command and kills it after a while. @returns whether it had ended by itself */
function killed(command: string, data: string, rest: string[], afterMs: number): Promise<boolean> {
  return new Promise((done) => {
    const child = spawn(process.execPath, args(command, rest), { env: env(data), stdio: 'ignore' })
    const timer = setTimeout(() => child.kill('SIGKILL'), afterMs)
    child.on('exit', (code) => {
      clearTimeout(timer)
      done(code === 0)
    })
  })
}
const hash = (file: string) => createHash('sha256').update(readFileSync(file)).digest('hex')
const halves = (folder: string) => readdirSync(folder).filter((n) => n.includes('.half'))

const shop = join(place, 'shop')
const server = await startBuilt(shop, { MORAY_DEMO: 'short' })
let writing = true
let acknowledged = 0
const clients = [1, 2, 3, 4].map(async (n) => {
  while (writing) {
    const r = await fetch(`${server.url}/api/drawer/s00${n}/add`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        'x-moray-person': 'ylva',
        'x-moray-request': crypto.randomUUID(),
      },
      body: '{"pieces":1}',
    })
    if (r.status === 201) acknowledged++
    await new Promise((next) => setTimeout(next, 20))
  }
})

const file = join(place, 'copy.zip')
const began = Date.now()
must((await run('backup', shop, [file])).ok, 'the first copy')
const usual = Date.now() - began
say(`a copy takes ${usual} ms here; ${acknowledged} writes acknowledged meanwhile`)

let cut = 0
for (let round = 1; round <= ROUNDS; round++) {
  const before = hash(file)
  if (!(await killed('backup', shop, [file], 100 + chance() * usual))) cut++
  const proved = await run('restore', join(place, `proof-${round}`), [file])
  must(proved.ok, `round ${round}: the copy that stands there comes back: ${proved.said}`)
  if (hash(file) !== before) say(`round ${round}: the new copy was there already`)

  const into = join(place, `into-${round}`)
  const over = round % 2 === 0
  if (over) cpSync(join(place, `proof-${round}`), into, { recursive: true })
  const word = over
    ? [
        '--over',
        (JSON.parse(readFileSync(join(into, 'moray.json'), 'utf8')) as { shop: string }).shop.slice(0, 8),
      ]
    : []
  if (!(await killed('restore', into, [file, ...word], 100 + chance() * usual))) cut++
  // whatever it holds now is whole
  if (existsSync(join(into, 'moray.json')) && existsSync(join(into, 'pg'))) {
    const check = await run('check', into)
    must(check.ok, `round ${round}: what lies there is whole: ${check.said}`)
  } else
    must(!over || existsSync(join(into, 'restoring.json')), `round ${round}: the old shop is still there`)
  const again = await run('restore', into, [
    file,
    ...(word.length ? word : ['--over', proved.said ? idOf(into) : '']),
  ])
  must(again.ok, `round ${round}: the next try: ${again.said}`)
  must((await run('check', into)).ok, `round ${round}: the check after it`)
  must(halves(into).length === 0, `round ${round}: nothing half done is left`)
  rmSync(into, { recursive: true, force: true })
  rmSync(join(place, `proof-${round}`), { recursive: true, force: true })
}
function idOf(folder: string): string {
  const mark = join(folder, 'moray.json')
  return existsSync(mark) ? (JSON.parse(readFileSync(mark, 'utf8')) as { shop: string }).shop.slice(0, 8) : ''
}
must((await run('backup', shop, [file])).ok, 'a copy after all of it')
must(halves(shop).length === 0 && halves(place).length === 0, 'nothing half written is left')
writing = false
await Promise.all(clients)
await server.end('SIGTERM')
must((await run('check', shop)).ok, 'the shop itself')
say(`${ROUNDS} rounds, ${cut} of ${2 * ROUNDS} cut off, ${acknowledged} writes acknowledged; ${wrong} wrong`)
rmSync(place, { recursive: true, force: true })
process.exit(wrong ? 1 : 0)
