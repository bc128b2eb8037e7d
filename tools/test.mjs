// npm test [-- --long]: everything that must hold, one step after the other, with a summary at the end. docs/testing.md says what each step is.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, relative, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { stripVTControlCharacters } from 'node:util'
import { ensurePrograms } from './programs.mjs'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const long = process.argv.includes('--long')
const bin = (path) => join(root, 'node_modules', path)
const report = (name) => join(root, 'node_modules', '.moray', `${name}.json`)

/** A shop with the demo, made by the first start: what begins with a whole shop begins with a copy of it. */
const shop = mkdtempSync(join(tmpdir(), 'moray-shop-'))
process.on('exit', () => rmSync(shop, { recursive: true, force: true }))
const env = {
  ...process.env,
  MORAY_TEST_BUILT: '1',
  MORAY_TEST_SHOP: shop,
  MORAY_REPORT: report('browser'),
  ...(long ? { MORAY_TEST_LONG: '1' } : {}),
}
const run = (command, ...args) => spawnSync(command, args, { cwd: root, stdio: 'inherit', env }).status === 0
const node = (...args) => run(process.execPath, ...args)

/** What is built here but stands in no commit is missing for everybody else: no source may be ignored. */
function everySourceInTheRepository() {
  if (!existsSync(join(root, '.git'))) return true
  const folders = ['core', 'contract', 'server', 'web', 'e2e', 'tools']
  const args = ['ls-files', '--others', '--ignored', '--exclude-standard', '--', ...folders]
  const { status, stdout } = spawnSync('git', args, { cwd: root, encoding: 'utf8' })
  const made = /(^|\/)(dist|node_modules|test-results|playwright-report|shots|\.moray)\//
  const missing = (stdout ?? '').split('\n').filter((f) => f && !made.test(f))
  if (missing.length) console.log(`ignored by git, so missing from every clone:\n${missing.join('\n')}`)
  return status !== 0 || missing.length === 0
}

const vitest = () =>
  node(
    bin('vitest/vitest.mjs'),
    'run',
    '--reporter=dot',
    '--reporter=json',
    `--outputFile.json=${report('unit')}`,
  )

/** Runs a tool of Node's quietly: what it says is shown when it ends, so that two at once do not talk into each other. */
const quietly = (...args) =>
  new Promise((done) => {
    const child = spawn(process.execPath, args, { cwd: root, env })
    let said = ''
    child.stdout.on('data', (d) => (said += d))
    child.stderr.on('data', (d) => (said += d))
    child.on('close', (code) => {
      if (said.trim()) console.log(said)
      done(code === 0)
    })
  })

/** One after the other, each alone on the machine; what stands together in a list needs nothing of each other, and is done at once. */
const steps = [
  [['every source is in the repository', everySourceInTheRepository]],
  [['build', () => node(join(root, 'tools/prepare.mjs'), 'build')]],
  [
    ['first start, with the demo', () => quietly(join(root, 'tools/first-start.mjs'), shop)],
    ['types of the pages', () => quietly(join(root, 'tools/vue-types.mjs'))],
    ['types', () => quietly(bin('typescript-native/bin/tsc'), '-p', 'tsconfig.json')],
    ['lint, circles of files among them', () => quietly(bin('oxlint/bin/oxlint'), '--deny-warnings')],
    ['circles of folders', () => quietly(join(root, 'tools/folders.mjs'))],
    ['format', () => quietly(bin('oxfmt/bin/oxfmt'), '--check', '.')],
  ],
  [['unit and API tests', vitest, 'unit']],
  [
    [
      'browser tests',
      () => node(bin('@playwright/test/cli.js'), 'test', '-c', 'e2e/playwright.config.ts'),
      'browser',
    ],
  ],
]

/** Counts of a Vitest or a Playwright report; undefined where the runner has written none. */
function counts(file) {
  if (!existsSync(file)) return undefined
  const r = JSON.parse(readFileSync(file, 'utf8'))
  return r.stats
    ? { passed: r.stats.expected + r.stats.flaky, failed: r.stats.unexpected, skipped: r.stats.skipped }
    : { passed: r.numPassedTests, failed: r.numFailedTests, skipped: r.numPendingTests }
}

const firstWords = (message = '') =>
  stripVTControlCharacters(message).split('\n').filter(Boolean).slice(0, 4).join(' | ').slice(0, 240)

/** What failed in a report, a line each: whoever sees only the end of a long output sees why. */
function failures(file) {
  if (!existsSync(file)) return []
  const r = JSON.parse(readFileSync(file, 'utf8'))
  const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)]
  return [
    ...(r.testResults ?? []).flatMap((f) => [
      ...(f.message ? [`${relative(root, f.name)}: ${firstWords(f.message)}`] : []),
      ...f.assertionResults
        .filter((t) => t.status === 'failed')
        .map((t) => `${relative(root, f.name)} ${t.title}: ${firstWords(t.failureMessages[0])}`),
    ]),
    ...(r.suites ?? []).flatMap(specs).flatMap((spec) => {
      const failed = spec.tests.flatMap((t) => t.results).find((x) => x.error)
      return spec.ok ? [] : [`${spec.file}:${spec.line} ${firstWords(failed?.error.message)}`]
    }),
  ].slice(0, 12)
}

for (const name of ['unit', 'browser']) rmSync(report(name), { force: true })
ensurePrograms()
if (!node(join(root, 'tools/prepare.mjs'), 'install')) process.exit(1)
const sum = { passed: 0, failed: 0, skipped: 0 }
const lines = []
async function step([name, work, reported]) {
  const started = Date.now()
  const ok = await work()
  const n = (reported && counts(report(reported))) ?? { passed: Number(ok), failed: 0, skipped: 0 }
  // a runner that fails without a count still counts as one failure
  const failed = Math.max(n.failed, Number(!ok))
  sum.passed += n.passed
  sum.failed += failed
  sum.skipped += n.skipped
  const seconds = ((Date.now() - started) / 1000).toFixed(1)
  const detail = reported ? `: ${n.passed} passed, ${failed} failed` : ''
  lines.push(`${failed ? 'FAILED' : 'ok    '} ${name}${detail} (${seconds} s)`)
}
for (const together of steps) {
  console.log(`\n— ${together.map(([name]) => name).join(', ')}`)
  await Promise.all(together.map(step))
}
const why = ['unit', 'browser'].flatMap((name) => failures(report(name)))
console.log(`\n${[...lines, ...why].join('\n')}`)
console.log(`\n${sum.passed} passed, ${sum.failed} failed, ${sum.skipped} skipped`)
process.exit(sum.failed ? 1 : 0)
