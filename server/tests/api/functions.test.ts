import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { applyFunctions, bodyOf, readFunctions } from '../../src/db/functions.ts'
import { NOW, schema, scratch, testApp } from '../test-app.ts'

const bodies = "select proname as name, prosrc as body from pg_proc where proname = 'job_record'"

describe('functions of the database', () => {
  it('stand in the database as they stand in their files', async () => {
    const { db } = await testApp()
    const file = schema.functions.find((f) => f.name === 'job_record')!
    expect(await db.query(bodies)).toEqual([{ name: 'job_record', body: bodyOf(file) }])
  })
  it('are made again when their text has changed, and only then', async () => {
    const { db } = await testApp()
    const apply = (functions = schema.functions) => db.transaction((tx) => applyFunctions(tx, functions, NOW))
    expect(await apply()).toBe(0)
    const changed = schema.functions.map((f) =>
      f.name === 'job_record' ? { ...f, sql: f.sql.replace('begin\n', 'begin\n  -- another text\n') } : f,
    )
    try {
      expect(await apply(changed)).toBe(1)
      const [now] = await db.query<{ body: string }>(bodies)
      expect(now!.body).toContain('-- another text')
      expect(await apply(changed)).toBe(0)
    } finally {
      expect(await apply()).toBe(1)
    }
  })
  it('are one in a file of their name', () => {
    const folder = scratch('functions')
    writeFileSync(join(folder, 'one.sql'), 'create or replace function another() returns int ...')
    expect(() => readFunctions(folder)).toThrow('one.sql does not make the function one')
  })
})
