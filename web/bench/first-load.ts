import { resolve } from 'node:path'
import { gzipSync } from 'node:zlib'
import { build, type Rolldown } from 'vite'

/**
 * npm run bench, last part: what a browser loads before the Bench is there (scripts and styles, compressed; fonts not counted), and whether any code of
 * the route, the sheets, contact or charts is in it. Exits with 1 when it is more than it may be.
 */
const MOST_BYTES = 150_000
const NOT_IN_IT =
  /core\/src\/(route\/(?!stage-names)|drives|contact|setting)|contract\/src\/(sheet|requests)\/|web\/src\/charts\/|node_modules\/(echarts|three)\//
const ENTRY = 'index.html'

const root = resolve(import.meta.dirname, '..')
process.chdir(root)
const built = (await build({ root, logLevel: 'error', build: { write: false } })) as Rolldown.RolldownOutput
const chunks = new Map(built.output.map((o) => [o.fileName, o]))
const isChunk = (o: (typeof built.output)[number]) => o.type === 'chunk'
const of = (module: string) =>
  built.output.filter(isChunk).find((c) => c.facadeModuleId?.endsWith(module))?.fileName

const entry = of(ENTRY)
if (!entry) throw new Error(`no chunk begins with ${ENTRY}`)
const loaded = new Set<string>()
const load = (name: string) => {
  const file = chunks.get(name)
  if (!file || loaded.has(name)) return
  loaded.add(name)
  if (file.type !== 'chunk') return
  file.imports.forEach(load)
  const { viteMetadata } = file as typeof file & { viteMetadata?: { importedCss: Set<string> } }
  viteMetadata?.importedCss.forEach(load)
}
load(entry)

let bytes = 0
const strangers: string[] = []
for (const name of loaded) {
  const file = chunks.get(name)!
  const size = gzipSync(file.type === 'chunk' ? file.code : file.source, { level: 9 }).length
  bytes += size
  process.stdout.write(`${JSON.stringify({ firstLoad: name, bytes: size })}\n`)
  if (file.type === 'chunk')
    for (const [id, { renderedLength }] of Object.entries(file.modules))
      if (renderedLength && NOT_IN_IT.test(id)) strangers.push(id)
}
process.stdout.write(
  `${JSON.stringify({ firstLoad: 'all', files: loaded.size, bytes, most: MOST_BYTES, strangers })}\n`,
)
if (bytes > MOST_BYTES || strangers.length) process.exitCode = 1
