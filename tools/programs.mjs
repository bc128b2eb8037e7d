// Programs of Debian's that the tests need: Chromium, and a PostgreSQL server for the API tests. Installed where they are missing and we may.
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'

const NEEDED = [
  // the shell without windows is the same browser with less around it
  { name: 'chromium-headless-shell', at: ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'] },
  { name: 'postgresql', at: ['/usr/lib/postgresql'] },
]
const isThere = ({ name, at }) =>
  at.some((f) => existsSync(f)) || (name.startsWith('chromium') && !!process.env.MORAY_CHROMIUM)

export function ensurePrograms() {
  const missing = NEEDED.filter((p) => !isThere(p)).map((p) => p.name)
  if (!missing.length) return
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log(`installing ${missing.join(' and ')} from Debian …`)
    const options = {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      stdio: ['ignore', 'ignore', 'inherit'],
    }
    spawnSync('apt-get', ['update', '-qq'], options)
    spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], options)
  }
  for (const p of NEEDED)
    if (!isThere(p))
      console.log(
        p.name === 'postgresql'
          ? 'No PostgreSQL server here: the API tests run on the embedded database only. Install Debian\'s package "postgresql" to run them on both.'
          : `No Chromium here: install Debian's package "${p.name}", or name another one in MORAY_CHROMIUM.`,
      )
}
