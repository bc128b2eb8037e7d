// first-start.mjs FOLDER: the first start of the built server in a new folder, until it says that it is ready; with the demo of today, without its past.
import { spawn } from 'node:child_process'
import { resolve } from 'node:path'

const child = spawn(process.execPath, [resolve(import.meta.dirname, '../server/dist/main.js')], {
  stdio: ['ignore', 'pipe', 'pipe'],
  env: { ...process.env, PORT: '0', MORAY_DEMO: 'short', MORAY_DATA: process.argv[2] },
})
let said = ''
let ready = false
const hear = (d) => {
  said += String(d)
  if (ready || !said.includes('Moray is ready')) return
  ready = true
  child.kill('SIGTERM')
}
child.stdout.on('data', hear)
child.stderr.on('data', hear)
child.on('close', (code) => {
  if (ready && code === 0) return
  console.log(said)
  process.exitCode = 1
})
