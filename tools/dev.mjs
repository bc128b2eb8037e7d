// npm run dev: server with reload on PORT (4747), pages with reload on 5173.
import { spawn } from 'node:child_process'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const bin = (name, file) => join(root, 'node_modules', name, file)
const children = [
  spawn(
    process.execPath,
    [bin('tsx', 'dist/cli.mjs'), 'watch', '--clear-screen=false', 'server/src/main.ts'],
    { cwd: root, stdio: 'inherit' },
  ),
  spawn(process.execPath, [bin('vite', 'bin/vite.js')], { cwd: join(root, 'web'), stdio: 'inherit' }),
]
console.log('Pages with reload at http://127.0.0.1:5173')
const stop = () => children.forEach((c) => c.kill('SIGTERM'))
process.on('SIGINT', stop)
process.on('SIGTERM', stop)
children.forEach((c) => c.on('exit', (code) => (stop(), (process.exitCode ||= code ?? 0))))
