import { type Remote, wrap } from 'comlink'

/** The worker is gone before it answered, and so was the one after it. */
export class WorkerLost extends Error {
  constructor() {
    super('It could not be loaded. Load the page again.')
  }
}

/** One worker of a pool. What it was told before is kept by `knows`; a new worker in its place knows nothing. */
export interface Member<T> {
  api: Remote<T>
  knows: unknown
}

interface Seat<T> extends Member<T> {
  worker: Worker
  /** ends what it works at, when it is lost or let go */
  lose: (why: Error) => void
}

const dropped = () => new DOMException('No longer wanted', 'AbortError')
/** Whether work ended because nobody wanted it any more. */
export const wasDropped = (error: unknown) => error instanceof DOMException && error.name === 'AbortError'

/**
 * Workers that are started when they are needed and used again. Work is handed to whoever is free, in the order it came; a
 * worker that dies is replaced and its work done once more; `clear` drops what waits, `stop` also what is worked at.
 */
export class Pool<T> {
  private readonly free: Seat<T>[] = []
  private readonly all = new Set<Seat<T>>()
  private queue: { start: (seat: Seat<T>) => void; drop: () => void }[] = []

  constructor(
    private readonly make: () => Worker,
    readonly size: number,
  ) {}

  /** Does a piece of work on a free worker. Rejects with `WorkerLost`, or with an AbortError where it was dropped. */
  run<P extends Promise<unknown>>(work: (member: Member<T>) => P): Promise<Awaited<P>> {
    return new Promise<Awaited<P>>((resolve, reject) => {
      let tries = 0
      const start = (seat: Seat<T>) => {
        // work that throws at once fails like any other
        const begun = async (): Promise<Awaited<P>> => await work(seat)
        const lost = new Promise<never>((_, lose) => {
          seat.lose = lose
        })
        Promise.race([begun(), lost]).then(
          value => {
            this.release(seat)
            resolve(value)
          },
          (error: unknown) => {
            if (this.all.has(seat)) this.release(seat)
            if (!(error instanceof WorkerLost) || ++tries > 1) return reject(error)
            this.queue.unshift(asked)
            this.deal()
          },
        )
      }
      const asked = { start, drop: () => reject(dropped()) }
      this.queue.push(asked)
      this.deal()
    })
  }

  /** Drops what waits; what is worked at goes on. */
  clear(): void {
    const { queue } = this
    this.queue = []
    for (const asked of queue) asked.drop()
  }

  /** Drops everything and lets the workers go; the next work starts new ones. */
  stop(): void {
    this.clear()
    for (const seat of [...this.all]) this.end(seat, dropped())
  }

  private deal(): void {
    while (this.queue.length) {
      const seat = this.free.pop() ?? (this.all.size < this.size ? this.seat() : null)
      if (!seat) return
      this.queue.shift()?.start(seat)
    }
  }

  private release(seat: Seat<T>): void {
    seat.lose = () => {}
    this.free.push(seat)
    this.deal()
  }

  private seat(): Seat<T> {
    const worker = this.make()
    const seat: Seat<T> = { worker, api: wrap<T>(worker), knows: undefined, lose: () => {} }
    worker.addEventListener('error', () => this.end(seat, new WorkerLost()))
    this.all.add(seat)
    return seat
  }

  private end(seat: Seat<T>, why: Error): void {
    this.all.delete(seat)
    const at = this.free.indexOf(seat)
    if (at >= 0) this.free.splice(at, 1)
    seat.worker.terminate()
    seat.lose(why)
  }
}

/** As many as there are cores, within reason. */
export const crewSize = (most: number) =>
  Math.max(1, Math.min(most, typeof navigator === 'undefined' ? 2 : (navigator.hardwareConcurrency ?? 2)))
