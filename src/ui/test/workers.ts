import './patience'
import { expose } from 'comlink'

type Listener = (event: MessageEvent) => void

/** How long the worker of a number takes to answer, ms; the first is 0. */
type Takes = (worker: number) => number

/** One end of a line between a page and a worker; what is said at it is heard at the other. */
class End {
  private heard = new Set<Listener>()
  other?: End
  closed = false
  constructor(readonly delay: () => number) {}
  addEventListener = (_: string, hear: unknown) => {
    this.heard.add(hear as Listener)
  }
  removeEventListener = (_: string, hear: unknown) => {
    this.heard.delete(hear as Listener)
  }
  start = () => {}
  close = () => {}
  postMessage = (said: object) => {
    const data = copied(said)
    setTimeout(() => {
      if (this.closed || this.other?.closed) return
      for (const hear of this.other?.heard ?? [])
        hear({ data, ports: [], origin: '' } as unknown as MessageEvent)
    }, this.delay())
  }
}

function joined(delay: () => number): [End, End] {
  const ends: [End, End] = [new End(delay), new End(delay)]
  ends[0].other = ends[1]
  ends[1].other = ends[0]
  return ends
}

/** A copy as a worker gets it; the ends of lines that are handed along stay themselves, as do files, which cannot change. */
function copied(said: object): unknown {
  const given = 'argumentList' in said && Array.isArray(said.argumentList) ? said.argumentList : []
  const ends = given.map(one => (one?.value instanceof End || one?.value instanceof File ? one.value : null))
  const copy = structuredClone({
    ...said,
    ...(given.length && { argumentList: given.map((one, n) => (ends[n] ? { ...one, value: null } : one)) }),
  })
  for (const [n, end] of ends.entries())
    if (end) Reflect.set(Reflect.get(Reflect.get(copy, 'argumentList') ?? [], n), 'value', end)
  return copy
}

/**
 * Workers with a desk of their own, as `make` makes it, and nothing else; without it they never answer. Each message is copied,
 * and takes its time; `made` lists them in the order they were started.
 */
export function fakeWorkers(make?: () => object) {
  const made: FakeWorker[] = []
  const behaviour: { takes: Takes } = { takes: () => 0 }

  class FakeWorker {
    private readonly number = made.push(this) - 1
    private readonly page: End
    private errors = new Set<() => void>()
    ended = false
    constructor() {
      const [page, inside] = joined(() => behaviour.takes(this.number))
      this.page = page
      const desk = make?.()
      if (desk) expose(desk, inside as never)
    }
    postMessage = (said: object) => this.page.postMessage(said)
    removeEventListener = (type: string, hear: unknown) => this.page.removeEventListener(type, hear)
    addEventListener = (type: string, hear: () => void) => {
      if (type === 'error') this.errors.add(hear)
      else this.page.addEventListener(type, hear)
    }
    /** It dies, as a worker does whose script cannot be had. */
    die() {
      this.page.closed = true
      for (const hear of this.errors) hear()
    }
    terminate() {
      this.ended = true
      this.page.closed = true
    }
  }
  class FakeChannel {
    readonly port1: End
    readonly port2: End
    constructor() {
      ;[this.port1, this.port2] = joined(() => 0)
    }
  }
  global.Worker = FakeWorker as never
  global.MessageChannel = FakeChannel as never
  return { made, behaviour }
}
