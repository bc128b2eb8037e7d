import { Piscina } from 'piscina'
import { calculation } from '@moray/contract/calculations/registry'
import { InputError, type FieldProblem } from '@moray/core/checks/input-error'
import { Refusal } from '../http/refusal.ts'
import { threadFile } from '../threads.ts'
import { FairQueue } from './fair-queue.ts'

/** Does what takes long away from the server's own thread: calculations of the registry, and checks of long bodies. */
export interface CalcPool {
  /**
   * @param text the input as JSON text: even reading it may take long
   * @param gone aborted when the asker has left
   * @returns the result as JSON text
   * @throws InputError when the input is refused, Refusal when it takes too long, too much memory, or too many wait
   */
  run(name: string, text: string, gone: AbortSignal): Promise<string>
  /**
   * Checks a body, see check-body.ts; of many that wait, those of different clients in turns.
   * @returns the body as it is taken, as JSON text
   * @throws InputError when it is refused (`broken-json` when it is no JSON), Refusal as above
   */
  check(path: string, text: string, gone: AbortSignal, client: string): Promise<string>
  close(): Promise<void>
}

export type Task = { calculate: string; text: string } | { check: string; text: string }

/** What a thread answers: an error crosses it as data. */
export type Answer =
  | { result: string }
  | { refused: { code: string; fields: FieldProblem[] } }
  | { failed: { message: string } }

export interface Limits {
  /** Long calculations at once. */
  threads: number
  /** Calculations that may wait, of either sort. */
  waiting: number
  milliseconds: number
  megabytes: number
}

/** Long bodies that may wait to be checked. */
const MOST_CHECKS = 100

const USUAL: Limits = { threads: 2, waiting: 24, milliseconds: 20_000, megabytes: 768 }

/**
 * Threads that calculate, each ended when its calculation takes too long, too much, or is no longer asked for. What may take seconds has
 * threads of its own, so that a quick question never waits behind it.
 */
export function openCalcPool(limits: Partial<Limits> = {}): CalcPool {
  const { threads, waiting, milliseconds, megabytes } = { ...USUAL, ...limits }
  const open = (least: number, most: number) =>
    new Piscina<Task, Answer>({
      filename: threadFile('worker', import.meta.url),
      minThreads: least,
      maxThreads: most,
      maxQueue: waiting,
      idleTimeout: 60_000,
      resourceLimits: { maxOldGenerationSizeMb: megabytes },
    })
  // what takes long anyway may wait for its thread to start; a quick question finds one that waits
  const [long, quick] = [open(0, threads), open(1, 1)]
  const checks = new FairQueue(MOST_CHECKS, busy)
  async function run(pool: typeof long, task: Task, gone: AbortSignal): Promise<string> {
    const limit = AbortSignal.timeout(milliseconds)
    let answer: Answer
    try {
      answer = await pool.run(task, { signal: AbortSignal.any([gone, limit]) })
    } catch (e) {
      throw whatHappened(e, limit.aborted, milliseconds)
    }
    if ('result' in answer) return answer.result
    if ('refused' in answer) throw new InputError(answer.refused.code, answer.refused.fields)
    throw new Error(answer.failed.message)
  }
  return {
    run: (name, text, gone) => run(calculation(name).long ? long : quick, { calculate: name, text }, gone),
    check: (path, text, gone, client) =>
      checks.run(client, text.length, () => run(quick, { check: path, text }, gone)),
    close: async () => {
      await Promise.all([long.destroy(), quick.destroy()])
    },
  }
}

function whatHappened(e: unknown, timedOut: boolean, milliseconds: number): unknown {
  if (timedOut)
    return new Refusal(
      422,
      'too-long',
      `This calculation was ended after ${milliseconds / 1000} s. Ask for less: fewer pieces, fewer stacks, a coarser grid.`,
    )
  const { name, message, code } = e as { name?: string; message?: string; code?: string }
  if (name === 'AbortError')
    return new Refusal(422, 'ended', 'The calculation was ended: nobody waits for it any more.')
  if (code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new Refusal(422, 'too-large', 'This calculation needs more memory than it may have. Ask for less.')
  if (message === 'Task queue is at limit') return busy()
  return e
}

const busy = () =>
  new Refusal(
    429,
    'busy',
    'Too much is being calculated at once, and nothing was done with this. Send it again in a moment.',
  )
