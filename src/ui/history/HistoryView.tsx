'use client'
import { Button, List, ListItem, ListItemText } from '@mui/material'
import Link from 'next/link'
import { useEffect, useState } from 'react'
import type { JobRecord } from '@/core/assess/record'
import { plural } from '@/core/units/format'
import { call } from '../api'
import { Popup } from '../common/Popup'
import { Problem } from '../common/Problem'
import { Card, Empty, Quiet, Row, View } from '../common/pieces'
import { firmZone } from '../common/today'
import { momentIn } from '../people/words'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'
import { dropAside, listAside, type PutAside } from '../workspace/unsaved'

interface Entry {
  revision: number
  at: string
  who: string
  sentence: string
  kept: boolean
}
interface Page {
  entries: Entry[]
  more: boolean
}

/** All that was done to the job, the newest first; each revision can be looked at, and gone back to. */
export function HistoryView() {
  const id = useWorkspace(s => s.id)
  const revision = useWorkspace(s => s.revision)
  const waiting = useWorkspace(s => s.pending.length)
  const store = useWorkspaceStore()
  const [page, setPage] = useState<Page | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [back, setBack] = useState<Entry | null>(null)

  // what was just written comes on top
  useEffect(() => {
    let current = true
    void call<Page>(`/api/jobs/${id}/history?before=${revision + 1}`, 'GET').then(reply => {
      if (!current) return
      if (reply.ok) setPage(reply.data)
      else setProblem(reply.message)
    })
    return () => {
      current = false
    }
  }, [id, revision])

  const older = async () => {
    const last = page?.entries.at(-1)
    if (!page || !last) return
    const reply = await call<Page>(`/api/jobs/${id}/history?before=${last.revision}`, 'GET')
    if (!reply.ok) return setProblem(reply.message)
    setPage({ entries: [...page.entries, ...reply.data.entries], more: reply.data.more })
  }
  const goBack = async (to: Entry) => {
    setBack(null)
    setProblem(null)
    const reply = await call<{ record: JobRecord }>(`/api/jobs/${id}/history/${to.revision}`, 'POST', {
      baseRevision: revision,
    })
    if (reply.ok) await store.getState().refresh()
    else setProblem(reply.message)
  }
  return (
    <View title="History" lead="All that was done to this job; nothing of it is lost by going back">
      <Problem>{problem}</Problem>
      <Aside />
      {page && !page.entries.length && (
        <Empty>
          <p>Nothing was done yet.</p>
        </Empty>
      )}
      {page && page.entries.length > 0 && (
        <List aria-label="History" disablePadding>
          {page.entries.map(e => (
            <ListItem
              key={e.revision}
              divider
              disableGutters
              secondaryAction={
                <Row sx={{ flexWrap: 'nowrap' }}>
                  {e.kept && (
                    <Button
                      size="small"
                      component={Link}
                      href={`/jobs/${id}/revision/${e.revision}`}
                      prefetch={false}
                      aria-label={`Look at revision ${e.revision}`}
                    >
                      Look
                    </Button>
                  )}
                  {e.kept && e.revision < revision && (
                    <Button
                      size="small"
                      disabled={waiting > 0}
                      aria-label={`Go back to revision ${e.revision}`}
                      onClick={() => setBack(e)}
                    >
                      Go back
                    </Button>
                  )}
                </Row>
              }
            >
              <ListItemText
                sx={{ pr: { xs: 14, sm: 20 }, overflowWrap: 'anywhere' }}
                primary={e.sentence}
                secondary={`${e.who}, ${momentIn(firmZone(), e.at)}, revision ${e.revision}`}
              />
            </ListItem>
          ))}
        </List>
      )}
      {page?.more && (
        <Row>
          <Button onClick={older}>Older changes</Button>
        </Row>
      )}
      {page?.entries.some(e => !e.kept) && (
        <Quiet>
          Where nothing can be looked at, the steps were packed away long ago; what they did is told.
        </Quiet>
      )}
      {back && (
        <Popup
          title={`Go back to revision ${back.revision}`}
          onClose={() => setBack(null)}
          send={
            <Button variant="contained" autoFocus onClick={() => goBack(back)}>
              Go back
            </Button>
          }
        >
          <p>
            {plural(revision - back.revision, 'change')} since then{' '}
            {revision - back.revision === 1 ? 'is' : 'are'} set aside, as one change more: undo brings them
            back. What was written down of work, tests and visits stays.
          </p>
        </Popup>
      )}
    </View>
  )
}

/** Changes of this device that gave way to somebody else’s: put on top after all, or let go. */
function Aside() {
  const id = useWorkspace(s => s.id)
  const act = useWorkspace(s => s.act)
  const conflict = useWorkspace(s => s.conflict)
  const [aside, setAside] = useState<PutAside[]>([])
  const [problem, setProblem] = useState<string | null>(null)
  // what gave way just now comes here
  useEffect(() => {
    if (!conflict) void listAside(id).then(setAside)
  }, [id, conflict])
  if (!aside.length) return null
  const letGo = async (one: PutAside) => {
    await dropAside(id, one.at)
    setAside(await listAside(id))
  }
  const onTop = async (one: PutAside) => {
    const refused: string[] = []
    for (const change of one.pending) {
      if (change.kind !== 'do') continue
      const [fault] = act(change.operation)
      if (fault) refused.push(`${change.sentence} (${fault.message})`)
    }
    setProblem(refused.length ? `No longer possible: ${refused.join('; ')}` : null)
    await letGo(one)
  }
  return (
    <Card title="Put aside on this device">
      <Problem>{problem}</Problem>
      {aside.map(one => (
        <Row key={one.at} sx={{ alignItems: 'flex-start' }}>
          <ul style={{ margin: 0, flex: '1 1 240px' }}>
            {one.pending.map(c => (
              <li key={c.id}>{c.sentence}</li>
            ))}
          </ul>
          <Button size="small" variant="outlined" onClick={() => onTop(one)}>
            Put on top now
          </Button>
          <Button size="small" onClick={() => letGo(one)}>
            Let go
          </Button>
        </Row>
      ))}
    </Card>
  )
}
