// node tools/prepare.mjs [install] [build] [--force]: brings a fresh clone into working order; Node built-ins only.
// A step is skipped while nothing that it depends on has changed.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const marks = join(root, 'node_modules', '.moray')
const steps = process.argv.slice(2)
const force = steps.includes('--force')

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

function step(name, hash, done, work) {
  const mark = join(marks, name)
  if (!force && done && existsSync(mark) && readFileSync(mark, 'utf8') === hash) return
  const started = Date.now()
  process.stderr.write(`${name} …`)
  work()
  mkdirSync(marks, { recursive: true })
  writeFileSync(mark, hash)
  process.stderr.write(` ${((Date.now() - started) / 1000).toFixed(1)} s\n`)
}

function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: ['ignore', 2, 2], ...options })
  if (result.status !== 0) {
    process.stderr.write(`\nfailed: ${command} ${args.join(' ')}\n`)
    process.exit(result.status ?? 1)
  }
}

if (steps.includes('install')) {
  const lock = join(root, 'package-lock.json')
  const manifests = ['.', 'core', 'contract', 'server', 'web', 'e2e'].map((w) =>
    join(root, w, 'package.json'),
  )
  step(
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
  const built =
    existsSync(join(root, 'web', 'dist', 'index.html')) && existsSync(join(root, 'server', 'dist', 'main.js'))
  step('build', hashOf([...sources, join(root, 'package-lock.json')]), built, () => {
    const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js')
    run(process.execPath, [vite, 'build'], { cwd: join(root, 'server') })
    run(process.execPath, [vite, 'build'], { cwd: join(root, 'web') })
  })
}
