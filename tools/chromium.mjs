import { existsSync } from 'node:fs'

/** Debian's Chromium for the tools that take pictures: its shell without windows where npm test has installed that one. */
export const chromiumPath = () =>
  process.env.MORAY_CHROMIUM ??
  ['/usr/bin/chromium', '/usr/bin/chromium-headless-shell'].find((f) => existsSync(f))
