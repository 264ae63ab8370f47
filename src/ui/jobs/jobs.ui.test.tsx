/** @jest-environment jest-fixed-jsdom */
import { screen } from '@testing-library/react'
import { circuit, job } from '@/core/job/fixtures/jobs'
import { alone, inWorkspace } from '../test/render'
import { Balance } from '../workspace/Balance'
import { NewJobDialog } from './NewJobDialog'

const push = jest.fn()
jest.mock('next/navigation', () => ({ useRouter: () => ({ push }) }))
let sent: unknown[]
let answers: () => Response

beforeEach(() => {
  sessionStorage.clear()
  sent = []
  push.mockClear()
  answers = () => Response.json({ id: 'new' })
  global.fetch = async (path, init) => {
    if (String(path).includes('templates=true'))
      return Response.json({ rows: [{ id: 't', title: 'Template: Oak' }] })
    sent.push(JSON.parse(String(init?.body)))
    return answers()
  }
})

test('a name opens a job at its first call; with a directory at its panel', async () => {
  const { user } = alone(<NewJobDialog onClose={() => {}} />)
  await user.type(screen.getByLabelText('Name'), 'Mill{Enter}')
  expect(sent).toEqual([{ title: 'Mill', place: '', directory: '' }])
  expect(push).toHaveBeenLastCalledWith('/jobs/new/first')
  await user.type(screen.getByLabelText(/^Breakers/), '1 20 pump')
  await user.click(screen.getByRole('button', { name: 'Open the job' }))
  expect(push).toHaveBeenLastCalledWith('/jobs/new/panel')
})

test('a firm’s template is chosen in the same place; the first field is free meanwhile', async () => {
  const { user } = alone(<NewJobDialog onClose={() => {}} />)
  await user.type(screen.getByLabelText('Name'), 'Mill')
  await user.click(await screen.findByRole('combobox', { name: 'Begin with' }))
  await user.click(screen.getByRole('option', { name: 'Template: Oak' }))
  await user.click(screen.getByRole('button', { name: 'Open the job' }))
  expect(sent).toMatchObject([{ title: 'Mill', template: 't' }])
})

test('every line that cannot be read is told at the field, and what was typed stays', async () => {
  const { user } = alone(<NewJobDialog onClose={() => {}} />)
  const faults = ['“99 20 x”: there is no space 99', '“rubbish”: is no space'].map(message => ({
    path: 'directory',
    message,
  }))
  answers = () => Response.json({ message: 'no', faults }, { status: 400 })
  await user.type(screen.getByLabelText(/^Breakers/), '99 20 x{Enter}rubbish')
  await user.click(screen.getByRole('button', { name: 'Open the job' }))
  for (const { message } of faults) expect(screen.getByText(message, { exact: false })).toBeTruthy()
  expect(screen.getByLabelText<HTMLTextAreaElement>(/^Breakers/).value).toBe('99 20 x\nrubbish')
  answers = () => Response.json({ message: 'The database cannot be reached.', faults: [] }, { status: 503 })
  await user.click(screen.getByRole('button', { name: 'Open the job' }))
  expect((await screen.findByRole('alert')).textContent).toMatch(/cannot be reached.*stays here/)
  expect(push).not.toHaveBeenCalled()
})

test('an empty job says what comes first instead of a balance of nothing, until something is picked', async () => {
  const { unmount } = inWorkspace(<Balance />, { ...job([circuit(1, { picked: false })]), source: undefined })
  const list = await screen.findByRole('list', { name: 'What comes first' })
  expect(list.querySelectorAll('a')).toHaveLength(6)
  // its breaker stands in the panel, and a way is chosen
  expect(screen.getAllByLabelText('done')).toHaveLength(2)
  expect(screen.queryByText('none needed')).toBeNull()
  unmount()
  inWorkspace(<Balance />, job([circuit(1)]))
  expect(screen.queryByRole('list', { name: 'What comes first' })).toBeNull()
  expect(screen.getByText('Run time')).toBeTruthy()
})
