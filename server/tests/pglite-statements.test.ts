import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Database } from '../src/db/database.ts'
import { openMemory } from '../src/db/pglite.ts'

let db: Database
beforeAll(async () => {
  db = await openMemory()
  await db.script('create table kept (id int primary key, said text)')
})
afterAll(() => db.close())

const prepared = async () =>
  (await db.query<{ n: number }>('select count(*)::int as n from pg_prepared_statements'))[0]!.n

describe('statements of the embedded database', () => {
  it('bring values there and back as they are', async () => {
    const at = new Date('2026-03-01T08:00:00.123Z')
    const sql = `select $1::text as t, $2::int8 as n, $3::float8 as f, $4::bool as b, $5::timestamptz as at, $6::jsonb as j,
      $7::text[] as list, $8::text as nothing, 'null'::json as void, null::json as missing`
    const given = [
      'Skjær "æ", \\ and ,{}',
      41,
      -0.125,
      true,
      at,
      JSON.stringify({ a: [1, null] }),
      ['x', 'y,"z'],
      null,
    ]
    const wanted = {
      t: given[0],
      n: 41,
      f: -0.125,
      b: true,
      at,
      j: { a: [1, null] },
      list: ['x', 'y,"z'],
      nothing: null,
      void: null,
      missing: null,
    }
    // the first time it is planned, the second time it is known
    expect(await db.query(sql, given)).toEqual([wanted])
    expect(await db.query(sql, given)).toEqual([wanted])
  })

  it('are planned once, and the oldest forgotten when there are too many', async () => {
    const before = await prepared()
    for (let round = 0; round < 3; round++) await db.query('select 1 as again')
    expect(await prepared()).toBe(before + 1)
    for (let i = 0; i < 400; i++) expect(await db.query(`select ${i} as n`)).toEqual([{ n: i }])
    expect(await prepared()).toBeLessThanOrEqual(300)
    // one that was forgotten is planned again
    expect(await db.query('select 0 as n')).toEqual([{ n: 0 }])
  })

  it('fail with the code of the database, and leave the next ones alone', async () => {
    await expect(db.query('select * from nowhere')).rejects.toMatchObject({ code: '42P01' })
    await db.query('insert into kept values ($1, $2)', [1, 'first'])
    await expect(db.query('insert into kept values ($1, $2)', [1, 'again'])).rejects.toMatchObject({
      code: '23505',
      constraint: 'kept_pkey',
    })
    expect(await db.query('select said from kept')).toEqual([{ said: 'first' }])
  })

  it('of a transaction that fails are undone, also those that were known before', async () => {
    await expect(
      db.transaction(async (tx) => {
        await tx.query('insert into kept values ($1, $2)', [2, 'second'])
        await tx.query('insert into kept values ($1, $2)', [1, 'again'])
      }),
    ).rejects.toMatchObject({ code: '23505' })
    // planned in a transaction that was undone, and still good
    await expect(
      db.transaction(async (tx) => {
        await tx.query('select said from kept where id = $1', [7])
        throw new Error('changed our mind')
      }),
    ).rejects.toThrow('changed our mind')
    expect(await db.query('select said from kept where id = $1', [1])).toEqual([{ said: 'first' }])
    expect(await db.query('select said from kept')).toEqual([{ said: 'first' }])
  })

  it('wait for a transaction that is open, and see what it has left', async () => {
    const order: string[] = []
    let outside: Promise<unknown[]> | undefined
    await db.transaction(async (tx) => {
      await tx.query('update kept set said = $1', ['changed'])
      outside = db.query('select said from kept').then((rows) => {
        order.push('read')
        return rows
      })
      await new Promise((r) => setTimeout(r, 50))
      order.push('committed')
    })
    expect(await outside).toEqual([{ said: 'changed' }])
    expect(order).toEqual(['committed', 'read'])
  })
})
