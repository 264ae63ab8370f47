/** @jest-environment jest-fixed-jsdom */
import { act, renderHook, screen, waitFor, within } from '@testing-library/react'
import { useState } from 'react'
import { asItIs, type WhatIf } from '@/core/outage/what-if'
import { wishesSchema } from '@/core/search/wishes'
import { freshet18, sluice22, weirgate36 } from '@/server/seeds/catalogue'
import { fernbrook } from '@/server/seeds/jobs/fernbrook'
import { searching } from '@/workers/desks/searching'
import { weatherFile } from '@/workers/desks/weather-file'
import { useUnitChoice } from '../form/units'
import { inWorkspace } from '../test/render'
import { fakeWorkers } from '../test/workers'
import { AskedFields } from './AskedFields'
import { LivedThrough } from './LivedThrough'
import { useSearch } from './useSearch'
import { useServerSearch } from './useServerSearch'
import { WhatIfBar } from './WhatIfBar'

const field = (name: string | RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name })
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const put = async (user: ReturnType<typeof inWorkspace>['user'], name: string, text: string) => {
  await user.clear(field(name))
  await user.type(field(name), `${text}{Enter}`)
}
beforeEach(() => act(() => useUnitChoice.setState({ temperature: 'F' })))

test.each([
  ['Kept in reserve', '25', { reserveFraction: 0.25 }],
  ['Charge when it begins', '80', { startFraction: 0.8 }],
  ['Capacity left after cold and age', '70', { deratingFraction: 0.7 }],
  ['Begins at', '5:30 pm', { beginsH: 17.5 }],
  ['Coldest or hottest outdoors', '14', { outdoorC: -10 }],
])('%s, typed %s, is kept as the job has it', async (name, text, facts) => {
  const { user, job } = inWorkspace(<AskedFields />)
  await put(user, name, text)
  expect(job().outage).toMatchObject(facts)
})

test.each([
  ['Hours to last', '-3', /must be/],
  ['Kept in reserve', '120', /must be from 0 to 90 %/],
  ['Begins at', '25', /must be an hour of the day/],
  ['Coldest or hottest outdoors', '300', /must be from -58 to 122 °F/],
])('%s, typed %s, stays with the reason', async (name, text, reason) => {
  const { user, job } = inWorkspace(<AskedFields />)
  const before = job().outage
  await put(user, name, text)
  expect(screen.getByText(new RegExp(`^${name} ${reason.source}`))).toBeTruthy()
  expect(field(name).value).toBe(text)
  expect(job().outage).toEqual(before)
})

test('usual lengths by a press; degrees in the person’s measure; a season may be left to what was asked', async () => {
  const { user, job } = inWorkspace(<AskedFields />)
  await user.click(press('72 h'))
  expect(job().outage.hours).toBe(72)
  expect(field('Hours to last').value).toBe('72')
  await put(user, 'Coldest or hottest outdoors', '14')
  await user.click(press('°C'))
  expect(field('Coldest or hottest outdoors').value).toBe('-10')
  await user.click(screen.getByRole('combobox', { name: 'Season' }))
  await user.click(screen.getByRole('option', { name: 'summer' }))
  expect(job().outage.season).toBe('summer')
})

test('what could be otherwise is said beside its slider, changes nothing of the job, and goes by a press', async () => {
  const seen: WhatIf[] = []
  function Held() {
    const [value, setValue] = useState(asItIs)
    seen.push(value)
    return <WhatIfBar value={value} onChange={setValue} />
  }
  const { user, job } = inWorkspace(<Held />)
  const before = job()
  const batteries = screen.getByRole('slider', { name: 'Batteries more' })
  act(() => batteries.focus())
  await user.keyboard('[ArrowRight][ArrowRight]')
  expect(seen.at(-1)?.moreExpansions).toBe(2)
  expect(batteries.getAttribute('aria-valuetext')).toBe('+2')
  await user.click(screen.getByRole('checkbox', { name: 'A kettle at 7:00' }))
  expect(seen.at(-1)?.kettle).toBe(true)
  await user.click(press('As it is again'))
  expect(seen.at(-1)).toEqual(asItIs)
  expect(job()).toBe(before)
})

test('how it is lived through: what is let go when, and hours and spans as people write them', async () => {
  const { user, job } = inWorkspace(<LivedThrough />)
  const choose = async (option: RegExp) => {
    await user.click(screen.getByRole('combobox', { name: 'Circuits are let go' }))
    await user.click(screen.getByRole('option', { name: option }))
  }
  await choose(/^by tier/)
  await put(user, '“May go” off below', '60')
  expect(job().outage.shedding).toMatchObject({ policy: 'by tier', tier3BelowFraction: 0.6 })
  await choose(/^by hand/)
  await put(user, 'Somebody looks at', '7, 12 30')
  expect(screen.getByText(/^Somebody looks at must be one to twelve hours/)).toBeTruthy()
  await put(user, 'Somebody looks at', '7, 12, 18')
  expect(job().outage.shedding?.atH).toEqual([7, 12, 18])
  await choose(/^by schedule/)
  await put(user, 'Tiers 2 and 3 are on', '6-9, 17 to 22')
  expect(job().outage.shedding?.spans).toEqual([
    { fromH: 6, toH: 9 },
    { fromH: 17, toH: 22 },
  ])
  await put(user, 'Latitude', '')
  expect(job().outage.latitudeDeg).toBeUndefined()
})

