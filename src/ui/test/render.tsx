import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactElement, ReactNode } from 'react'
import type { Job } from '@/core/job/schema'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import './patience'
import './unstacked'
import { newClient, QueryRoot } from '../query'
import { ThemeRoot } from '../theme/ThemeRoot'
import { WorkspaceContext } from '../workspace/store'
import { type Besides, fakeServer, workspaceOf } from './server'

// jsdom's files, and pieces of them, cannot be read yet
const files: Blob = Object.getPrototypeOf(File.prototype)
files.text ??= function (this: Blob) {
  return new Promise(resolve => {
    const reader = new FileReader()
    reader.onload = () => resolve(String(reader.result))
    reader.readAsText(this)
  })
}
files.stream ??= function (this: Blob) {
  return new ReadableStream({
    start: async controller => {
      controller.enqueue(new TextEncoder().encode(await this.text()))
      controller.close()
    },
  })
}

// jsdom lays nothing out: nothing ever changes its size there
global.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
}

// jsdom works out each style of each element asked for by its role: kept out of the page, styles cost no test its time
const unstyled = createCache({ key: 'css', container: document.createElement('div') })
unstyled.insert = (_, { name }) => {
  unstyled.inserted[name] = true
}
const person = () => userEvent.setup({ pointerEventsCheck: 0, delay: null })
const Roots = ({ client, children }: { client: ReturnType<typeof newClient>; children: ReactNode }) => (
  <CacheProvider value={unstyled}>
    <ThemeRoot>
      <QueryRoot client={client}>{children}</QueryRoot>
    </ThemeRoot>
  </CacheProvider>
)

/** A piece of a job's workspace on a page of its own, with a job, a server that answers, and a person who uses it. */
export function inWorkspace(ui: ReactElement, job: Job = alderHollow, besides?: Besides) {
  const server = fakeServer(job, besides)
  const store = workspaceOf(server.record)
  const client = newClient()
  const shown = (piece: ReactElement) => (
    <Roots client={client}>
      <WorkspaceContext value={store}>{piece}</WorkspaceContext>
    </Roots>
  )
  const { rerender, ...page } = render(shown(ui))
  return {
    ...page,
    user: person(),
    store,
    server,
    job: () => store.getState().job,
    again: (piece: ReactElement) => rerender(shown(piece)),
  }
}

/** Any piece by itself. */
export const alone = (ui: ReactElement, client = newClient()) => ({
  ...render(<Roots client={client}>{ui}</Roots>),
  user: person(),
})
