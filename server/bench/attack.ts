import { mkdtempSync } from 'node:fs'
import { setPriority, tmpdir } from 'node:os'
import { join } from 'node:path'
import { once } from 'node:events'
import { Worker } from 'node:worker_threads'
import { endpoints } from '@moray/contract/endpoints'
import type { AnyEndpoint } from '@moray/contract/endpoint'
import { calculations } from '@moray/contract/calculations/registry'
import { examples } from '@moray/contract/calculations/examples'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { describeClass } from '@moray/contract/fields/describe'
import { GOOD, HOSTILE, pathOf, pathsOf, put, writes } from '../tests/hostile-values.ts'
import { checkBuilt, startBuilt } from '../tests/built-server.ts'

/**
 * npm run attack [requests] [seed]: the built server as somebody tries it who means it no good. Every route, field by field, with values that nobody
 * means, in whole bodies, ids, queries, headers and methods, several at once; meanwhile its health is asked all the time. Afterwards the folder is
 * checked row by row. Prints one JSON line; ends with 1 where a request was answered with an error of ours, or the folder does not hold together.
 */
const [wanted = 20_000, seed = Date.now() % 100_000] = process.argv.slice(2).map(Number)
const AT_ONCE = 8

let state = seed >>> 0
function random(): number {
  state = (state + 0x6d2b79f5) | 0
  let t = Math.imul(state ^ (state >>> 15), 1 | state)
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296
}
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!

interface Shot {
  method: string
  path: string
  body?: string | Uint8Array
  headers: Record<string, string>
}

/** A field at any depth becomes something that nobody means; now and then two of them, or the whole. */
function spoil(good: object, fields: string[][]): string {
  if (!fields.length || random() < 0.05) return pick(HOSTILE)
  let text = JSON.stringify(put(good, pick(fields), '@@')).replace('"@@"', () => pick(HOSTILE))
  if (random() < 0.1) text = text.slice(0, Math.floor(random() * text.length))
  return text
}

const bodies = writes
  .filter(([name]) => !['leaveDemo', 'setCode', 'beginPairing', 'makeCopy'].includes(name))
  .map(([name, endpoint, body]) => ({
    path: pathOf(endpoint),
    good: GOOD[name]!,
    fields: pathsOf(describeClass(body)),
  }))
const sums = calculations.map((c) => ({
  path: `/api/calc/${c.name}`,
  good: examples[c.name] ?? {},
  fields: c.inputs.flatMap((i) => pathsOf(describeClass(i))),
}))
const reads = Object.values(endpoints as Record<string, AnyEndpoint>).flatMap((e) =>
  e.method === 'POST' || e.path.includes('live') ? [] : [e.path],
)
const IDS = [
  '%00',
  '%ED%A0%80',
  '..%2f..%2fetc',
  '1e3',
  'a%20b',
  "'%20or%201=1",
  'x'.repeat(3000),
  '%F0%9F%90%9F',
  '-1',
  '999999999999999',
  '2147483648',
]
const PEOPLE = ['runa', 'ylva', 'joar', '', 'nobody', '\u00e5se', 'a'.repeat(500)]

/** A picture whose bytes were changed, cut off or put beside it, for a place that may not be there. */
function spoiltPicture(headers: Record<string, string>): Shot {
  const bytes = Buffer.from(PNG)
  for (let n = Math.floor(random() * 6); n > 0; n--)
    bytes[Math.floor(random() * bytes.length)] = random() * 256
  const cut = random() < 0.3 ? bytes.subarray(0, Math.floor(random() * bytes.length)) : bytes
  const body = random() < 0.3 ? Buffer.concat([cut, Buffer.alloc(Math.floor(random() * 9000), 0xff)]) : cut
  const place = `subject=${pick(['job', 'step', 'part', 'grade', 'mood'])}&of=${pick([...IDS, '', 'pinion', 'drain'])}`
  return {
    method: 'POST',
    path: `/api/jobs/rordrum/files?${place}`,
    body,
    headers: { ...headers, 'content-type': 'application/octet-stream' },
  }
}
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
)

/** A sheet whose variant patches something that nobody means, or a table of any size. */
function spoiltSheet(headers: Record<string, string>): Shot {
  if (random() < 0.3) {
    const columns = Math.floor(random() * (random() < 0.2 ? 40_000 : 12))
    const rows = Math.floor(random() * (random() < 0.2 ? 12_000 : 150))
    const csv = `id,name,count${',x'.repeat(columns)}\n${'a,"1,200",none\n\n'.repeat(rows)}`.slice(0, 199_000)
    return {
      method: 'POST',
      path: '/api/drives/lomvi-90/lists',
      body: JSON.stringify({ list: pick(['parts', 'fasteners']), csv }),
      headers,
    }
  }
  const sheet = SHEETS[Math.floor(random() * SHEETS.length)]!
  const list = pick(Object.keys(sheet))
  const rows = (sheet as unknown as Record<string, unknown>)[list]
  const row = Array.isArray(rows) ? pick(rows as { id?: string }[]) : undefined
  const value = '@@'
  const patch = row?.id
    ? { [list]: { [row.id]: random() < 0.5 ? value : { [pick(Object.keys(row))]: value } } }
    : { [list]: value }
  const variants = [{ id: 'late', label: 'Late', patch }]
  const body = JSON.stringify({ sheet: { ...sheet, id: 'spoilt', variants }, anew: true })
  return { method: 'POST', path: '/api/sheets', body: body.replace('"@@"', () => pick(HOSTILE)), headers }
}
const SHEETS = demoSheets.map((s) => bodyOf(s))

