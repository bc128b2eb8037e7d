import { existsSync } from 'node:fs'
import { join } from 'node:path'

const two = (n: number) => String(n).padStart(2, '0')
const NAME = /^moray-(\d{4})-(\d\d)-(\d\d)-(\d\d)(\d\d)(\d\d)(-nightly)?(-\d+)?\.zip$/

/** A name that nothing in the folder has, by the clock on the wall: names sort as the copies were made. */
export function copyName(folder: string, at: Date, nightly: boolean): string {
  const day = [at.getFullYear(), two(at.getMonth() + 1), two(at.getDate())].join('-')
  const time = [at.getHours(), at.getMinutes(), at.getSeconds()].map(two).join('')
  const stem = `moray-${day}-${time}${nightly ? '-nightly' : ''}`
  // a clock that was set back comes by the same second again
  for (let n = 1; ; n++) {
    const name = n === 1 ? `${stem}.zip` : `${stem}-${n}.zip`
    if (!existsSync(join(folder, name))) return name
  }
}

/** When a copy of that name was made, and how; undefined for any other file. */
export function nameOf(name: string): { at: Date; nightly: boolean } | undefined {
  const m = NAME.exec(name)
  if (!m) return undefined
  const [, year, month, day, hour, minute, second, nightly] = m
  return {
    at: new Date(`${year}-${month}-${day}T${hour}:${minute}:${second}`),
    nightly: nightly !== undefined,
  }
}
