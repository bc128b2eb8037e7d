interface Waiting {
  client: string
  size: number
  begin: () => void
}

/**
 * Work for one pair of hands: who was served longest ago comes next, and of his the smallest first. Whoever brings much waits for himself, and nobody
 * behind him.
 */
export class FairQueue {
  readonly #waiting: Waiting[] = []
  readonly #served = new Map<string, number>()
  #turn = 0
  #busy = false

  /** @param most that may wait; what comes beyond is for `full` to refuse */
  constructor(
    private readonly most: number,
    private readonly full: () => Error,
  ) {}

  /** Does the work when its turn has come. @throws what `full` makes, when too many wait already */
  async run<T>(client: string, size: number, work: () => Promise<T>): Promise<T> {
    if (this.#busy) {
      if (this.#waiting.length >= this.most) throw this.full()
      await new Promise<void>((begin) => this.#waiting.push({ client, size, begin }))
    }
    this.#busy = true
    this.#served.set(client, ++this.#turn)
    try {
      return await work()
    } finally {
      this.#next()
    }
  }

  #next(): void {
    const before = (a: Waiting, b: Waiting) =>
      (this.#served.get(a.client) ?? 0) - (this.#served.get(b.client) ?? 0) || a.size - b.size
    const [first] = [...this.#waiting].sort(before)
    this.#busy = first !== undefined
    if (first) {
      this.#waiting.splice(this.#waiting.indexOf(first), 1)
      first.begin()
    } else this.#served.clear()
  }
}
