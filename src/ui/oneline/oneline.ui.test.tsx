/** @jest-environment jest-fixed-jsdom */
import { fireEvent, screen } from '@testing-library/react'
import { quarryRidge } from '@/server/seeds/jobs/quarry-ridge'
import { saltmarshLane } from '@/server/seeds/jobs/saltmarsh-lane'
import { inWorkspace } from '../test/render'
import { OneLineView } from './OneLineView'

const pushed: string[] = []
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: (to: string) => pushed.push(to) }) }))
beforeEach(() => pushed.splice(0))

const shown = (j = saltmarshLane) => inWorkspace(<OneLineView today="2026-03-01" firm="The firm" />, j)
const words = () => [...document.querySelectorAll('svg')].map(svg => svg.textContent).join(' ')

test('as planned everything is drawn; as found nothing of the plan, and the file follows the toggle', async () => {
  const { user } = shown()
  expect(words()).toMatch(/Weirgate combiner/)
  const file = () => screen.getByRole('link', { name: 'SVG' }).getAttribute('href')
  expect(file()).toBe('/api/jobs/job/one-line?house=planned')
  await user.click(screen.getByRole('button', { name: 'As found' }))
  expect(words()).not.toMatch(/Weirgate combiner/)
  expect(words()).toMatch(/Solar on the shed/)
  expect(file()).toBe('/api/jobs/job/one-line?house=found')
})

test('a press on a part leads to where it is changed; with the modifier the browser does what it does', () => {
  shown()
  const part = [...document.querySelectorAll('svg a')].find(a => /Weirgate 36/.test(a.textContent ?? ''))
  if (!part) throw new Error('no part')
  fireEvent.click(part)
  expect(pushed).toEqual([part.getAttribute('href')])
  expect(pushed[0]).toMatch(/^\/jobs\/job\/source/)
  fireEvent.click(part, { ctrlKey: true })
  expect(pushed).toHaveLength(1)
})

test('a change of the job is drawn anew; a name that looks like markup stays a name', () => {
  const { store } = shown()
  store.getState().act({ op: 'setPanel', panelId: 'main', facts: { name: '<b>Main & co</b>' } } as never)
  expect(store.getState().job.panels[0]?.name).toBe('<b>Main & co</b>')
  expect(document.querySelector('svg b')).toBeNull()
})

test('a panel that is only planned carries its sign', () => {
  shown(quarryRidge)
  expect(words()).toMatch(/\+ Critical-load panel/)
})
