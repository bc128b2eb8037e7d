// node tools/prepare.mjs [install] [build] [--force]: brings a fresh clone into working order; Node built-ins only.
// A step is skipped while nothing that it depends on has changed.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const marks = join(root, 'node_modules', '.moray')
const steps = process.argv.slice(2)
const force = steps.includes('--force')
/** As the server looks for it beside itself. */
const EMPTY = 'empty-database.tar.gz'

const [major, minor] = process.versions.node.split('.').map(Number)
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`Moray needs Node 20.19 or newer; this is ${process.versions.node}.`)
  process.exit(1)
}

function filesBelow(folder, keep) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((e) => {
    if (['node_modules', 'dist', 'tests', 'bench'].includes(e.name)) return []
    const path = join(folder, e.name)
    return e.isDirectory() ? filesBelow(path, keep) : keep(path) ? [path] : []
  })
}

function hashOf(files, extra = '') {
  const hash = createHash('sha256').update(extra)
  for (const f of [...files].sort()) hash.update(f).update(readFileSync(f))
  return hash.digest('hex')
}

async function step(name, hash, done, work) {
  const mark = join(marks, name)
  if (!force && done && existsSync(mark) && readFileSync(mark, 'utf8') === hash) return
  const started = Date.now()
  process.stderr.write(`${name} …`)
  await work()
  mkdirSync(marks, { recursive: true })
  writeFileSync(mark, hash)
  process.stderr.write(` ${((Date.now() - started) / 1000).toFixed(1)} s\n`)
}

function fail(command, args, status) {
  process.stderr.write(`\nfailed: ${command} ${args.join(' ')}\n`)
  process.exit(status ?? 1)
}

function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: ['ignore', 2, 2], ...options })
  if (status !== 0) fail(command, args, status)
}

/** The same, beside others. */
function runBeside(args, options = {}) {
  return new Promise((done) => {
    const child = spawn(process.execPath, args, { cwd: root, stdio: ['ignore', 2, 2], ...options })
    child.on('close', (status) => (status === 0 ? done() : fail(process.execPath, args, status)))
  })
}

/** An empty database of the version of PGlite that is installed. It stays the same when our sources change. */
async function emptyDatabase() {
  const { version } = JSON.parse(
    readFileSync(join(root, 'node_modules/@electric-sql/pglite/package.json'), 'utf8'),
  )
  const made = join(marks, `empty-database-${version}.tar.gz`)
  mkdirSync(marks, { recursive: true })
  if (!existsSync(made)) await runBeside([join(root, 'tools/empty-database.mjs'), made])
  return made
}

if (steps.includes('install')) {
  const lock = join(root, 'package-lock.json')
  const manifests = ['.', 'core', 'contract', 'server', 'web', 'e2e'].map((w) =>
    join(root, w, 'package.json'),
  )
  await step(
    'install',
    hashOf([lock, ...manifests], process.version),
    existsSync(join(root, 'node_modules', 'vue')),
    () => {
      const npm = process.env.npm_execpath
      const args = ['ci', '--loglevel=error', '--no-progress', '--no-audit', '--no-fund']
      if (npm?.endsWith('.js')) run(process.execPath, [npm, ...args])
      else run('npm', args)
    },
  )
}

if (steps.includes('build')) {
  const keep = (f) => /\.(ts|vue|css|html|svg|json)$/.test(f) && statSync(f).isFile()
  const sources = ['core', 'contract', 'server', 'web'].flatMap((w) => filesBelow(join(root, w), keep))
  const dist = join(root, 'server', 'dist')
  const built = [join(root, 'web', 'dist', 'index.html'), join(dist, 'main.js'), join(dist, EMPTY)].every(
    (f) => existsSync(f),
  )
  await step('build', hashOf([...sources, join(root, 'package-lock.json')]), built, async () => {
    const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js')
    const [empty] = await Promise.all([
      emptyDatabase(),
      runBeside([vite, 'build'], { cwd: join(root, 'server') }),
      runBeside([vite, 'build'], { cwd: join(root, 'web') }),
    ])
    copyFileSync(empty, join(dist, EMPTY))
  })
}
