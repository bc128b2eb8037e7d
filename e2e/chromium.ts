import { existsSync } from 'node:fs'

/** Debian's Chromium: the shell without windows is the same browser with less around it, and quicker where it is installed. */
export const chromiumPath = (): string =>
  process.env.MORAY_CHROMIUM ??
  ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find((f) => existsSync(f)) ??
  '/usr/bin/chromium'
