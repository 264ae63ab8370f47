/** @jest-environment jest-fixed-jsdom */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import * as z from 'zod'
import { fieldsOf, labelled } from '@/core/field'
import { linkSchema } from '@/core/hookup/design'
import { type Fault, fault, ok, parseWith } from '@/core/outcome'
import { within as from } from '@/core/quantity'
import { arraySchema } from '@/core/source/design'
import { setFirmUnits } from '../common/today'
import { setWho } from '../common/who'
import { alone } from '../test/render'
import { AddLine } from './AddLine'
import { FactsDialog } from './FactsDialog'
import { Form, FormDialog, OtherFaults, Save } from './Form'
import { CheckField, ChoiceField, LineField, NumberField } from './inputs'
import { useChosenUnits, useUnitChoice } from './units'
import { type Said, useSheet } from './useSheet'

const field = (name: string | RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name })
const press = (name: string) => screen.getByRole('button', { name })

beforeEach(() => {
  sessionStorage.clear()
  act(() => useUnitChoice.setState({ length: 'ft', temperature: 'F' }))
})

interface Run {
  name: string
  lengthFt: number | string
  hottestC: number | string
  share: number | string
  metal: string
  buried: boolean
}
const blank: Run = { name: '', lengthFt: '', hottestC: '', share: '', metal: 'cu', buried: false }
const runSchema = z.object({
  name: z.string().min(1, 'must not be empty'),
  lengthFt: from(1, 500, 'ft'),
  hottestC: from(-50, 90, '°C').or(z.literal('')),
  share: from(0, 1, '').or(z.literal('')),
  metal: z.string(),
  buried: z.boolean(),
})

function RunForm({ saves, keep }: { saves: (run: unknown) => Said | Promise<Said>; keep?: string }) {
  const sheet = useSheet<Run, unknown>({
    values: blank,
    keep,
    read: typed => parseWith(runSchema, typed),
    save: saves,
  })
  return (
    <Form sheet={sheet} label="Run">
      <LineField name="name" label="Name" />
      <NumberField name="lengthFt" label="Length" unit="ft" />
      <NumberField name="hottestC" label="Hottest" unit="C" />
      <NumberField name="share" label="Share" unit="fraction" />
      <ChoiceField
        name="metal"
        label="Metal"
        options={[
          { value: 'cu', label: 'copper' },
          { value: 'al', label: 'aluminum' },
        ]}
      />
      <CheckField name="buried" label="Buried" />
      <OtherFaults />
      <Save>Keep</Save>
    </Form>
  )
}

describe('a number', () => {
  test.each([
    ['1,250', 1250],
    ['1.5', 1.5],
    ['1,5', 1.5],
    ['2½', 2.5],
    ['10 m', 32.8083989501],
  ])('typed %s is %d ft', async (typed, lengthFt) => {
    const saves = jest.fn(() => null)
    const { user } = alone(<RunForm saves={saves} />)
    await user.type(field('Name'), 'one')
    await user.type(field('Length'), typed)
    await user.click(press('Keep'))
    if (lengthFt > 500) expect(await screen.findByText(/^Length must be from 1 to 500 ft/)).toBeTruthy()
    else await waitFor(() => expect(saves).toHaveBeenCalledWith(expect.objectContaining({ lengthFt })))
  })

  test('is typed and read in the person’s own measure, and kept in ours; per cent are a fraction', async () => {
    const saves = jest.fn((_: unknown) => null)
    const { user } = alone(<RunForm saves={saves} />)
    await user.type(field('Name'), 'one')
    await user.type(field('Hottest'), '104')
    await user.type(field('Share'), '7')
    act(() => useUnitChoice.setState({ length: 'm' }))
    await user.type(field('Length'), '10')
    expect(screen.getByText('m')).toBeTruthy()
    act(() => useUnitChoice.setState({ temperature: 'C' }))
    expect(field('Hottest').value).toBe('40')
    await user.click(press('Keep'))
    await waitFor(() => expect(saves).toHaveBeenCalled())
    const [run] = saves.mock.calls[0] ?? []
    expect(run).toMatchObject({ hottestC: 40, share: 0.07 })
    expect((run as Run).lengthFt).toBeCloseTo(32.8, 1)
  })

  test('steps by arrows in round steps; what is none stays as typed, and a unit that does not fit is named', async () => {
    const { user } = alone(<RunForm saves={() => null} />)
    await user.type(field('Length'), '140')
    await user.keyboard('[ArrowUp][ArrowUp][ArrowDown]')
    expect(field('Length').value).toBe('150')
    await user.clear(field('Length'))
    await user.type(field('Length'), 'a lot')
    await user.click(press('Keep'))
    expect(await screen.findByText(/^Length /, { selector: 'p' })).toBeTruthy()
    expect(field('Length').value).toBe('a lot')
    expect(field('Length').getAttribute('aria-invalid')).toBe('true')
  })
})

