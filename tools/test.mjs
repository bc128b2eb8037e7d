// npm test [-- --long]: what must hold, in order, with a plain summary; CI runs it. --long tries every case where the other tries some.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, relative, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { stripVTControlCharacters } from 'node:util'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const node = process.execPath
const bin = (path) => join(root, 'node_modules', path)
/** Debian's Chromium; its shell without windows is the same browser with less around it, and half as dear to run. */
const BROWSERS = ['chromium-headless-shell', 'chromium']
const chromium = () =>
  process.env.MORAY_CHROMIUM ?? BROWSERS.map((b) => `/usr/bin/${b}`).find((f) => existsSync(f))
const POSTGRES = '/usr/lib/postgresql'
const mayInstall = () => process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')
const LONG_RUN = process.argv.includes('--long')
const reports = join(root, 'node_modules', '.moray')

function run(command, args, options = {}) {
  return spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options }).status === 0
}

/** What is missing of Debian's begins to come while npm installs: one waits for the network where the other does. What fails is tried again below, by itself. */
function fetchPrograms() {
  const missing = [
    ...(process.env.MORAY_CHROMIUM || chromium() ? [] : [BROWSERS[0]]),
    ...(existsSync(POSTGRES) ? [] : ['postgresql']),
  ]
  if (!missing.length || !mayInstall()) return Promise.resolve()
  console.log(`installing ${missing.join(' and ')} from Debian beside the rest …`)
  return new Promise((done) =>
    spawn(
      'sh',
      ['-c', `apt-get update -qq && apt-get install -y -qq --no-install-recommends ${missing.join(' ')}`],
      { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }, stdio: 'ignore' },
    )
      .on('close', done)
      .on('error', done),
  )
}

/** Debian's Chromium, when it is missing and we may install it. @returns its path */
function ensureChromium() {
  const wanted = process.env.MORAY_CHROMIUM ?? `/usr/bin/${BROWSERS[0]}`
  if (existsSync(wanted)) return wanted
  if (process.env.MORAY_CHROMIUM || !mayInstall()) {
    if (chromium() && existsSync(chromium())) return chromium()
    console.log(
      `No ${wanted}; install Debian's package "${BROWSERS[0]}", or name another browser in MORAY_CHROMIUM.`,
    )
    return undefined
  }
  console.log('installing Chromium from Debian …')
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const quiet = { env, stdio: ['ignore', 'ignore', 'inherit'] }
  run('apt-get', ['update', '-qq'], { env })
  for (const name of BROWSERS) {
    if (existsSync(`/usr/bin/${name}`)) break
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], quiet)
    if (existsSync(`/usr/bin/${name}`)) break
  }
  return chromium()
}

/** A PostgreSQL server from Debian, for the API tests: they run on it too, long walks on it alone unless all is run. Without it a word says so. */
function ensurePostgres() {
  if (existsSync(POSTGRES)) return
  if (mayInstall()) {
    console.log('installing PostgreSQL from Debian …')
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
    const quiet = { env, stdio: ['ignore', 'ignore', 'inherit'] }
    run('apt-get', ['update', '-qq'], { env })
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'postgresql'], quiet)
  }
  if (!existsSync(POSTGRES))
    console.log(
      'No PostgreSQL server here: the API tests run on the embedded database only. Install Debian\'s package "postgresql" to run them on both.',
    )
}

/** What is built here but stands in no commit is missing for everybody else: no source may be ignored. */
function everySourceInTheRepository() {
  if (!existsSync(join(root, '.git'))) return true
  const folders = ['core', 'contract', 'server', 'web', 'e2e', 'tools']
  const { status, stdout } = spawnSync(
    'git',
    ['ls-files', '--others', '--ignored', '--exclude-standard', '--', ...folders],
    { cwd: root, encoding: 'utf8' },
  )
  const missing = (stdout ?? '')
    .split('\n')
    .filter((f) => f && !/(^|\/)(dist|node_modules|test-results|playwright-report|shots|\.moray)\//.test(f))
  if (missing.length) console.log(`ignored by git, so missing from every clone:\n${missing.join('\n')}`)
  return status !== 0 || missing.length === 0
}

const readReport = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return undefined
  }
}

/** Counts of a Vitest or a Playwright report. */
function counts(file) {
  const r = readReport(file)
  if (r?.numTotalTests !== undefined)
    return { passed: r.numPassedTests, failed: r.numFailedTests, skipped: r.numPendingTests }
  if (r?.stats)
    return { passed: r.stats.expected + r.stats.flaky, failed: r.stats.unexpected, skipped: r.stats.skipped }
  return undefined
}

const MOST_TOLD = 10
const firstWords = (message) =>
  stripVTControlCharacters(message ?? '')
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .slice(0, 4)
    .join(' | ')
    .slice(0, 240)

/** What failed in a Vitest or a Playwright report, a line each: whoever sees only the end of a long output sees why. */
function failures(file) {
  const r = readReport(file)
  const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)]
  const ofVitest = (r?.testResults ?? []).flatMap((f) => [
    ...(f.message ? [`${relative(root, f.name)}: ${firstWords(f.message)}`] : []),
    ...f.assertionResults
      .filter((t) => t.status === 'failed')
      .map((t) => `${relative(root, f.name)} ${t.title.slice(0, 80)}: ${firstWords(t.failureMessages?.[0])}`),
  ])
  const ofPlaywright = (r?.suites ?? [])
    .flatMap(specs)
    .flatMap((spec) =>
      spec.ok
        ? []
        : [
            `${spec.file}:${spec.line} ${firstWords(spec.tests.flatMap((t) => t.results).find((x) => x.error)?.error.message)}`,
          ],
    )
  const all = [...ofVitest, ...ofPlaywright]
  return all.length > MOST_TOLD ? [...all.slice(0, MOST_TOLD), `and ${all.length - MOST_TOLD} more`] : all
}

