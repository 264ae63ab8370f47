/** @jest-environment jsdom */
import { render, screen, within } from '@testing-library/react'
import { circuit, job } from '@/core/job/fixtures/jobs'
import { labelSheets, labelTapes } from '@/core/work/labels'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { quarryRidge } from '@/server/seeds/jobs/quarry-ridge'
import { alone } from '../test/render'
import { LabelPages } from './LabelPages'
import { LabelsBar } from './LabelsBar'
import { PanelDirectory } from './PanelDirectory'

const replaced: string[] = []
jest.mock('next/navigation', () => ({ useRouter: () => ({ replace: (to: string) => replaced.push(to) }) }))
beforeEach(() => replaced.splice(0))

const panelOf = (j: typeof alderHollow, n = 0) => {
  const panel = j.panels[n]
  if (!panel) throw new Error('no panel')
  return panel
}
const directory = (j: typeof alderHollow, more: Partial<Parameters<typeof PanelDirectory>[0]> = {}, n = 0) =>
  render(
    <PanelDirectory
      job={j}
      panel={panelOf(j, n)}
      house="As found"
      firm="The firm"
      revision={7}
      printedOn="1 March 2026"
      {...more}
    />,
  )
const rows = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map(r => r.textContent ?? '')

describe('the directory', () => {
  test('a row for two spaces across; what stays on, what is not certain and what is free are told', () => {
    directory(
      job([
        circuit(1, { label: 'Refrigerator' }),
        circuit(2, { poles: 2, label: 'Range', breakerA: 50, picked: false }),
        circuit(3, {
          label: 'Attic',
          picked: false,
          traced: { by: 'guess', on: '2026-01-01', found: 'maybe' } as never,
        }),
      ]),
    )
    expect(rows()[0]).toMatch(/^1■ Refrigerator20.*50Range2$/)
    expect(rows()[1]).toMatch(/^3Attic \?20.*second pole of Range4$/)
    expect(rows()[2]).toMatch(/free/)
    expect(rows()).toHaveLength(6)
  })

  test('a tandem’s halves stand one above the other in one space, and a space that cannot be used says so', () => {
    directory(
      job(
        [
          circuit(5, { id: 'up', half: 'a', label: 'Up' }),
          circuit(5, { id: 'down', half: 'b', label: 'Down' }),
        ],
        {
          panel: { unusable: [7] },
        },
      ),
    )
    expect(rows()[2]).toMatch(/A Up.*B Down/)
    expect(rows()[3]).toMatch(/not usable/)
  })

  test('it says what feeds the panel, which picture of the house it is, its revision and that it is a plan', () => {
    directory(quarryRidge, { house: 'As planned' }, 1)
    expect(screen.getByText(/fed from House panel/)).toBeTruthy()
    expect(
      screen.getByText(/As planned\. The firm, revision 7, 1 March 2026\. NEC \d{4}, 408\.4\(A\)/),
    ).toBeTruthy()
    expect(document.body.textContent).not.toMatch(/\b(safe|approved)\b/i)
  })

  test('of a breaker that is only planned nobody doubts that it was seen to die', () => {
    const planned = job([circuit(1, { label: 'Feeder', traced: undefined as never })])
    directory(planned, { marks: new Map([['c1', '+']]) })
    expect(rows()[0]).toMatch(/^1\+ ■ Feeder20/)
    expect(screen.queryByText(/no one has seen it die/)).toBeNull()
  })

  test('planned signs stand before their circuit and are explained below; without any nothing is explained', () => {
    const j = job([circuit(1, { label: 'Refrigerator' })])
    const { unmount } = directory(j, { marks: new Map([['c1', '↷']]) })
    expect(rows()[0]).toMatch(/^1↷ ■ Refrigerator/)
    expect(screen.getByText(/↷ moved/)).toBeTruthy()
    unmount()
    directory(j)
    expect(screen.queryByText(/↷ moved/)).toBeNull()
  })
})

describe('labels', () => {
  test.each(labelSheets.map(s => [s.name, s] as const))(
    '%s: every label lies on its page, none on another',
    (_, sheet) => {
      const { container } = render(
        <LabelPages job={alderHollow} panel={panelOf(alderHollow)} size={sheet.key} skip={3} />,
      )
      const boxes = [...container.querySelectorAll<HTMLElement>('section > div')].map(d => ({
        page: d.parentElement,
        left: Number.parseFloat(d.style.left),
        top: Number.parseFloat(d.style.top),
        right: Number.parseFloat(d.style.left) + Number.parseFloat(d.style.width),
        bottom: Number.parseFloat(d.style.top) + Number.parseFloat(d.style.height),
      }))
      expect(boxes).toHaveLength(panelOf(alderHollow).circuits.length)
      for (const b of boxes) {
        expect(b.right).toBeLessThanOrEqual(sheet.page.width + 1e-6)
        expect(b.bottom).toBeLessThanOrEqual(sheet.page.height + 1e-6)
        const onto = boxes.filter(
          o =>
            o !== b &&
            o.page === b.page &&
            o.left < b.right - 1e-6 &&
            b.left < o.right - 1e-6 &&
            o.top < b.bottom - 1e-6 &&
            b.top < o.bottom - 1e-6,
        )
        expect(onto).toEqual([])
      }
    },
  )

  test('a tape is an inch for each space, on both sides, whatever stands there', () => {
    const [tape] = labelTapes
    render(<LabelPages job={alderHollow} panel={panelOf(alderHollow)} size={tape?.key ?? ''} skip={0} />)
    for (const side of ['left', 'right']) {
      const strip = within(screen.getByRole('region', { name: `Tape for the ${side} side` }))
      const inches = strip.getAllByRole('listitem').map(li => Number.parseFloat(li.style.width))
      expect(inches.reduce((a, b) => a + b, 0)).toBeCloseTo(panelOf(alderHollow).spaces / 2, 9)
    }
  })

  test('a size that is none prints nothing', () => {
    const { container } = render(
      <LabelPages job={alderHollow} panel={panelOf(alderHollow)} size="a0" skip={0} />,
    )
    expect(container.innerHTML).toBe('')
  })
})

test('the bar leads to panel, house, paper and first label by the address; another paper begins at its first', async () => {
  const [sheet] = labelSheets
  if (!sheet) throw new Error('no sheet')
  const { user } = alone(
    <LabelsBar
      jobId="j"
      panels={[
        { id: 'main', name: 'Main' },
        { id: 'sub', name: 'Sub' },
      ]}
      panelId="main"
      house="found"
      size={sheet.key}
      skip={2}
    />,
  )
  const pick = async (label: string, option: string) => {
    await user.click(screen.getByRole('combobox', { name: label }))
    await user.click(screen.getByRole('option', { name: option }))
  }
  await pick('Panel', 'Sub')
  await pick('Begin at label', '5')
  await pick('On', 'a page: the directory')
  expect(replaced).toEqual([
    `/jobs/j/labels?panel=sub&house=found&size=${sheet.key}&skip=2`,
    `/jobs/j/labels?panel=main&house=found&size=${sheet.key}&skip=4`,
    '/jobs/j/labels?panel=main&house=found&size=directory',
  ])
  expect(screen.getByRole('link', { name: 'drawing (SVG)' }).getAttribute('href')).toBe(
    '/api/jobs/j/drawing?panel=main&house=found',
  )
})
