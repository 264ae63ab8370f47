'use client'
import { Card, Quiet, Screen } from '../common/pieces'

interface Letter {
  id: string
  at: string
  to: string
  subject: string
  text: string
}

/** Letters of the demo, which go nowhere else. */
export const MailScreen = ({ letters }: { letters: Letter[] }) => (
  <Screen title="Letters of the demo" lead="A demo sends nothing: what would have gone out stands here.">
    {!letters.length && <Quiet>No letters yet.</Quiet>}
    {letters.map(l => (
      <Card key={l.id} title={l.subject}>
        <Quiet>
          to {l.to}, {l.at.slice(0, 16).replace('T', ' ')} UTC
        </Quiet>
        {l.text.split(/\n+/).map(line => (
          <p key={line} style={{ overflowWrap: 'anywhere' }}>
            {/^https?:/.test(line) ? <a href={line}>{line}</a> : line}
          </p>
        ))}
      </Card>
    ))}
  </Screen>
)