const unitReport = join(reports, 'unit.json')
const browserReport = join(reports, 'browser.json')
for (const f of [unitReport, browserReport]) rmSync(f, { force: true })

/** A shop with the demo, which everything begins with that needs a whole one. */
const shop = mkdtempSync(join(tmpdir(), 'moray-shop-'))
process.on('exit', () => rmSync(shop, { recursive: true, force: true }))

/** The first start of the built server in a new folder. */
function startOnce() {
  return new Promise((done) => {
    const child = spawn(node, [join(root, 'server/dist/main.js')], {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, PORT: '0', MORAY_DATA: shop },
    })
    let said = ''
    let ready = false
    const hear = (d) => {
      said += d
      if (ready || !said.includes('Moray is ready')) return
      ready = true
      child.kill('SIGTERM')
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.on('close', (code) => done({ ok: ready && code === 0, said: ready ? '' : said }))
  })
}

/** Checks that need nothing of each other, so that they can share the cores. */
const checks = [
  ['the first start, with the demo', startOnce],
  ['types of the pages', ['../tools/vue-types.mjs']],
  ['types', ['typescript-native/bin/tsc', '-p', 'tsconfig.json']],
  // what the compiler of the pages lets pass and is bad manners all the same; it is installed by itself
  ...(LONG_RUN ? [['lint of the pages', () => quietly('npm', ['run', '-s', 'lint:pages'])]] : []),
  ['lint, circles of files among them', ['oxlint/bin/oxlint', '--deny-warnings']],
  ['circles of folders', ['../tools/folders.mjs']],
  ['format', ['oxfmt/bin/oxfmt', '--check', '.']],
]

/** Runs a tool of node_modules; what it says is shown when it ends, so that two at once do not talk into each other. */
const runQuietly = ([tool, ...args]) => quietly(node, [bin(tool), ...args])
function quietly(command, args) {
  return new Promise((done) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
    let said = ''
    child.stdout.on('data', (d) => (said += d))
    child.stderr.on('data', (d) => (said += d))
    child.on('close', (code) => done({ ok: code === 0, said }))
  })
}

const first = [
  ['every source is in the repository', everySourceInTheRepository],
  ['build', () => run(node, [join(root, 'tools/prepare.mjs'), 'build'])],
]

/** One after the other: each keeps two cores busy by itself, and side by side both took longer (433 s and not 371 s). */
const suites = [
  [
    'unit and API tests',
    () => {
      ensurePostgres()
      return [
        'vitest/vitest.mjs',
        'run',
        '--reporter=dot',
        '--reporter=json',
        `--outputFile.json=${unitReport}`,
      ]
    },
    { MORAY_TEST_BUILT: '1', MORAY_TEST_SHOP: shop },
    unitReport,
  ],
  [
    'browser tests',
    () => ensureChromium() && ['@playwright/test/cli.js', 'test', '-c', 'e2e/playwright.config.ts'],
    { MORAY_REPORT: browserReport, MORAY_TEST_SHOP: shop },
    browserReport,
  ],
]

let passed = 0
let failed = 0
let skipped = 0
const lines = []
function record(name, ok, started, report) {
  const seconds = ((Date.now() - started) / 1000).toFixed(1)
  const n = report ? counts(report) : { passed: ok ? 1 : 0, failed: ok ? 0 : 1, skipped: 0 }
  // a runner that fails without a count (or counts no failure) still counts as one failure
  const bad = n ? Math.max(n.failed, ok ? 0 : 1) : 1
  passed += n?.passed ?? 0
  failed += bad
  skipped += n?.skipped ?? 0
  lines.push(
    `${bad ? 'FAILED' : 'ok    '} ${name}${report && n ? `: ${n.passed} passed, ${n.failed} failed` : ''} (${seconds} s)`,
  )
}

if (LONG_RUN) process.env.MORAY_TEST_LONG = '1'
const programs = fetchPrograms()
if (!run(node, [join(root, 'tools/prepare.mjs'), 'install'])) process.exit(1)
for (const [name, work] of first) {
  const started = Date.now()
  console.log(`\n— ${name}`)
  record(name, work(), started)
}
console.log(`\n— ${checks.map(([name]) => name).join(', ')}`)
const waiting = [...checks]
await Promise.all(
  [1, 2].map(async () => {
    for (let next; (next = waiting.shift());) {
      const [name, command] = next
      const started = Date.now()
      const { ok, said } = await (typeof command === 'function' ? command() : runQuietly(command))
      if (said.trim()) console.log(`${name}:\n${said}`)
      record(name, ok, started)
    }
  }),
)
// what has to be installed is installed before either begins
await programs
const ready = suites.map(([name, command, env, report]) => ({ name, command: command(), env, report }))
for (const { name, command, env, report } of ready) {
  const started = Date.now()
  console.log(`\n— ${name}`)
  const ok = command && run(node, [bin(command[0]), ...command.slice(1)], { env: { ...process.env, ...env } })
  record(name, ok, started, report)
}
if (!LONG_RUN)
  lines.push(
    'left to npm run test:long: more of the same, the dearest of the bad days, the lint of the pages',
  )
console.log(
  `\n${[...lines, ...[unitReport, browserReport].flatMap(failures)].join('\n')}\n\n${passed} passed, ${failed} failed${skipped ? `, ${skipped} skipped` : ''}`,
)
process.exit(failed ? 1 : 0)
