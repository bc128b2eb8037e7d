import { readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { JobPage, Person, Shop } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { LONG_RUN } from '../../core/tests/long.ts'
import { freshFolder, get, SLOW_MS, post, start, useProcesses } from './server-process.ts'
useProcesses()

describe('a folder that has held a shop', () => {
  it.runIf(LONG_RUN)(
    'is prepared again when its first start was cut off before anything was acknowledged, without the demo when asked, and stays so',
    async () => {
      const folder = freshFolder()
      const mark = JSON.parse(readFileSync(join(folder, 'moray.json'), 'utf8')) as object
      writeFileSync(join(folder, 'moray.json'), JSON.stringify({ ...mark, state: 'preparing' }))
      rmSync(join(folder, 'pg', 'global'), { recursive: true })
      let server = await start(folder, { MORAY_DEMO: 'off' })
      expect(await get<Person[]>(server.url, '/api/people')).toEqual([])
      expect((await get<JobPage>(server.url, '/api/jobs')).jobs).toEqual([])
      expect((await get<Shop>(server.url, '/api/shop')).demo).toBe(false)
      expect(
        (await post(server.url, '/api/people', { name: 'Åse', role: 'lead' }, { 'x-moray-person': '' }))
          .status,
      ).toBe(201)
      await server.stop('SIGTERM')
      server = await start(folder)
      expect((await get<Person[]>(server.url, '/api/people')).map((p) => p.name)).toEqual(['Åse'])
      expect((await get<JobPage>(server.url, '/api/jobs')).jobs).toEqual([])
      await server.stop('SIGTERM')
    },
    SLOW_MS,
  )
})
