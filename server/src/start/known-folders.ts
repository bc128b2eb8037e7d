import { mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { dirname, join, parse } from 'node:path'
import { DataFolderError } from '../data/data-folder-error.ts'

/**
 * Shops on a disk of their own, remembered by this user of the machine and not on that disk: when it is not mounted, its folder looks like one that
 * never held anything.
 */
const file = () =>
  join(process.env.XDG_STATE_HOME || join(homedir(), '.local', 'state'), 'moray', 'folders.json')
const MOST = 100

function read(): Record<string, string> {
  try {
    return JSON.parse(readFileSync(file(), 'utf8')) as Record<string, string>
  } catch {
    return {}
  }
}

/** Whether a folder, or what is there of its path, lies on another disk than the system. */
function onDiskOfItsOwn(folder: string): boolean {
  try {
    return statSync(folder).dev !== statSync(parse(folder).root).dev
  } catch {
    const parent = dirname(folder)
    return parent !== folder && onDiskOfItsOwn(parent)
  }
}

/** @throws DataFolderError where a folder without a mark has held a shop on a disk that is not there now */
export function mustNotHaveHeldShop(folder: string): void {
  const shop = read()[folder]
  if (shop !== undefined && !onDiskOfItsOwn(folder))
    throw new DataFolderError(
      `The data folder ${folder} held the shop ${shop} on a disk of its own, and that disk is not there. Is it mounted? Nothing was begun. If a new shop is meant to begin there, start once with MORAY_NEW=yes.`,
    )
}

/** Remembers that a folder on a disk of its own holds a shop. Where that cannot be written down, nothing is remembered. */
export function rememberFolder(folder: string, shop: string): void {
  if (!onDiskOfItsOwn(folder)) return
  const known = read()
  if (known[folder] === shop) return
  const { [folder]: _before, ...others } = known
  try {
    mkdirSync(dirname(file()), { recursive: true, mode: 0o700 })
    const kept = Object.fromEntries([...Object.entries(others), [folder, shop]].slice(-MOST))
    writeFileSync(file(), `${JSON.stringify(kept, null, 2)}\n`, { mode: 0o600 })
  } catch {
    // a machine without a home for its user; the folder's own mark still says what it holds
  }
}