test('what is wrong is told at its field and named above the button; the first one has the focus; put right, it goes', async () => {
  const saves = jest.fn(() => null)
  const { user } = alone(<RunForm saves={saves} />)
  await user.click(press('Keep'))
  expect(await screen.findByText('Name must not be empty')).toBeTruthy()
  expect(screen.getByRole('alert').textContent).toContain('To put right: Name, Length.')
  expect(document.activeElement).toBe(field('Name'))
  await user.type(field('Name'), 'feeder')
  await user.type(field('Length'), '20')
  expect(screen.queryByRole('alert')).toBeNull()
  await user.click(screen.getByRole('checkbox', { name: 'Buried' }))
  await user.click(screen.getByRole('combobox', { name: 'Metal' }))
  await user.click(screen.getByRole('option', { name: 'aluminum' }))
  await user.click(press('Keep'))
  await waitFor(() =>
    expect(saves).toHaveBeenCalledWith(
      expect.objectContaining({ name: 'feeder', metal: 'al', buried: true }),
    ),
  )
})

test('what the server refuses is told, busy meanwhile, and what was typed stays to be sent again', async () => {
  let answer: (said: Said) => void = () => {}
  const { user } = alone(<RunForm saves={() => new Promise<Said>(resolve => (answer = resolve))} />)
  await user.type(field('Name'), 'feeder')
  await user.type(field('Length'), '20{Enter}')
  await waitFor(() => expect(press('Keep')).toHaveProperty('disabled', true))
  act(() => answer('The database cannot be reached.'))
  expect((await screen.findByRole('alert')).textContent).toContain('cannot be reached')
  expect(field('Name').value).toBe('feeder')
  await user.click(press('Keep'))
  act(() => answer([fault('name', 'is taken'), fault('other.thing', 'does not fit')] as Fault[]))
  expect(await screen.findByText('Name is taken')).toBeTruthy()
  expect(screen.getByRole('alert').textContent).toMatch(/thing does not fit/)
})

test('what is typed outlives a reload of the page until it is saved', async () => {
  const { user, unmount } = alone(<RunForm saves={() => null} keep="run" />)
  await user.type(field('Name'), 'half a na')
  unmount()
  const again = alone(<RunForm saves={() => null} keep="run" />)
  await waitFor(() => expect(field('Name').value).toBe('half a na'))
  await again.user.type(field('Length'), '20{Enter}')
  await waitFor(() => expect(sessionStorage.getItem('run')).toBeNull())
})

test('what one has half typed is not there for whoever comes after them in this tab', async () => {
  setWho('ann')
  const { user, unmount } = alone(<RunForm saves={() => null} keep="run" />)
  await user.type(field('Name'), 'dead at 0 V')
  unmount()
  setWho('ben')
  const next = alone(<RunForm saves={() => null} keep="run" />)
  expect(field('Name').value).toBe('')
  next.unmount()
  setWho('ann')
  alone(<RunForm saves={() => null} keep="run" />)
  await waitFor(() => expect(field('Name').value).toBe('dead at 0 V'))
  setWho('')
})

