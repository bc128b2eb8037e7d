import { networkInterfaces } from 'node:os'
import type { Device } from '@moray/contract/replies'
import type { Queryable, Transaction } from '../db/database.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import { asTyped, hashOf, newToken, pairingCode } from '../request/tokens.ts'

/** How long a code can be used. */
const CODE_MS = 10 * 60_000

export async function listDevices(db: Queryable): Promise<Device[]> {
  return db.query<Device>(
    `select d.id::text, d.name, p.name as "pairedBy", iso(d.paired_at) as "pairedAt", iso(d.seen_at) as "seenAt", d.revoked_at is not null as revoked
     from device d join person p on p.id = d.paired_by order by d.revoked_at is not null, d.id desc limit 100`,
  )
}

/** A code for one device, good for ten minutes and once. */
export async function beginPairing(tx: Transaction, who: Who): Promise<{ code: string; endsAt: Date }> {
  const code = pairingCode()
  await tx.query('delete from device_pairing where at < $1', [new Date(who.at.getTime() - 2 * CODE_MS)])
  await tx.query('insert into device_pairing (code_hash, by_person, at) values ($1, $2, $3)', [
    hashOf(code),
    who.id,
    who.at,
  ])
  return { code, endsAt: new Date(who.at.getTime() + CODE_MS) }
}

/** Lets a device in that knows a code. Of two with one code the second is refused: the update finds it used. */
export async function pairDevice(
  tx: Transaction,
  given: { code: string; name: string },
  at: Date,
): Promise<{ token: string; name: string; pairedBy: string }> {
  const [row] = await tx.query<{ by: string }>(
    `update device_pairing set used_at = $2 where code_hash = $1 and used_at is null and at > $3 returning by_person as by`,
    [hashOf(asTyped(given.code)), at, new Date(at.getTime() - CODE_MS)],
  )
  if (!row)
    throw new Refusal(
      403,
      'wrong-code',
      'That code lets nobody in: it is mistyped, used already, or older than ten minutes. Show a fresh one in Shop, Devices.',
      [{ path: 'code', message: 'is not one that is shown now' }],
    )
  const token = newToken()
  await tx.query(
    'insert into device (name, token_hash, paired_by, paired_at, seen_at) values ($1, $2, $3, $4, $4)',
    [given.name, hashOf(token), row.by, at],
  )
  return { token, name: given.name, pairedBy: row.by }
}

export async function revokeDevice(tx: Transaction, id: string, who: Who): Promise<string> {
  const [row] = /^\d{1,15}$/.test(id)
    ? await tx.query<{ name: string }>(
        'update device set revoked_at = $2, revoked_by = $3 where id = $1::bigint and revoked_at is null returning name',
        [id, who.at, who.id],
      )
    : []
  if (!row) throw notFound('Device', id)
  return row.name
}

/** Addresses under which other machines reach this one. */
export const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((a) => !a.internal && a.family === 'IPv4')
    .map((a) => a.address)
