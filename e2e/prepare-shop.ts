import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { resolve } from 'node:path'
import { startIn } from './servers.ts'

const root = resolve(import.meta.dirname, '..')

/** The built application, and a shop with the demo, which every worker begins with; tools/test.mjs has made both already. */
export default async function prepareShop(): Promise<void> {
  if (!process.env.MORAY_TEST_BUILT) {
    const { status } = spawnSync(process.execPath, ['tools/prepare.mjs', 'build'], {
      cwd: root,
      stdio: 'inherit',
    })
    if (status !== 0) throw new Error('Moray could not be built')
  }
  const shop = process.env.MORAY_TEST_SHOP!
  if (existsSync(shop) && readdirSync(shop).length) return
  await (await startIn(shop, { MORAY_DEMO: 'short' })).end()
}
