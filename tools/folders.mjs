// Folders that know each other both ways: neither can be read, moved or tested by itself. A folder is what stands directly in a workspace's src.
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const files = execFileSync('git', ['ls-files', 'core/src', 'contract/src', 'server/src', 'web/src'], {
  cwd: root,
  encoding: 'utf8',
})
  .split('\n')
  .filter((f) => /\.(ts|vue)$/.test(f))

/** `core/setting` of `core/src/setting/train.ts`; undefined for what stands beside the folders and puts them together. */
const folderOf = (path) => /^(\w+)\/src\/([\w-]+)\//.exec(path)?.slice(1).join('/')
const targetOf = (from, name) =>
  name.startsWith('.')
    ? join(dirname(from), name)
    : name.replace(/^@moray\/(core|contract)\//, (_, workspace) => `${workspace}/src/`)

/** One import for each folder that another one knows. */
const known = new Map()
for (const file of files)
  for (const [, name] of readFileSync(join(root, file), 'utf8').matchAll(
    /(?:from|import)\s*\(?\s*'([^']+)'/g,
  )) {
    const [from, to] = [folderOf(file), folderOf(targetOf(file, name))]
    if (from && to && from !== to) known.set(`${from} ${to}`, `${file} imports ${targetOf(file, name)}`)
  }
const bothWays = [...known].flatMap(([pair, one]) => {
  const [from, to] = pair.split(' ')
  const other = known.get(`${to} ${from}`)
  return other && from < to ? [`${from} and ${to} know each other: ${one}; ${other}`] : []
})
if (files.length < 100) bothWays.push(`only ${files.length} source files were found`)
console.log(bothWays.join('\n'))
process.exit(bothWays.length ? 1 : 0)
