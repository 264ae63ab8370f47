import { Button, Chip, List, ListItem, ListItemText } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { HouseWord } from '@/core/card/word'
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
              <Button size="small" onClick={() => void settle(w.id)}>
                Settled
              </Button>
            )}
          </ListItem>
        ))}
      </List>
      <span role="status">{said ?? error?.message}</span>
    </Card>
  )
}
