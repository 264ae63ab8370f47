import type { CSSProperties, ReactNode } from 'react'
import type { Job } from '@/core/job/schema'
import type { Panel } from '@/core/panel/schema'
import {
  type Label,
  type LabelSheet,
  labelPages,
  labelSheets,
  labelsOf,
  labelTapes,
  spacePitchIn,
  tapeOf,
} from '@/core/work/labels'
import styles from './Labels.module.css'
import { LegMark } from './LegMark'

interface Props {
  job: Job
  panel: Panel
  size: string
  skip: number
}

/** Labels at their true size: a sheet of them, or strips of tape as high as the breakers beside them. */
export function LabelPages({ job, panel, size, skip }: Props) {
  const sheet = labelSheets.find(s => s.key === size)
  const tape = labelTapes.find(t => t.key === size)
  if (tape)
    return (
      <div className={styles.tapes}>
        <style>{'@page { size: letter landscape; margin: 0.25in }'}</style>
        {(['left', 'right'] as const).map(side => (
          <section key={side} aria-label={`Tape for the ${side} side`}>
            <h2>
              {panel.name}, {side} side
            </h2>
            <ol className={styles.tape} style={{ '--tape': `${tape.widthIn}in` } as CSSProperties}>
              {tapeOf(job, panel, side).map(cell => (
                <li key={cell.key} style={{ width: `${cell.spaces * spacePitchIn}in` }}>
                  {cell.labels.length ? (
                    cell.labels.map(l => <TapeLabel key={l.id} label={l} />)
                  ) : (
                    <span>{cell.key}</span>
                  )}
                </li>
              ))}
            </ol>
          </section>
        ))}
        <p className="no-print">
          One inch for each space, as full-size breakers stand; the strip is turned along the tape. Long
          strips are cut where a breaker ends.
        </p>
      </div>
    )
  if (!sheet) return null
  return (
    <SheetPages sheet={sheet} items={labelsOf(job, panel)} skip={skip} keyOf={l => l.id}>
      {l => (
        <>
          <b>{l.place}</b>
          <span>{l.text}</span>
          <small>
            {l.rating} <LegMark leg={l.leg} /> {l.picked && '■'}
          </small>
        </>
      )}
    </SheetPages>
  )
}

interface SheetProps<T> {
  sheet: LabelSheet
  items: readonly T[]
  skip: number
  keyOf: (item: T) => string
  children: (item: T) => ReactNode
}

/** Labels on the pages of a sheet, each where its paper is cut. */
export function SheetPages<T>({ sheet, items, skip, keyOf, children }: SheetProps<T>) {
  const { page, margin, pitch, label, across } = sheet
  return (
    <div className={styles.pages}>
      {/* the sheet has its own margins, measured from the edge of the paper */}
      <style>{'@page { size: letter; margin: 0 }'}</style>
      {labelPages(items, sheet, skip).map((labels, n) => (
        <section
          // biome-ignore lint/suspicious/noArrayIndexKey: pages have nothing but their number
          key={n}
          className={styles.page}
          style={{ width: `${page.width}in`, height: `${page.height}in` }}
          aria-label={`Page ${n + 1}`}
        >
          {labels.map(
            (l, i) =>
              l && (
                <div
                  key={keyOf(l)}
                  className={styles.label}
                  data-small={label.height < 0.8}
                  style={{
                    left: `${margin.left + (i % across) * pitch.x}in`,
                    top: `${margin.top + Math.floor(i / across) * pitch.y}in`,
                    width: `${label.width}in`,
                    height: `${label.height}in`,
                  }}
                >
                  {children(l)}
                </div>
              ),
          )}
        </section>
      ))}
    </div>
  )
}

function TapeLabel({ label }: { label: Label }) {
  return (
    <span className={styles.tapeLabel}>
      <b>{label.place}</b> <LegMark leg={label.leg} /> {label.text}
      {label.picked && ' ■'}
    </span>
  )
}
