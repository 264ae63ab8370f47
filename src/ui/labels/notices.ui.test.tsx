/** @jest-environment jest-fixed-jsdom */
import { act, screen, within } from '@testing-library/react'
import { saltmarshLane } from '@/server/seeds/jobs'
import { inWorkspace } from '../test/render'
import { NoticesView } from './NoticesView'

const textOf = (element: Element | null | undefined) => element?.textContent ?? ''

test('notices say where they go and who asks for them; once printed, only what reads otherwise is printed again', async () => {
  const { user, store } = inWorkspace(<NoticesView />, saltmarshLane)
  const table = () => screen.getByRole('table', { name: 'Labels and where they go' })
  expect(textOf(within(table()).getByRole('row', { name: /nonseparately derived/ }))).toContain(
    'NEC 702.7(C)',
  )
  expect(screen.getByRole('img', { name: /^Where they go: service equipment 1–2; inlet 3/ })).toBeDefined()
  expect(textOf(screen.getByRole('region', { name: 'Page 1' }))).toContain('CAUTION: TWO SOURCES OF SUPPLY')
  await user.click(screen.getByRole('button', { name: 'They are printed' }))
  expect(screen.getByText('All of these are printed as they read now.')).toBeDefined()
  expect(store.getState().undos).toHaveLength(1)
  act(
    () =>
      void store
        .getState()
        .act({ op: 'setHookup', facts: { inlet: { ...saltmarshLane.hookup.inlet, ratingA: 20 } as never } }),
  )
  expect(await screen.findByText(/\. 1 notice, .*not printed as they read now/)).toBeDefined()
  await user.click(screen.getByRole('button', { name: /^Wire markers/ }))
  expect(textOf(screen.getByRole('region', { name: 'Page 1' }))).toContain('IN L1')
})
