'use client'
import { ListItemButton, Paper } from '@mui/material'
import dynamic from 'next/dynamic'
import { usePathname } from 'next/navigation'
import { type MouseEvent, useCallback, useEffect, useState } from 'react'
import { calculators } from '@/core/calculators'
import { useShortcut } from '../common/keys'
import { Column, Quiet } from '../common/pieces'
import { type PersonChoice, TopBar } from '../common/TopBar'
import type { Draft } from '../form/draft'
import { useChosenUnits } from '../form/units'
import styles from './Bench.module.css'
import { CalculatorView, focusFirst } from './CalculatorView'
import { benchPath, Finder } from './Finder'
import type { Origin } from './origin'
import { UnitToggles } from './UnitToggles'

const Shortcuts = dynamic(() => import('../common/Shortcuts').then(m => m.Shortcuts))

const nameIn = (path: string) => path.split('/')[2] ?? null

interface Props {
  person: PersonChoice
  /** the inputs that came with the link */
  given: Draft | null
  /** the job, and the calculation kept in it, that a question was opened from */
  from: Origin | null
}

/** The bench: every calculator, outside any job. What was typed stays while one looks at another question. */
export function Bench({ person, given, from }: Props) {
  // what is open is kept here: the address follows it, and leads only when one goes back or forth
  const path = usePathname()
  const [name, setName] = useState(nameIn(path))
  useEffect(() => setName(nameIn(path)), [path])
  const calculator = calculators.find(c => c.name === name)
  const [drafts, setDrafts] = useState<Record<string, Draft>>(() => (name && given ? { [name]: given } : {}))
  const onDraft = useCallback(
    (draft: Draft) => {
      if (name) setDrafts(all => ({ ...all, [name]: draft }))
    },
    [name],
  )
  const [sheet, setSheet] = useState(false)
  // busy until it answers keys
  const [live, setLive] = useState(false)
  useChosenUnits()
  useEffect(() => setLive(true), [])
  useShortcut('sheet', () => setSheet(true))
  // a link opened directly leaves the focus alone; a question picked here goes on at its first field
  const [picked, setPicked] = useState(false)
  const open = (next: string) => {
    setPicked(true)
    setName(next)
    if (next === name) return focusFirst()
    // the bench is one screen: no round trip to the server between two questions
    window.history.pushState(null, '', benchPath(next))
  }
  return (
    <div className={styles.frame} aria-busy={!live}>
      <TopBar person={person}>
        <UnitToggles />
      </TopBar>
      <div className={styles.body} data-open={calculator !== undefined}>
        <aside className={styles.finder}>
          <Finder here={name} onOpen={open} />
        </aside>
        <main className={styles.main}>
          {calculator ? (
            <CalculatorView
              key={calculator.name}
              calculator={calculator}
              draft={drafts[calculator.name] ?? null}
              onDraft={onDraft}
              from={from}
              focus={picked}
            />
          ) : (
            <Welcome unknown={name} onOpen={open} />
          )}
        </main>
      </div>
      {sheet && <Shortcuts at={['bench']} onClose={() => setSheet(false)} />}
    </div>
  )
}

const firstAsked = ['voltage-drop', 'start', 'runtime', 'outlet-readings']

function Welcome({ unknown, onOpen }: { unknown: string | null; onOpen: (name: string) => void }) {
  return (
    <Column className={styles.welcome}>
      <h1>{unknown ? 'There is no such question' : 'The bench'}</h1>
      <p>
        {unknown
          ? `Nothing here is called “${unknown}”. Pick a question, or say in your own words what you want to know.`
          : 'Ask anything about one circuit, one run, one reading. No job is needed; the working stands beside every answer.'}
      </p>
      {firstAsked.map(name => {
        const c = calculators.find(one => one.name === name)
        return (
          c && (
            <Paper key={name} variant="outlined">
              <ListItemButton
                component="a"
                href={benchPath(name)}
                sx={{ borderTop: 5, borderColor: 'water.live', fontWeight: 650 }}
                onClick={(e: MouseEvent) => {
                  e.preventDefault()
                  onOpen(name)
                }}
              >
                {c.question}
              </ListItemButton>
            </Paper>
          )
        )
      })}
      <Quiet>
        <kbd>/</kbd> asks, arrows walk the questions, Enter opens, <kbd>?</kbd> lists the keys.
      </Quiet>
    </Column>
  )
}
