import { render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactElement } from 'react'
import type { Job } from '@/core/job/schema'
import { alderHollow } from '@/server/seeds/jobs'
import { newClient, QueryRoot } from '../query'
import { ThemeRoot } from '../theme/ThemeRoot'
import { WorkspaceContext } from '../workspace/store'
import { type Besides, fakeServer, workspaceOf } from './server'

// jsdom's files cannot be read yet
File.prototype.text ??= function (this: File) {
  return new Promise(resolve => {
    const reader = new FileReader()
    reader.onload = () => resolve(String(reader.result))
    reader.readAsText(this)
  })
}

/** A piece of a job's workspace on a page of its own, with a job, a server that answers, and a person who uses it. */
export function inWorkspace(ui: ReactElement, job: Job = alderHollow, besides?: Besides) {
  const server = fakeServer(job, besides)
  const store = workspaceOf(server.record)
  const client = newClient()
  const shown = (piece: ReactElement) => (
    <ThemeRoot>
      <QueryRoot client={client}>
        <WorkspaceContext value={store}>{piece}</WorkspaceContext>
      </QueryRoot>
    </ThemeRoot>
  )
  const { rerender, ...page } = render(shown(ui))
  return {
    ...page,
    user: userEvent.setup(),
    store,
    server,
    job: () => store.getState().job,
    again: (piece: ReactElement) => rerender(shown(piece)),
  }
}

/** Any piece by itself. */
export const alone = (ui: ReactElement, client = newClient()) => ({
  ...render(
    <ThemeRoot>
      <QueryRoot client={client}>{ui}</QueryRoot>
    </ThemeRoot>,
  ),
  user: userEvent.setup(),
})
