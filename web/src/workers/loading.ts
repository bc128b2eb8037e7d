import { moduleGone } from '../wire/stale-page.ts'

/**
 * A worker, and a promise that fails when it cannot be loaded: its file has another name since the last upgrade of Moray, or the line is down. Without
 * it a question to it would wait for ever.
 */
export function watched(worker: Worker): { worker: Worker; failed: Promise<never> } {
  const failed = new Promise<never>((_, fail) =>
    worker.addEventListener('error', (e) => {
      // an error of a calculation comes back as its answer; one without a message is the file itself
      if (!e.message) moduleGone()
      fail(
        new Error(
          e.message ||
            'A part of Moray could not be loaded. Load the page anew; what you typed is still there.',
        ),
      )
    }),
  )
  // it is listened to by whoever asks
  failed.catch(() => {})
  return { worker, failed }
}
