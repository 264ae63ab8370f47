import { Button, Chip, List, ListItem, ListItemText } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { HouseWord } from '@/core/card/word'
import { standingOf } from '@/core/handover/standing'
import { call } from '../api'
import { Card, Quiet } from '../common/pieces'
import { told } from '../query'
import { useWorkspace } from '../workspace/store'

interface Word {
  id: string
  at: string
  word: HouseWord
  settled: boolean
}

const textOf = (word: HouseWord) =>
  word.act === 'ask'
    ? word.text
    : `Outage of ${word.on}: ${word.hours} h, it carried ${word.carried}${word.text ? `. ${word.text}` : ''}`

/** Questions and outages that came by the page of the house. */
export function HouseWords() {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const evaluation = useWorkspace(s => s.evaluation)
  const revision = useWorkspace(s => s.revision)
  const act = useWorkspace(s => s.act)
  const at = `/api/jobs/${id}/house`
  const client = useQueryClient()
  const [said, setSaid] = useState<string | null>(null)
  const { data, error } = useQuery({ queryKey: [at], queryFn: () => told<{ words: Word[] }>(at) })
  const words = data?.words ?? []
  const settle = async (wordId: string) => {
    const answer = await call<{ words: Word[] }>(at, 'POST', { settle: wordId })
    setSaid(answer.ok ? null : answer.message)
    if (answer.ok) client.setQueryData([at], answer.data)
  }
  /** What was told stands among the visits, held against what was worked out; and is settled by it. */
  const keep = (wordId: string, word: HouseWord) => {
    if (word.act !== 'outage') return
    const [refused] = act({
      op: 'openVisit',
      visit: {
        id: wordId,
        kind: 'outage',
        on: word.on,
        by: 'Customer',
        text: word.text.slice(0, 500),
        before: standingOf(job, revision, evaluation),
        lived: { hours: word.hours, carried: word.carried, predictedH: evaluation.headline.hoursHad },
        closedOn: word.on,
      },
    })
    if (refused) setSaid(refused.message)
    else void settle(wordId)
  }
  return (
    <Card title="From the house">
      {!words.length && (
        <Quiet>Questions and outages that are told by the page of the house come here.</Quiet>
      )}
      <List dense disablePadding>
        {words.map(w => (
          <ListItem key={w.id} disableGutters divider>
            <ListItemText
              primary={textOf(w.word)}
              secondary={w.at.slice(0, 10)}
              sx={{ overflowWrap: 'anywhere' }}
            />
            {w.settled ? (
              <Chip size="small" label="settled" />
            ) : (
              <>
                {w.word.act === 'outage' && (
                  <Button size="small" onClick={() => keep(w.id, w.word)}>
                    Keep as a visit
                  </Button>
                )}
                <Button size="small" onClick={() => void settle(w.id)}>
                  Settled
                </Button>
              </>
            )}
          </ListItem>
        ))}
      </List>
      <span role="status">{said ?? error?.message}</span>
    </Card>
  )
}
