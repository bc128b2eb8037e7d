import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead } from '../http/endpoint.ts'
import { searchOf } from '../http/search-of.ts'
import { search } from './search.ts'

export function mountSearch(app: Hono, { db }: Deps) {
  onRead(app, endpoints.search, (c) => search(db, searchOf(c)))
}