describe('the fields of a schema', () => {
  test('a link of the path: choices, sizes of the metal beside them, a group, and what is left out', async () => {
    const saves = jest.fn((_: unknown) => null)
    const close = jest.fn()
    const { user } = alone(
      <FactsDialog
        title="Wire"
        schema={linkSchema}
        fields={fieldsOf(linkSchema).filter(f => f.key !== 'id')}
        draft={{ id: 'l1', kind: 'wire', ratingA: 30, size: '10', lengthFt: 12 }}
        save="Keep"
        onSave={saves}
        onClose={close}
      />,
    )
    const dialog = within(screen.getByRole('dialog', { name: 'Wire' }))
    await user.clear(dialog.getByRole('textbox', { name: /^Rated/ }))
    await user.click(dialog.getByRole('button', { name: 'Keep' }))
    expect(saves).not.toHaveBeenCalled()
    expect(dialog.getByText(/^Rated.* is missing/)).toBeTruthy()
    await user.type(dialog.getByRole('textbox', { name: /^Rated/ }), '25')
    await user.clear(dialog.getByRole('textbox', { name: /^Length/ }))
    await user.click(dialog.getByRole('button', { name: 'Keep' }))
    await waitFor(() => expect(close).toHaveBeenCalled())
    expect(saves).toHaveBeenCalledWith(expect.objectContaining({ id: 'l1', ratingA: 25 }))
    expect(saves.mock.calls[0]?.[0]).not.toHaveProperty('lengthFt')
  })

  test('a figure that the sheet is silent about is an answer too', async () => {
    const schema = z.object({
      idleW: labelled(from(0, 100, 'W').or(z.literal('not stated')), 'Own draw', 'W'),
    })
    const saves = jest.fn(() => null)
    const { user } = alone(
      <FactsDialog title="Sheet" schema={schema} draft={{}} save="Keep" onSave={saves} onClose={() => {}} />,
    )
    await user.click(screen.getByRole('checkbox', { name: 'not stated' }))
    await user.click(press('Keep'))
    await waitFor(() => expect(saves).toHaveBeenCalledWith({ idleW: 'not stated' }))
  })

  test('rows are added like the last, pasted from a spreadsheet from any row on, and taken out', async () => {
    const schema = z.object({
      rows: labelled(
        z.array(
          z.object({
            hours: labelled(from(0, 100, 'h'), 'Over', 'h'),
            Wh: labelled(from(0, 9000, 'Wh'), 'Energy', 'Wh'),
          }),
        ),
        'Readings',
        'text',
        { row: 'Reading' },
      ),
    })
    const saves = jest.fn((_: unknown) => null)
    const { user } = alone(
      <FactsDialog
        title="Log"
        schema={schema}
        draft={{ rows: [{ hours: 1, Wh: 100 }] }}
        save="Keep"
        onSave={saves}
        onClose={() => {}}
      />,
    )
    await user.click(press('Reading'))
    expect(screen.getAllByRole<HTMLInputElement>('textbox', { name: 'Over' }).map(i => i.value)).toEqual([
      '1',
      '1',
    ])
    const second = screen.getAllByRole('textbox', { name: 'Over' })[1] as HTMLElement
    fireEvent.paste(second, { clipboardData: { getData: () => 'hours\tWh\n2\t200\n3\t300' } })
    await user.click(press('Remove reading 1'))
    await user.click(press('Keep'))
    await waitFor(() =>
      expect(saves).toHaveBeenCalledWith({
        rows: [
          { hours: 2, Wh: 200 },
          { hours: 3, Wh: 300 },
        ],
      }),
    )
  })

  test('every kind of field of an array of modules can be reached by its name', () => {
    alone(
      <FactsDialog
        title="Array"
        schema={arraySchema}
        fields={fieldsOf(arraySchema).filter(f => !['id', 'unitId', 'module', 'owned'].includes(f.key))}
        draft={{ series: 2, parallel: 1 }}
        save="Keep"
        onSave={() => null}
        onClose={() => {}}
      />,
    )
    for (const f of fieldsOf(arraySchema).filter(f => f.kind === 'number' || f.kind === 'whole'))
      expect(
        screen.getAllByRole('textbox', { name: new RegExp(`^${f.title.replace(/[()]/g, '.')}`) }),
      ).toHaveLength(1)
  })
})

test('a line is added by Enter and the field is empty again; a refusal keeps it there', async () => {
  const taken = new Set(['well pump'])
  const onAdd = jest.fn((text: string) => (taken.has(text) ? [fault('wants', 'is on the list already')] : []))
  const { user } = alone(<AddLine label="Add to the list" most={60} onAdd={onAdd} />)
  await user.type(field('Add to the list'), '  furnace {Enter}')
  expect(onAdd).toHaveBeenCalledWith('furnace')
  await waitFor(() => expect(field('Add to the list').value).toBe(''))
  await user.type(field('Add to the list'), 'well pump{Enter}')
  expect(await screen.findByText('Add to the list is on the list already')).toBeTruthy()
  expect(field('Add to the list').value).toBe('well pump')
  await user.clear(field('Add to the list'))
  await user.type(field('Add to the list'), '   {Enter}')
  expect(onAdd).toHaveBeenCalledTimes(2)
})

test('a dialog closes by cancel without saving, and names itself', async () => {
  const close = jest.fn()
  function Asked() {
    const sheet = useSheet({ values: { name: 'x' }, read: typed => ok(typed), save: () => 'never' })
    return (
      <FormDialog
        sheet={sheet}
        title="What is it"
        save="Keep"
        onClose={close}
        extra={<button type="button">Remove</button>}
      >
        <LineField name="name" label="Name" />
      </FormDialog>
    )
  }
  const { user } = alone(<Asked />)
  const dialog = within(screen.getByRole('dialog', { name: 'What is it' }))
  expect(dialog.getByRole('button', { name: 'Remove' })).toBeTruthy()
  await user.click(dialog.getByRole('button', { name: 'Cancel' }))
  expect(close).toHaveBeenCalledTimes(1)
})

test('who has chosen no units reads in the firm’s; who has keeps their own', async () => {
  const Chosen = () => {
    useChosenUnits()
    return <p>{useUnitChoice(s => `${s.length} ${s.temperature}`)}</p>
  }
  setFirmUnits('metric')
  localStorage.clear()
  const { unmount } = alone(<Chosen />)
  expect(await screen.findByText('m C')).toBeTruthy()
  unmount()
  act(() => useUnitChoice.setState({ length: 'ft', temperature: 'C' }))
  alone(<Chosen />)
  expect(await screen.findByText('ft C')).toBeTruthy()
  setFirmUnits('imperial')
  localStorage.clear()
})
