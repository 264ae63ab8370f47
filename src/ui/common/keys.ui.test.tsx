/** @jest-environment jest-fixed-jsdom */
import { screen } from '@testing-library/react'
import { alone } from '../test/render'
import { views } from '../workspace/views'
import { shortcuts, shortcutsAt, useShortcut, useShortcuts } from './keys'
import { Shortcuts } from './Shortcuts'

const heard: string[] = []
function Listening({ dialog }: { dialog?: boolean }) {
  useShortcut('commands', () => heard.push('commands'))
  useShortcut('undo', () => heard.push('undo'))
  useShortcut('redo', () => heard.push('redo'))
  useShortcut('sheet', () => heard.push('sheet'))
  useShortcuts(['panel', 'print', 'one-line'], step => heard.push(step))
  return (
    <>
      <input aria-label="text" />
      <input type="checkbox" aria-label="tick" />
      <input type="range" aria-label="slide" />
      {dialog && <div role="dialog" />}
    </>
  )
}
beforeEach(() => heard.splice(0))

test('each key does its own thing, on whatever keyboard', async () => {
  const { user } = alone(<Listening />)
  await user.keyboard('20o')
  await user.keyboard('{Control>}z{Shift>}Z{/Shift}y{/Control}')
  await user.keyboard('{Shift>}?{/Shift}')
  expect(heard).toEqual(['panel', 'print', 'one-line', 'undo', 'redo', 'redo', 'sheet'])
  // the browser keeps its own
  await user.keyboard('{Control>}0o{/Control}{Alt>}2{/Alt}')
  expect(heard).toHaveLength(7)
})

test('a letter of a text is no command; a ticked box or a slider is no text; commands are heard anywhere', async () => {
  const { user } = alone(<Listening />)
  await user.type(screen.getByLabelText('text'), '2o?')
  await user.keyboard('{Control>}z{/Control}')
  expect(heard).toEqual([])
  expect(screen.getByDisplayValue('2o?')).toBe(screen.getByLabelText('text'))
  await user.keyboard('{Control>}k{/Control}')
  await user.click(screen.getByLabelText('tick'))
  await user.keyboard('2')
  await user.click(screen.getByLabelText('slide'))
  await user.keyboard('0')
  expect(heard).toEqual(['commands', 'panel', 'print'])
})

test('nothing below a dialog hears', async () => {
  const { user } = alone(<Listening dialog />)
  await user.keyboard('2o{Control>}z{/Control}')
  expect(heard).toEqual([])
})

test('no key means two things in one place, every step has one, and the sheet tells them all', async () => {
  for (const places of [['job'], ['bench']] as const) {
    const keys = places.flatMap(shortcutsAt).flatMap(s => s.keys?.split(', ') ?? [])
    expect(new Set(keys).size).toBe(keys.length)
  }
  for (const { key, label } of views) expect(shortcuts[key].what).toBe(label)
  const { user } = alone(<Shortcuts at={['job', 'panel']} onClose={() => {}} />)
  await user.tab()
  for (const { what } of [...shortcutsAt('job'), ...shortcutsAt('panel')])
    expect(screen.getAllByText(what)).not.toEqual([])
})
