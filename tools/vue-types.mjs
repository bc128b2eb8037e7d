// Types of the pages and their tests: Vue's own compiler writes each page as TypeScript (as vue-tsc does), and the native compiler checks them all in seconds.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join, relative, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const web = join(root, 'web')
const written = join(root, 'node_modules/.moray/vue-types')
const require = createRequire(import.meta.url)
const ofVueTsc = createRequire(require.resolve('vue-tsc/package.json'))
const vue = ofVueTsc('@vue/language-core')
const helpers = join(dirname(ofVueTsc.resolve('@vue/language-core/package.json')), 'types')
const ts = require('typescript')

const { options, vueOptions } = vue.createParsedCommandLine(ts, ts.sys, join(web, 'tsconfig.json'))
const language = vue.createVueLanguagePlugin(ts, options, vueOptions, (id) => id)

/** What was written of each page: its file, its text, and which place of it came from where. */
const pages = new Map()

function write(file) {
  const text = readFileSync(file, 'utf8')
  const page = language.createVirtualCode(file, 'vue', ts.ScriptSnapshot.fromString(text))
  const script = [...vue.forEachEmbeddedCode(page)].find((code) => /^script_(ts|js)$/.test(code.id))
  const code = script.snapshot
    .getText(0, script.snapshot.getLength())
    // the helpers lie elsewhere, seen from here; the line stays as long as it was, so that every place does
    .replaceAll(/^\/\/\/ <reference types="[^"]*\/types\/([\w.-]+)"/gm, `/// <reference path="${helpers}/$1"`)
  const shift = code.length - script.snapshot.getLength()
  const to = join(written, `${relative(web, file)}.ts`)
  mkdirSync(dirname(to), { recursive: true })
  writeFileSync(to, code)
  pages.set(to, { file, text, code, shift, map: new vue.SourceMap(script.mappings) })
}

rmSync(written, { recursive: true, force: true })
for (const name of readdirSync(join(web, 'src'), { recursive: true }))
  if (name.endsWith('.vue')) write(join(web, 'src', name))
const config = join(written, 'tsconfig.json')
writeFileSync(
  config,
  JSON.stringify({
    extends: join(web, 'tsconfig.json'),
    // one tree laid over the other: "./Page.vue" is Page.vue.ts
    compilerOptions: { rootDirs: [web, written] },
    include: [
      ...['src/**/*.ts', 'tests/**/*.ts', 'vite.config.ts'].map((files) => join(web, files)),
      join(written, 'src/**/*.ts'),
    ],
    exclude: [],
  }),
)

const offsetOf = (text, line, column) =>
  text
    .split('\n')
    .slice(0, line - 1)
    .reduce((sum, l) => sum + l.length + 1, column - 1)
const placeIn = (text, offset) => {
  const before = text.slice(0, offset).split('\n')
  return `(${before.length},${before.at(-1).length + 1})`
}

const tsc = join(root, 'node_modules/typescript-native/bin/tsc')
const { stdout, stderr, status } = spawnSync(process.execPath, [tsc, '-p', config, '--pretty', 'false'], {
  cwd: root,
  encoding: 'utf8',
})
let wrong = 0
/** Whether the error that a continued line belongs to was said. */
let said = true
for (const line of stdout.split('\n').filter((l) => l.trim())) {
  const [, file, row, column, code, rest] = /^(.+?)\((\d+),(\d+)\): error TS(\d+)(: .*)$/.exec(line) ?? []
  const page = file && pages.get(resolve(root, file))
  if (!page) {
    const continued = line.startsWith(' ')
    if (!continued) {
      wrong++
      said = true
    }
    if (said) console.log(line)
    continue
  }
  // what the compiler of the pages wrote of its own is not held against the page
  const at = offsetOf(page.code, +row, +column) - page.shift
  const origin = [...page.map.toSourceLocation(at)].find(
    ([, mapping]) =>
      vue.isDiagnosticsEnabled(mapping.data) && vue.shouldReportDiagnostics(mapping.data, 'ts', +code),
  )
  said = origin !== undefined
  if (!origin) continue
  wrong++
  console.log(`${relative(root, page.file)}${placeIn(page.text, origin[0])}: error TS${code}${rest}`)
}
if (status !== 0 && stdout.trim() === '') {
  wrong++
  console.log(stderr)
}
process.exit(wrong ? 1 : 0)
