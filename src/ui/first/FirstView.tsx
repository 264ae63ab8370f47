'use client'
import { Alert } from '@mui/material'
import { useEffect, useMemo } from 'react'
import type { Asked } from '@/core/ask/brief'
import { outageSchema } from '@/core/ask/outage-asked'
import { askedOf } from '@/core/ask/questions'
import { type Known, surgesOf } from '@/core/first/answer'
import { HowLong } from '../ask/HowLong'
import { QuestionField } from '../ask/QuestionField'
import { Wants } from '../ask/Wants'
import { Card, Column, Columns, Quiet, View } from '../common/pieces'
import { EditFigure } from '../form/EditField'
import { keepJob } from '../trace/offline'
import { useKeptScreen } from '../trace/useKeptScreen'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'
import { AnswerCard, GroundsCard } from './AnswerCard'
import { DesignsCard } from './DesignsCard'
import { NextCard } from './NextCard'
import { useFirstAnswer, useKeptFirm, useMaking } from './useFirstAnswer'
import { useFirstDesigns } from './useFirstDesigns'

const ofOutage: readonly Asked[] = ['season', 'atHome', 'automatic']
const ofOwned: readonly Asked[] = [
  'station',
  'stationWhat',
  'generator',
  'generatorW',
  'vehicle',
  'vehicleVolts',
  'solar',
  'budget',
]

/** On a phone the answer stands between what must live and what else may be said. */
const apart = { display: { xs: 'contents', sm: 'flex' } } as const

/** The first call: what must live and for how long, and within the minute how big, how much, and what to ask next. */
export function FirstView() {
  const store = useWorkspaceStore()
  const brief = useWorkspace(s => s.job.brief)
  const outdoorC = useWorkspace(s => s.job.outage.outdoorC)
  const act = useWorkspace(s => s.act)
  const { firm, trouble } = useKeptFirm()
  const making = useMaking()
  const designs = useFirstDesigns(firm)
  const [first] = designs.found?.designs ?? []
  const share = first && (first.price.high - first.price.low) / first.price.high
  const known = useMemo(
    (): Known => ({
      surgesVA: surgesOf(firm?.equipment ?? []),
      ...(share !== undefined && { priceShare: share }),
    }),
    [firm, share],
  )
  const answer = useFirstAnswer(making, known)
  const kept = useKeptScreen()
  useEffect(() => keepJob(store), [store])
  const questions = (keys: readonly Asked[]) =>
    askedOf(brief)
      .filter(q => keys.includes(q.key))
      .map(q => <QuestionField key={q.key} question={q} short />)
  return (
    <View
      title="First answer"
      lead="Before any panel is known. What is said here is the job: nothing is entered twice."
    >
      {kept && <Quiet role="status">Kept on this device: it works without a connection.</Quiet>}
      {trouble && <Alert severity="warning">The catalogue could not be read: {trouble}</Alert>}
      <Columns least={360}>
        <Column sx={apart}>
          <Card title="What must live" sx={{ order: 1 }}>
            <Wants making={making} answer={answer} />
          </Card>
          <Card title="The outage" sx={{ order: 4 }}>
            <HowLong />
            {questions(ofOutage)}
            <EditFigure
              label="Outdoors meanwhile"
              value={outdoorC}
              unit="°C"
              schema={outageSchema.shape.outdoorC.unwrap()}
              onCommit={outdoorC => act({ op: 'setOutage', facts: { outdoorC } })}
              onEmpty={() => act({ op: 'setOutage', facts: {}, clear: ['outdoorC'] })}
            />
          </Card>
          <Card title="What they own, what it may cost" sx={{ order: 5 }}>
            {questions(ofOwned)}
          </Card>
        </Column>
        <Column sx={apart}>
          <AnswerCard answer={answer} />
          <DesignsCard {...designs} />
          <NextCard answer={answer} />
          <GroundsCard answer={answer} />
        </Column>
      </Columns>
    </View>
  )
}