test('a weather file is read in a worker; one that is none says what is wrong', async () => {
  fakeWorkers(weatherFile)
  const { user, job } = inWorkspace(<LivedThrough />)
  const file = screen.getByLabelText('Weather file, EPW or CSV')
  await user.upload(file, new File(['nothing of the kind'], 'bill.csv', { type: 'text/csv' }))
  expect(await screen.findByText(/^bill.csv: /)).toBeTruthy()
  expect(job().outage.weather).toBeUndefined()
  await user.upload(file, new File(['x'.repeat(8_000_001)], 'decade.csv', { type: 'text/csv' }))
  expect(await screen.findByText(/^decade.csv is larger than 8 MB/)).toBeTruthy()
})

describe('the search', () => {
  const few = [sluice22, weirgate36, freshet18]
  const wishes = { ...wishesSchema.parse({}), mostPrice: 2500 }
  /** The front that so many hands find, some of them slow, one of them dying. */
  const found = async (hands: number, dies = false) => {
    jest.spyOn(navigator, 'hardwareConcurrency', 'get').mockReturnValue(hands)
    const { made, behaviour } = fakeWorkers(searching)
    behaviour.takes = worker => (worker % 3 === 2 ? 6 : 0)
    const { result, unmount } = renderHook(() => useSearch())
    act(() => void result.current.run(fernbrook, few, {}, wishes, 20))
    if (dies) {
      await waitFor(() => expect(made.length).toBeGreaterThan(1))
      act(() => made[1]?.die())
    }
    await waitFor(() => expect(result.current.busy).toBe(false), { timeout: 60_000 })
    const { result: front, sentence, trouble } = result.current
    unmount()
    expect(trouble).toBeNull()
    return JSON.stringify({ front: front?.front, dropped: front?.dropped, sentence })
  }

  test('finds the same by any crew, also where a hand dies', async () => {
    const alone = await found(1)
    expect(alone).toMatch(/"front":\[/)
    expect(await found(3, true)).toBe(alone)
  }, 180_000)

  test('is stopped at once, and says so', async () => {
    const { made } = fakeWorkers(searching)
    const { result } = renderHook(() => useSearch())
    act(() => void result.current.run(fernbrook, few, {}, wishes, 20))
    await waitFor(() => expect(made.length).toBeGreaterThan(0))
    act(() => result.current.stop())
    expect(result.current).toMatchObject({ busy: false, what: 'Stopped', trouble: null })
    expect(made.every(w => w.ended)).toBe(true)
  })
})

test('a search on the server is started, watched and cancelled; one that was over before is not pushed forward', async () => {
  const states: { state: string; done: number }[] = [{ state: 'done', done: 1 }]
  let now = states[0]
  const asked: string[] = []
  function Server() {
    const search = useServerSearch('job')
    return (
      <>
        <output>{search.busy ? `busy ${search.done}` : (search.trouble ?? search.sentence)}</output>
        <button type="button" onClick={() => void search.run(wishesSchema.parse({}))}>
          run
        </button>
        <button type="button" onClick={() => void search.cancel()}>
          cancel
        </button>
      </>
    )
  }
  const told = () =>
    Response.json({
      search: { what: '', result: null, sentence: 'Found.', trouble: null, job: fernbrook, ...now },
    })
  const { user } = inWorkspace(<Server />, fernbrook, (path, init) => {
    if (!path.endsWith('/search')) return null
    if (init?.method === 'POST') {
      const { act: what } = JSON.parse(String(init.body))
      asked.push(what)
      now = what === 'start' ? { state: 'running', done: 0.3 } : { state: 'cancelled', done: 0 }
    }
    return told()
  })
  const said = () => screen.getByRole('status').textContent
  await waitFor(() => expect(said()).toBe(''))
  await user.click(press('run'))
  await waitFor(() => expect(said()).toBe('busy 0.3'))
  now = { state: 'done', done: 1 }
  await waitFor(() => expect(said()).toBe('Found.'))
  await user.click(press('run'))
  await waitFor(() => expect(said()).toBe('busy 0.3'))
  await user.click(press('cancel'))
  await waitFor(() => expect(said()).toBe(''))
  expect(asked).toEqual(['start', 'start', 'cancel'])
  expect(within(document.body).queryByRole('alert')).toBeNull()
})
