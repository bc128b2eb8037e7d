import { readFileSync } from 'node:fs'
import { JOB_FORMAT, JOB_LAYOUT, type JobFile } from '@moray/contract/job-file'
import { validate } from '@moray/contract/fields/validate'
import { bodyProblems } from '@moray/contract/sheet/body-problems'
import { raised } from '@moray/contract/sheet/raised'
import { SheetFile } from '@moray/contract/sheet/sheet-file'
import { InputError } from '@moray/core/checks/input-error'
import { Ajv, type ValidateFunction } from 'ajv'
import { hashOf } from '../files/file-store.ts'
import { remade } from '../files/picture.ts'
import { openZip, ZipError, type OpenZip } from '../files/read-zip.ts'
import { CHECKSUMS, JOB_JSON } from './job-zip.ts'

const MB = 1024 * 1024
const PICTURE = /^pictures\/([0-9a-f]{64})\.(jpg|png|webp|gif|bin)$/
const RULES = {
  what: "job's zip",
  mayHold: (name: string) =>
    name === JOB_JSON || name === CHECKSUMS || PICTURE.test(name) || /^[a-z-]{1,30}\.(csv|pdf)$/.test(name),
  mostEntries: 5000,
  mostBytes: 512 * MB,
}
const MOST_JSON = 64 * MB
const MOST_FILE = 64 * MB

export interface ForeignJob {
  file: JobFile
  pictures: { hash: string; type: string; content: Uint8Array }[]
}

/**
 * Reads a job that another Moray has written. Every file is held against its sum, the record against its published schema, every picture against its name.
 * @throws ZipError naming the file that is damaged, altered, missing or put in
 */
export async function readJobZip(path: string, schema: object): Promise<ForeignJob> {
  const zip = await openZip(path, RULES)
  try {
    const sums = await readSums(zip)
    const pictures: ForeignJob['pictures'] = []
    let text = ''
    for (const name of zip.entries.keys()) {
      if (name === CHECKSUMS) continue
      const content = await zip.read(name, name === JOB_JSON ? MOST_JSON : MOST_FILE)
      if (hashOf(content) !== sums.get(name))
        throw new ZipError(`${name} was altered or damaged: it is not what ${CHECKSUMS} says`)
      if (name === JOB_JSON) text = content.toString('utf8')
      const hash = PICTURE.exec(name)?.[1]
      if (hash) pictures.push({ hash, content, type: await typeOf(name, hash, content) })
    }
    return { file: checkedJob(text, schema), pictures }
  } finally {
    zip.close()
  }
}

async function readSums(zip: OpenZip): Promise<Map<string, string>> {
  const sums = new Map<string, string>()
  for (const line of (await zip.read(CHECKSUMS, MB)).toString('utf8').split('\n').filter(Boolean)) {
    const [, hash, name] = /^([0-9a-f]{64}) [ *](.+?)\r?$/.exec(line) ?? []
    if (!hash || !name)
      throw new ZipError(`${CHECKSUMS} is damaged: "${line.slice(0, 60)}" is no sum of a file`)
    sums.set(name, hash)
  }
  for (const name of [JOB_JSON, ...sums.keys()])
    if (!zip.entries.has(name)) throw new ZipError(`${name} is missing`)
  for (const name of zip.entries.keys())
    if (name !== CHECKSUMS && !sums.has(name))
      throw new ZipError(`${name} was put in: ${CHECKSUMS} does not know it`)
  return sums
}

/** @throws ZipError when it is no picture that can be read, or another one than its name says */
async function typeOf(name: string, hash: string, content: Uint8Array): Promise<string> {
  if (hashOf(content) !== hash) throw new ZipError(`${name} is another picture than its name says`)
  try {
    return (await remade(content)).came.type
  } catch {
    throw new ZipError(`${name} is no picture that can be read`)
  }
}

let compiled: { schema: object; check: ValidateFunction } | undefined

/** @throws ZipError naming the place in the record */
function checkedJob(text: string, schema: object): JobFile {
  let file: JobFile
  try {
    file = JSON.parse(text) as JobFile
  } catch (e) {
    throw new ZipError(`${JOB_JSON} is damaged: ${(e as Error).message.slice(0, 120)}`)
  }
  if (file?.format !== JOB_FORMAT) throw new ZipError(`${JOB_JSON} is not that of a job of Moray`)
  if (file.layout !== JOB_LAYOUT)
    throw new ZipError(
      `${JOB_JSON} was written by Moray ${String(file.moray).slice(0, 20)}, in a layout that this one does not know; it needs that version or a newer one`,
    )
  // made once: it takes longer than the check itself
  if (compiled?.schema !== schema)
    compiled = { schema, check: new Ajv({ strict: false, allErrors: false }).compile(schema) }
  if (compiled.check(file)) return withSheet(file)
  const [first] = compiled.check.errors ?? []
  throw new ZipError(
    `${JOB_JSON}: ${first?.instancePath || 'the whole'} ${first?.message ?? 'is not as it should be'}`,
  )
}

/** @throws ZipError when its drive sheet is none */
function withSheet(read: JobFile): JobFile {
  let file: JobFile
  try {
    // a Moray of before has written its sheet in the form of before
    file = { ...read, sheet: raised(read.sheet) as JobFile['sheet'] }
    const { version: _version, demo: _demo, ...sheet } = file.sheet
    validate(SheetFile, sheet)
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    const [first] = e.fields
    throw new ZipError(`${JOB_JSON}: sheet.${first?.path ?? ''} ${first?.message ?? e.message}`)
  }
  const [wrong] = bodyProblems(file.sheet)
  if (wrong) throw new ZipError(`${JOB_JSON}: sheet.${wrong.path} ${wrong.message}`)
  if (file.sheet.id !== file.job.sheetId || file.sheet.version !== file.job.sheetVersion)
    throw new ZipError(`${JOB_JSON}: the sheet in it is not the one that the job was worked by`)
  return file
}

let published: object | undefined

/** The schema that is published in docs/, read when it is first needed. @param server folder of the server */
export const jobSchemaOf = (server: string): object =>
  (published ??= JSON.parse(readFileSync(`${server}/../docs/job.schema.json`, 'utf8')) as object)
