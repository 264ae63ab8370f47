import { Paper, Typography } from '@mui/material'
import type { Worked } from '@/core/calculator'
import { SeverityTag } from '../common/SeverityTag'

interface Props {
  worked: Pick<Worked<unknown>, 'answer' | 'findings' | 'next'> | null
  waiting: readonly string[]
  wrong: readonly string[]
}

/** The first sentence, and what follows it. */
function parted(text: string): [string, string] {
  const at = text.search(/\.\s+(?=[A-Z“])/)
  return at < 0 ? [text, ''] : [text.slice(0, at + 1), text.slice(at + 1).trim()]
}

/** The answer in a sentence, or what it still waits for, or what does not fit and what to do about it. */
export function AnswerPanel({ worked, waiting, wrong }: Props) {
  const said = worked
    ? worked.answer
    : wrong.length
      ? (wrong[0] ?? '')
      : `Waiting for ${waiting.join(', ').toLowerCase()}.`
  const [first, rest] = parted(said)
  return (
    <Paper
      component="section"
      variant="outlined"
      aria-label="Answer"
      data-answered={worked !== null}
      sx={{
        p: { xs: 1.5, md: 2 },
        borderTop: 5,
        ...(worked
          ? { borderTopColor: 'water.live' }
          : { borderTopStyle: 'dashed', borderTopColor: 'severity.mind' }),
        '& p + p, & > p': { mt: 1 },
        overflowWrap: 'anywhere',
      }}
    >
      <div role="status">
        <Typography variant="h2" component="p" sx={{ fontWeight: worked ? 650 : 500, lineHeight: 1.4 }}>
          {first}
        </Typography>
        {rest && <p>{rest}</p>}
      </div>
      {worked?.findings.map(f => (
        <p key={f}>
          <SeverityTag severity="fix" /> {f}
        </p>
      ))}
      {worked?.next && (
        <p>
          <b>What to do next: </b>
          {worked.next}
        </p>
      )}
      {!worked && wrong.slice(1).map(w => <p key={w}>{w}</p>)}
      {!worked && wrong.length > 0 && waiting.length > 0 && <p>Then: {waiting.join(', ').toLowerCase()}.</p>}
    </Paper>
  )
}
