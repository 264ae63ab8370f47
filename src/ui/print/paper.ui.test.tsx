/** @jest-environment jest-fixed-jsdom */
import { fireEvent, screen, within } from '@testing-library/react'
import type { Job } from '@/core/job/schema'
import { labelSheets } from '@/core/work/labels'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { quarryRidge } from '@/server/seeds/jobs/quarry-ridge'
import { LabelPages } from '../labels/LabelPages'
import { LabelsBar } from '../labels/LabelsBar'
import { PanelDirectory } from '../labels/PanelDirectory'
import { OneLineView } from '../oneline/OneLineView'
import { alone, inWorkspace } from '../test/render'
import { JobSheet } from './JobSheet'

const went: string[] = []
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: (to: string) => went.push(to), replace: (to: string) => went.push(to) }),
}))
beforeEach(() => went.splice(0))
const [main] = alderHollow.panels
if (!main) throw new Error('no panel')
const edition = { firm: 'The firm', revision: 7, printedOn: '2026-02-01' }
const sheet = (job: Job) => alone(<JobSheet job={job} {...edition} />)
const section = (name: RegExp) => {
  const found = screen.getByRole('heading', { name }).closest('section')
  if (!found) throw new Error(`no ${name}`)
  return within(found)
}

describe('the card for the door', () => {
  test('names every picked circuit, every need beside what there is, and the usual cautions with their articles', () => {
    sheet(alderHollow)
    const picked = main.circuits.filter(c => c.picked)
    expect(section(/^Picked circuits/).getAllByRole('row').length).toBeGreaterThanOrEqual(picked.length)
    for (const c of picked) expect(screen.getAllByText(new RegExp(c.label)).length).toBeGreaterThan(1)
    const cautions = section(/^Cautions/)
      .getAllByRole('listitem')
      .map(li => li.textContent)
    expect(cautions.length).toBeGreaterThan(3)
    expect(cautions.join()).toMatch(/\(NEC|\(\d{3}/)
    expect(document.body.textContent).toContain('revision 7, 2026-02-01')
    expect(document.body.textContent).not.toMatch(/\bsafe\b|\bapproved\b/i)
  })

  test('what is not settled stands on it, the gravest four and how many more', () => {
    // its cord, its adapters and its wires are gone: a good many findings
    sheet({
      ...alderHollow,
      hookup: { ...alderHollow.hookup, path: [], runs: [], sourceNeutral: 'left off' },
    })
    const open = section(/^Open findings/).getAllByRole('listitem')
    expect(open.length).toBeLessThanOrEqual(5)
    expect(open[0]?.textContent).toMatch(/^stop/)
  })

  test('a job with nothing in it says so, line by line', () => {
    sheet({
      ...alderHollow,
      source: undefined,
      calculations: [],
      panels: [{ ...main, circuits: [], unusable: [3] }],
      hookup: { ...alderHollow.hookup, path: undefined, positions: undefined, switch: undefined },
    })
    expect(screen.getByText('No source is chosen yet.')).toBeTruthy()
    expect(screen.getByText('None.')).toBeTruthy()
    expect(screen.getAllByText('not usable')).toHaveLength(1)
    expect(screen.queryByRole('heading', { name: /^Calculations/ })).toBeNull()
  })

  test('who accepted what stands on it; a calculation that is no longer possible is told, not left out', () => {
    const [finding] = inWorkspace(<i />)
      .store.getState()
      .evaluation.findings.filter(f => f.severity !== 'stop')
    if (!finding) throw new Error('no finding')
    sheet({
      ...alderHollow,
      accepted: [{ key: finding.key, by: 'Site lead', on: '2026-01-30', reason: 'the owner asked for it' }],
      calculations: [
        { id: 'k1', calculator: 'voltage-drop', note: 'Run to the barn', input: {} },
        ...['k2', 'k3', 'k4', 'k5'].map(id => ({ id, calculator: 'gone', note: '', input: {} })),
      ],
    })
    expect(section(/^Accepted/).getByRole('listitem').textContent).toMatch(
      /Accepted by Site lead on 2026-01-30: the owner asked for it/,
    )
    const kept = section(/^Calculations/).getAllByRole('listitem')
    expect(kept[0]?.textContent).toMatch(/^Run to the barn: .*cannot be answered/)
    expect(kept.at(-1)?.textContent).toBe('and 1 more under Calculations.')
  })
})

describe('the directory for the door', () => {
  test('tells what stays on, what nobody has seen die, and the second pole of a two-pole', () => {
    const known = main.circuits.find(c => c.picked && c.traced)
    const circuits = main.circuits.map(c => (c === known ? { ...c, traced: undefined } : c))
    const panel = { ...main, circuits }
    alone(
      <PanelDirectory
        job={{ ...alderHollow, panels: [panel] }}
        panel={panel}
        {...edition}
        house="As planned"
      />,
    )
    const rows = screen.getAllByRole('row').slice(1)
    expect(rows).toHaveLength(main.spaces / 2)
    expect(screen.getByText(`■ ${known?.label} ?`)).toBeTruthy()
    expect(screen.getAllByText(/^second pole of/).length).toBe(circuits.filter(c => c.poles === 2).length)
  })

  test('says from where another panel is fed', () => {
    const second = quarryRidge.panels[1]
    if (!second) throw new Error('one panel only')
    alone(<PanelDirectory job={quarryRidge} panel={second} {...edition} house="As planned" />)
    expect(screen.getByText(new RegExp(`fed from ${quarryRidge.panels[0]?.name}`))).toBeTruthy()
  })
})

describe('labels', () => {
  test('every circuit has its label at its place on the sheet; used ones are passed over', () => {
    const [size] = labelSheets
    if (!size) throw new Error('no sheet')
    const { rerender } = alone(<LabelPages job={alderHollow} panel={main} size={size.key} skip={0} />)
    const first = () =>
      screen.getByRole('region', { name: 'Page 1' }).querySelector<HTMLElement>('[data-small]')?.style
    expect(first()).toMatchObject({ left: `${size.margin.left}in`, top: `${size.margin.top}in` })
    const labels = () => document.querySelectorAll('[data-small]').length
    const all = labels()
    expect(all).toBeGreaterThanOrEqual(main.circuits.length)
    rerender(<LabelPages job={alderHollow} panel={main} size={size.key} skip={size.across} />)
    expect(first()?.top).toBe(`${size.margin.top + size.pitch.y}in`)
    expect(labels()).toBe(all)
  })

  test('the panel, the paper and where to begin go into the address; another paper begins at its first label', async () => {
    const panels = [main, { ...main, id: 'shed', name: 'Shed' }]
    const { user } = alone(
      <LabelsBar jobId="job" panels={panels} panelId={main.id} house="planned" size="30" skip={0} />,
    )
    const choose = async (label: string, option: string | RegExp) => {
      await user.click(screen.getByRole('combobox', { name: label }))
      await user.click(screen.getByRole('option', { name: option }))
    }
    await choose('Begin at label', '4')
    await choose('Panel', 'Shed')
    await choose('On', 'a page: the directory')
    expect(went).toEqual([
      `/jobs/job/labels?panel=${main.id}&house=planned&size=30&skip=3`,
      '/jobs/job/labels?panel=shed&house=planned&size=30',
      `/jobs/job/labels?panel=${main.id}&house=planned&size=directory`,
    ])
  })
})

test('a press on a part of the one-line leads to where it is changed; with Ctrl the browser does as it does', () => {
  inWorkspace(<OneLineView today="2026-02-01" firm="The firm" />)
  const [part] = screen.getAllByRole('link', { name: /Riffle 6/ })
  if (!part) throw new Error('no such part')
  fireEvent.click(part)
  expect(went).toEqual([part.getAttribute('href')])
  expect(went[0]).toMatch(/^\/jobs\/job\/hook-up/)
  fireEvent.click(part, { ctrlKey: true })
  expect(went).toHaveLength(1)
})
