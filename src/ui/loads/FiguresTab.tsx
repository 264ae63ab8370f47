'use client'
import Button from '@mui/material/Button'
import { useState } from 'react'
import type { LoadRow } from '@/core/job/loads-overview'
import { sourcesOf, withChosenStart } from '@/core/loads/evidence'
import { type Figure, type FigureKey, figureKeys, type Known, startFigure } from '@/core/loads/load'
import { rangeOf } from '@/core/loads/uncertainty'
import { figure, quantity } from '@/core/units/format'
import { LoadDialog } from '../panel/LoadDialog'
import { useWorkspace } from '../workspace/store'
import { From } from './From'
import styles from './Loads.module.css'

const rows: Record<FigureKey, { label: string; show: (value: number) => string }> = {
  runningW: { label: 'Running', show: v => quantity(v, 'W') },
  dutyFraction: { label: 'Runs', show: v => `${figure(100 * v)} % of the time` },
  idleW: { label: 'Idle', show: v => quantity(v, 'W') },
  powerFactor: { label: 'Power factor', show: v => figure(v) },
}

/** Each figure by every source that has it; the one in force is marked, and another is one press away. */
export function FiguresTab({ row: { load, circuitId } }: { row: LoadRow }) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [editing, setEditing] = useState(false)
  const choose = (key: FigureKey, was: Figure, known: Known) => {
    const [best] = sourcesOf(was)
    const from = known === best || known.from === best?.from ? null : known.from
    const [fault] = act({ op: 'chooseFigure', circuitId, loadId: load.id, figure: key, from })
    if (fault) say(`Not changed: ${fault.message}`)
  }
  const starts = [load.start, ...(load.otherStarts ?? [])].filter(s => s !== undefined)
  return (
    <>
      <div className={styles.scroll}>
        <table className={styles.table}>
          <tbody>
            {figureKeys.map(key => {
              const was = load[key]
              const { label, show } = rows[key]
              return (
                <tr key={key}>
                  <th scope="row">{label}</th>
                  <td>
                    <div className={styles.fields}>
                      {sourcesOf(was).map(known => {
                        const range = rangeOf(
                          known,
                          key === 'dutyFraction' || key === 'powerFactor' ? 'share' : 'watts',
                        )
                        const here = known.from === was.from
                        return (
                          <button
                            type="button"
                            key={known.from}
                            className={styles.choice}
                            aria-pressed={here}
                            onClick={() => choose(key, was, known)}
                          >
                            <b>{show(known.value)}</b>
                            <From from={known.from} />
                            <small>
                              {key !== 'powerFactor' &&
                                range.high > range.low &&
                                `${show(range.low)} to ${show(range.high)}. `}
                              {known.document} {known.on}
                              {known.atC !== undefined && `, at ${quantity(known.atC, 'C')} outdoors`}
                              {here && was.chosen && ' · chosen by hand'}
                            </small>
                          </button>
                        )
                      })}
                    </div>
                  </td>
                </tr>
              )
            })}
            <tr>
              <th scope="row">Start</th>
              <td>
                <div className={styles.fields}>
                  {starts.map((start, n) => {
                    const known = startFigure(start)
                    return (
                      <button
                        type="button"
                        key={`${start.method} ${known.from}`}
                        className={styles.choice}
                        aria-pressed={n === 0}
                        onClick={() => act({ op: 'putLoad', circuitId, load: withChosenStart(load, n) })}
                      >
                        <b>
                          {start.method === 'multiple'
                            ? `${figure(known.value)} × running`
                            : quantity(known.value, 'A')}
                        </b>
                        <From from={known.from} />
                        <small>
                          {start.method === 'inrush'
                            ? 'inrush'
                            : start.method === 'locked-rotor'
                              ? 'locked rotor'
                              : 'multiple'}{' '}
                          {known.document} {known.on}
                        </small>
                      </button>
                    )
                  })}
                  {!starts.length && (
                    <span className={styles.quiet}>
                      {load.nature === 'plain'
                        ? 'none to speak of'
                        : 'not known: five times running is assumed'}
                    </span>
                  )}
                </div>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p className={styles.quiet}>
        The better source counts, and all are kept: press another to have it count instead. Energy wants a
        meter; a start wants inrush hold or the nameplate’s LRA.
      </p>
      <div className={styles.tools}>
        <Button variant="outlined" onClick={() => setEditing(true)}>
          Edit the figures
        </Button>
      </div>
      {editing && <LoadDialog circuitId={circuitId} load={load} onClose={() => setEditing(false)} />}
    </>
  )
}
