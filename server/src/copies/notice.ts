import { existsSync } from 'node:fs'
import { statfs } from 'node:fs/promises'
import { dirname } from 'node:path'
import type { CopyNotice, DiskState } from '@moray/contract/copies'
import type { Remembered } from './last-copy.ts'
import type { CopySettings } from './settings.ts'

const DAY_MS = 86_400_000
/** A last good copy older than this is said on the Bench. */
const OLD_DAYS = 2
/** A clock may be put right by so much. */
const AHEAD_MS = 3_600_000
const GB = 1024 ** 3
/** A copy needs room for a snapshot, for itself, and for the shop that it is proved by. */
const ROOM_FOR = 4

/** How full the disks are on which the shop and its copies lie. @param copyBytes of the last copy */
export async function diskOf(data: string, folder: string, copyBytes: number): Promise<DiskState> {
  const free = await Promise.all([data, folder].map(freeAt))
  const least = Math.min(...free.filter((f) => f !== undefined))
  return Number.isFinite(least)
    ? { freeBytes: least, nearlyFull: least < Math.max(GB, ROOM_FOR * copyBytes) }
    : { freeBytes: null, nearlyFull: false }
}

/** Bytes that are free where a folder is or would be; undefined where nobody can say. */
async function freeAt(folder: string): Promise<number | undefined> {
  let place = folder
  while (!existsSync(place) && dirname(place) !== place) place = dirname(place)
  const s = await statfs(place).catch(() => undefined)
  return s && Number(s.bavail) * Number(s.bsize)
}

/** What the Bench says about copies; null when all is well. The demo needs none. */
export function noticeOf(
  { settings, remembered, disk }: { settings: CopySettings; remembered: Remembered; disk: DiskState },
  now: Date,
): CopyNotice | null {
  if (disk.nearlyFull && disk.freeBytes !== null) return { kind: 'disk', freeBytes: disk.freeBytes }
  if (settings.demo || settings.begun === null) return null
  const last = remembered.proved?.at
  const since = now.getTime() - Date.parse(last ?? settings.begun)
  // nobody knows how old a copy is that is dated ahead
  if (last && since < -AHEAD_MS) return { kind: 'ahead', at: last }
  if (since <= OLD_DAYS * DAY_MS) return null
  return last ? { kind: 'old', at: last } : { kind: 'never', since: settings.begun }
}
