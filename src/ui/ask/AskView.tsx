'use client'
import { askedOf, groups, isOpen } from '@/core/ask/questions'
import { plural } from '@/core/units/format'
import { Card, Column, Columns, View } from '../common/pieces'
import { FindingsHere } from '../findings/FindingsHere'
import { useFirstAnswer, useMaking } from '../first/useFirstAnswer'
import { useWorkspace } from '../workspace/store'
import { HowLong } from './HowLong'
import { LinkBox } from './LinkBox'
import { QuestionField } from './QuestionField'
import { RequestList } from './RequestList'
import { Wants } from './Wants'

/** The first call: each answer decides what is asked next, and what the customer is asked to send. */
export function AskView() {
  const brief = useWorkspace(s => s.job.brief)
  const making = useMaking()
  const answer = useFirstAnswer(making)
  const asked = askedOf(brief)
  const open = asked.filter(q => isOpen(brief, q.key))
  const next = open[0]
  return (
    <View
      title="Ask"
      lead={
        open.length
          ? `${plural(open.length, 'question')} open of ${asked.length}. Answers decide what is asked next.`
          : `All ${asked.length} questions are answered.`
      }
    >
      <Columns least={380}>
        <Column>
          {groups.map(group => (
            <Card key={group} title={group}>
              {group === 'What must live' && <Wants making={making} answer={answer} />}
              {group === 'The outage' && <HowLong />}
              {asked
                .filter(q => q.group === group)
                .map(q => (
                  <QuestionField key={q.key} question={q} next={q === next} />
                ))}
            </Card>
          ))}
        </Column>
        <Column>
          <LinkBox />
          <RequestList />
        </Column>
      </Columns>
      <FindingsHere view="ask" />
    </View>
  )
}
