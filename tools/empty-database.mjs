// node tools/empty-database.mjs FILE: a database with nothing in it, as a dump. Making one takes seconds; a shop that begins unpacks it in one.
import { renameSync, writeFileSync } from 'node:fs'
import { PGlite } from '@electric-sql/pglite'

const [file] = process.argv.slice(2)
const pg = await PGlite.create('memory://')
await pg.exec('checkpoint')
const dump = await pg.dumpDataDir('gzip')
await pg.close()
writeFileSync(`${file}.part`, new Uint8Array(await dump.arrayBuffer()))
renameSync(`${file}.part`, file)
