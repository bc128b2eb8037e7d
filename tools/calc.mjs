// npm run -s calc -- NAME: installs what is missing (said on standard error), then hands over to the command.
import { spawnSync } from 'node:child_process'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const prepared = spawnSync(process.execPath, [join(root, 'tools/prepare.mjs'), 'install'], {
  stdio: ['ignore', 'ignore', 'inherit'],
})
if (prepared.status !== 0) process.exit(prepared.status ?? 1)
const tsx = join(root, 'node_modules/tsx/dist/cli.mjs')
const result = spawnSync(
  process.execPath,
  [tsx, join(root, 'server/src/commands/calc.ts'), ...process.argv.slice(2)],
  {
    cwd: root,
    stdio: 'inherit',
  },
)
process.exit(result.status ?? 1)
