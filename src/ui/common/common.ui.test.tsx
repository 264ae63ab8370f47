/** @jest-environment jest-fixed-jsdom */
import { screen, within } from '@testing-library/react'
import { useState } from 'react'
import * as z from 'zod'
import { labelled } from '@/core/field'
import { within as from } from '@/core/quantity'
import { Choice } from '../form/Choice'
import { EditField, readNumber } from '../form/EditField'
import { FactsDialog } from '../form/FactsDialog'
import { alone, inWorkspace } from '../test/render'
import { AcceptDialog } from './AcceptDialog'
import { FindingCard } from './FindingCard'

function Hours({ refuses = '' }: { refuses?: string }) {
  const [value, setValue] = useState(36)
  return (
    <EditField
      label="Hours"
      unit="h"
      value={String(value)}
      read={readNumber(from(1, 100, 'h'))}
      onCommit={next => {
        if (refuses) return [{ path: '', message: refuses }]
        setValue(next)
        return []
      }}
    />
  )
}
const field = (name: string) => screen.getByLabelText(name) as HTMLInputElement

test.each([
  ['48', '48'],
  ['1,5', '1.5'],
  ['½', '0.5'],
])('a field takes %s as people write it when it is left', async (typed, kept) => {
  const { user } = alone(<Hours />)
  await user.clear(field('Hours'))
  await user.type(field('Hours'), typed)
  await user.tab()
  if (kept === '0.5') expect(screen.getByText(/^Hours must be/)).toBeTruthy()
  else expect(field('Hours').value).toBe(kept)
})

test('a wrong entry stays as typed with the reason beneath; Escape brings back what was', async () => {
  const { user } = alone(<Hours />)
  await user.clear(field('Hours'))
  await user.type(field('Hours'), '500{Enter}')
  expect(field('Hours').value).toBe('500')
  expect(field('Hours').getAttribute('aria-invalid')).toBe('true')
  expect(screen.getByText(/^Hours must be from 1 to 100 h/)).toBeTruthy()
  await user.type(field('Hours'), '{Escape}')
  expect(field('Hours').value).toBe('36')
  expect(screen.queryByText(/^Hours must/)).toBeNull()
})

test('what the job refuses is told at the field too', async () => {
  const { user } = alone(<Hours refuses="must be below the charge" />)
  await user.clear(field('Hours'))
  await user.type(field('Hours'), '48{Enter}')
  expect(screen.getByText('Hours must be below the charge')).toBeTruthy()
  expect(field('Hours').value).toBe('48')
})

test('one of a few is chosen by the keyboard alone', async () => {
  const chosen = jest.fn()
  const { user } = alone(
    <Choice
      label="Colour"
      value="a"
      options={[
        { value: 'a', label: 'first' },
        { value: 'b', label: 'second' },
      ]}
      onChange={chosen}
    />,
  )
  await user.tab()
  expect(document.activeElement).toBe(screen.getByRole('combobox', { name: 'Colour' }))
  await user.keyboard('[Enter][ArrowDown][Enter]')
  expect(chosen).toHaveBeenCalledWith('b')
})

const factsSchema = z.strictObject({
  name: labelled(z.string().min(1, 'must not be empty'), 'Name'),
  fuseA: labelled(from(1, 500, 'A').optional(), 'Fuse', 'A'),
})

test('facts are kept only when all are right; faults stand at their fields, and what was typed stays', async () => {
  const onSave = jest.fn(() => null)
  const onClose = jest.fn()
  const { user } = alone(
    <FactsDialog
      title="A bank"
      schema={factsSchema}
      draft={{ name: 'Cell' }}
      save="Keep"
      onSave={onSave}
      onClose={onClose}
    />,
  )
  const dialog = within(screen.getByRole('dialog'))
  await user.type(dialog.getByLabelText(/Fuse/), '0')
  await user.click(dialog.getByRole('button', { name: 'Keep' }))
  expect(onSave).not.toHaveBeenCalled()
  expect(dialog.getAllByText(/must be from 1 to 500 A/).length).toBeGreaterThan(0)
  await user.type(dialog.getByLabelText(/Fuse/), '{Backspace}125')
  await user.click(dialog.getByRole('button', { name: 'Keep' }))
  expect(onSave).toHaveBeenCalledWith({ name: 'Cell', fuseA: 125 })
  expect(onClose).toHaveBeenCalled()
})

test('what cannot be saved is told, and the dialog stays', async () => {
  const onClose = jest.fn()
  const { user } = alone(
    <FactsDialog
      title="A bank"
      schema={factsSchema}
      draft={{ name: 'Cell' }}
      save="Keep"
      onSave={() => 'Somebody else changed it meanwhile.'}
      onClose={onClose}
    />,
  )
  await user.click(screen.getByRole('button', { name: 'Keep' }))
  expect(screen.getByRole('alert').textContent).toMatch(/Somebody else changed it/)
  expect(onClose).not.toHaveBeenCalled()
})

test('a finding’s fix is one press and is told; a stop is never accepted', async () => {
  const { user, store, again } = inWorkspace(<p>none yet</p>)
  const found = (id: string) => store.getState().evaluation.findings.find(f => f.id === id)
  const stop = found('position.protects')
  if (!stop) throw new Error('the trap is gone')
  again(<FindingCard finding={stop} />)
  expect(screen.queryByRole('button', { name: /Accept/ })).toBeNull()
  await user.click(screen.getByRole('button', { name: 'Plan a 15 A breaker at position 1' }))
  expect(found('position.protects')).toBeUndefined()
  expect(store.getState().notice).toMatch(/done\. Undo takes it back/)
})

test('a finding is accepted by a name and a reason, never without', async () => {
  const { user, store, again } = inWorkspace(<p>none yet</p>)
  const finding = store.getState().evaluation.findings.find(f => f.id === 'neutral.no-tie')
  if (!finding) throw new Error('no finding')
  const onClose = jest.fn()
  again(<AcceptDialog finding={finding} onClose={onClose} />)
  await user.click(screen.getByRole('button', { name: 'Accept' }))
  expect(screen.getByText(/^Reason must not be empty/)).toBeTruthy()
  await user.type(screen.getByLabelText('Reason'), 'A tie is ordered')
  await user.click(screen.getByRole('button', { name: 'Accept' }))
  expect(store.getState().job.accepted).toMatchObject([{ by: 'Designer', reason: 'A tie is ordered' }])
  expect(onClose).toHaveBeenCalled()
})
