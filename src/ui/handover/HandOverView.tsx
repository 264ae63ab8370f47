'use client'
import { Alert, Box, Button, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { Printer } from 'lucide-react'
import { useMemo, useState } from 'react'
import { cardOf } from '@/core/card/card'
import { cardIn } from '@/core/card/words'
import { notBuilt } from '@/core/commission'
import { cardBody, cardStyle } from '@/core/formats/card-html'
import { type Language, languageKeys, languages } from '@/core/languages'
import { plural } from '@/core/units/format'
import { LinkBox } from '../ask/LinkBox'
import { Card, Column, Empty, Row, View } from '../common/pieces'
import { today } from '../common/today'
import { useWorkspace } from '../workspace/store'
import { HandedOver } from './HandedOver'
import { HouseWords } from './HouseWords'
import { Packs } from './Packs'
import { Visits } from './Visits'

/** What is handed over: the card for the door in each language, the page of the house, what who lives there says by it. */
export function HandOverView({ firm }: { firm: string }) {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const [language, setLanguage] = useState<Language>('en')
  const card = useMemo(() => cardOf(job), [job])
  const unbuilt = notBuilt(job)
  return (
    <View title="Hand over" lead="What stays in the house, and what the house says afterwards.">
      {unbuilt.length > 0 && (
        <Alert severity="warning">
          <b>{plural(unbuilt.length, 'planned change is', 'planned changes are')} not built yet:</b> the card
          is of the house as planned.
        </Alert>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { lg: 'minmax(0, 3fr) minmax(280px, 2fr)' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Card title="The card for the door">
          {card.ok ? (
            <Column>
              <Row>
                <ToggleButtonGroup
                  exclusive
                  size="small"
                  value={language}
                  onChange={(_, next) => next && setLanguage(next)}
                  aria-label="Language of the card"
                >
                  {languageKeys.map(l => (
                    <ToggleButton key={l} value={l} lang={l}>
                      {languages[l]}
                    </ToggleButton>
                  ))}
                </ToggleButtonGroup>
                <Button
                  variant="contained"
                  startIcon={<Printer size={18} aria-hidden />}
                  component="a"
                  href={`/api/jobs/${id}/card?format=pdf&language=${language}`}
                  target="_blank"
                >
                  On one page (PDF)
                </Button>
              </Row>
              <CardShown language={language} job={card.value} firm={firm} />
            </Column>
          ) : (
            <Empty>
              {card.faults.map(f => (
                <p key={f.path}>There is no card yet: {f.message}.</p>
              ))}
            </Empty>
          )}
        </Card>
        <Column>
          <HandedOver />
          <Packs />
          <LinkBox kind="house" />
          <HouseWords />
        </Column>
      </Box>
      <Visits />
    </View>
  )
}

/** The card as a phone shows it. */
function CardShown({
  language,
  job: card,
  firm,
}: {
  language: Language
  job: Parameters<typeof cardIn>[1]
  firm: string
}) {
  const revision = useWorkspace(s => s.revision)
  const html = useMemo(
    () => cardBody(cardIn(language, card), card.drawings, { firm, revision, day: today() }),
    [language, card, firm, revision],
  )
  return (
    <Box
      lang={language}
      className="card-shown"
      sx={{
        '--ink': 'var(--mui-palette-text-primary)',
        '--quiet': 'var(--mui-palette-text-secondary)',
        '--paper': 'var(--mui-palette-background-paper)',
        '--rule': 'var(--mui-palette-divider)',
        '--water': 'var(--mui-palette-primary-main)',
        '--stop': 'var(--mui-palette-severity-stop)',
        '& section': { borderTop: 1, borderColor: 'divider', py: 1 },
        '& .board': { width: 1 },
      }}
    >
      <style>{cardStyle}</style>
      {/* made by the product itself, every text in it escaped */}
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: the page of the house shows the same */}
      <div dangerouslySetInnerHTML={{ __html: html }} />
    </Box>
  )
}