function shot(): Shot {
  const headers: Record<string, string> = {
    'content-type': random() < 0.97 ? 'application/json' : pick(['text/plain', 'multipart/form-data', 'x']),
    'x-moray-person': encodeURIComponent(random() < 0.85 ? 'runa' : pick(PEOPLE)),
  }
  if (random() < 0.3)
    headers['x-moray-request'] = random() < 0.8 ? crypto.randomUUID() : pick(['', 'x', '0'.repeat(400)])
  const kind = random()
  if (kind < 0.04) return spoiltPicture(headers)
  if (kind < 0.08) return spoiltSheet(headers)
  if (kind < 0.55) {
    const { path, good, fields } = pick(bodies)
    return { method: 'POST', path, body: spoil(good, fields), headers }
  }
  if (kind < 0.8) {
    const { path, good, fields } = pick(sums)
    return { method: 'POST', path, body: spoil(good, fields), headers }
  }
  const path = pick(reads).replace(/:\w+/g, () => pick(IDS))
  const query = random() < 0.3 ? `?${pick(['search', 'before', 'after', 'state'])}=${pick(IDS)}` : ''
  return {
    method: random() < 0.9 ? 'GET' : pick(['PUT', 'DELETE', 'PATCH', 'POST']),
    path: path + query,
    headers,
  }
}

const folder = mkdtempSync(join(tmpdir(), 'moray-attack-'))
const server = await startBuilt(folder)
const { url } = server

const statuses = new Map<number, number>()
const faults: string[] = []
let cut = 0
let sent = 0
async function fire(): Promise<void> {
  while (sent < wanted) {
    sent++
    const { method, path, body, headers } = shot()
    try {
      const r = await fetch(url + path, {
        method,
        headers,
        ...(body === undefined ? {} : { body: body as BodyInit }),
      })
      const reply = await r.text()
      statuses.set(r.status, (statuses.get(r.status) ?? 0) + 1)
      if (r.status >= 500)
        faults.push(
          `${r.status} ${method} ${path.slice(0, 80)} ${typeof body === 'string' ? body.slice(0, 200) : ''} → ${reply.slice(0, 200)}`,
        )
    } catch {
      // a request that no client may send, or an answer cut off
      cut++
    }
  }
}
/** Asks for the server's health from a thread of its own: this one is busy making requests, and would count its own waiting. */
const watcher = new Worker(
  `const { parentPort, workerData } = require('node:worker_threads')
   const took = []
   const begun = performance.now()
   let watching = true
   parentPort.on('message', () => (watching = false))
   ;(async () => {
     // the first one loads what this thread asks with
     await fetch(workerData + '/api/health').then((r) => r.text())
     parentPort.postMessage('ready')
     while (watching) {
       const started = performance.now()
       await fetch(workerData + '/api/health').then((r) => r.text())
       took.push({ ms: performance.now() - started, at: started - begun })
       await new Promise((r) => setTimeout(r, 50))
     }
     parentPort.postMessage(took.sort((a, b) => a.ms - b.ms))
     parentPort.close()
   })()`,
  { eval: true, workerData: url },
)
await once(watcher, 'message')
// whoever attacks does so from another machine: making up the requests must not take the cores from the server (on Linux: of this thread alone)
setPriority(10)
const started = performance.now()
await Promise.all(Array.from({ length: AT_ONCE }, fire))
watcher.postMessage('enough')
const [health] = (await once(watcher, 'message')) as [{ ms: number; at: number }[]]
const seconds = (performance.now() - started) / 1000
await Promise.race([server.end('SIGTERM'), new Promise((r) => setTimeout(r, 5000))])
const check = checkBuilt(folder)
process.stdout.write(
  `${JSON.stringify({
    name: 'attack',
    seed,
    requests: sent,
    seconds: Math.round(seconds),
    statuses: Object.fromEntries([...statuses].sort(([a], [b]) => a - b)),
    notSendable: cut,
    faults: faults.length,
    healthAsked: health.length,
    healthMedianMs: Math.round(health[health.length >> 1]!.ms * 10) / 10,
    healthSlowestMs: Math.round(health.at(-1)!.ms),
    // with the second in which each was asked
    healthOver50Ms: health
      .filter(({ ms }) => ms > 50)
      .map(({ ms, at }) => `${Math.round(ms)} ms at ${Math.round(at / 100) / 10} s`),
    check: check.status,
  })}\n`,
)
for (const f of faults.slice(0, 20)) process.stderr.write(`${f}\n`)
if (check.status !== 0) process.stderr.write(check.said.slice(-4000))
process.exit(faults.length || check.status !== 0 ? 1 : 0)
