import { expose } from 'comlink'

type Listener = (event: MessageEvent) => void

/** How long the worker of a number takes to answer, ms; the first is 0. */
export type Takes = (worker: number) => number

/**
 * Workers with their own code and nothing else: each message is copied, and takes its time. `load` reads the worker's module,
 * which exposes itself on the global; `made` lists them in the order they were started.
 */
export function fakeWorkers(load: () => unknown) {
  const made: FakeWorker[] = []
  const behaviour: { takes: Takes } = { takes: () => 0 }

  class Side {
    private heard = new Set<Listener>()
    to?: Side
    closed = false
    constructor(private readonly number: number) {}
    addEventListener = (_: string, hear: unknown) => {
      this.heard.add(hear as Listener)
    }
    removeEventListener = (_: string, hear: unknown) => {
      this.heard.delete(hear as Listener)
    }
    start = () => {}
    postMessage = (said: unknown, transfer: unknown[] = []) => {
      const ports = transfer.filter(t => t instanceof MessagePort) as MessagePort[]
      const data = structuredClone(said, { transfer: ports })
      setTimeout(() => {
        if (this.closed || this.to?.closed) return
        for (const hear of this.to?.heard ?? []) hear({ data, ports, origin: '' } as unknown as MessageEvent)
      }, behaviour.takes(this.number))
    }
  }

  class FakeWorker {
    readonly number = made.push(this) - 1
    private readonly page = new Side(this.number)
    private errors = new Set<() => void>()
    ended = false
    postMessage = this.page.postMessage
    removeEventListener = this.page.removeEventListener
    constructor() {
      const inside = new Side(this.number)
      this.page.to = inside
      inside.to = this.page
      const was = globalThis.addEventListener
      jest.isolateModules(() => {
        jest.doMock('comlink', () => ({
          ...jest.requireActual('comlink'),
          expose: (api: unknown) => expose(api, inside as never),
        }))
        load()
        jest.dontMock('comlink')
      })
      globalThis.addEventListener = was
    }
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
  global.Worker = FakeWorker as never
  return { made, behaviour }
}
