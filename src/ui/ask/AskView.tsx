'use client'
import { askedOf, groups, isOpen } from '@/core/ask/questions'
import { outageSchema } from '@/core/job/schema'
import { plural } from '@/core/units/format'
import { EditField, readNumber } from '../common/EditField'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import styles from './AskView.module.css'
import { LinkBox } from './LinkBox'
import { QuestionField } from './QuestionField'
import { RequestList } from './RequestList'
import { Wants } from './Wants'

/** The length of the outage is the job's own figure, asked here first. */
function HowLong() {
  const hours = useWorkspace(s => s.job.outage.hours)
  const act = useWorkspace(s => s.act)
  return (
    <div className={styles.question} data-open="false" data-question="hours">
      <p>
        <b>How long do they last, at worst?</b>
      </p>
      <EditField
        label="Hours"
        value={String(hours)}
        unit="h"
        inputMode="decimal"
        read={readNumber(outageSchema.shape.hours)}
        onCommit={value => act({ op: 'setOutage', facts: { hours: value } })}
      />
    </div>
  )
}

/** The first call: each answer decides what is asked next, and what the customer is asked to send. */
export function AskView() {
  const brief = useWorkspace(s => s.job.brief)
  const asked = askedOf(brief)
  const open = asked.filter(q => isOpen(brief, q.key))
  const next = open[0]
  return (
    <div className={styles.view}>
      <h1>Ask</h1>
      <p className={styles.lead}>
        {open.length
          ? `${plural(open.length, 'question')} open of ${asked.length}. Answers decide what is asked next.`
          : `All ${asked.length} questions are answered.`}
      </p>
      <div className={styles.columns}>
        <div className={styles.questions}>
          {groups.map(group => (
            <section key={group} aria-label={group}>
              <h2>{group}</h2>
              {group === 'What must live' && <Wants />}
              {group === 'The outage' && <HowLong />}
              {asked
                .filter(q => q.group === group)
                .map(q => (
                  <QuestionField key={q.key} question={q} next={q === next} />
                ))}
            </section>
          ))}
        </div>
        <div className={styles.requests}>
          <LinkBox />
          <RequestList />
        </div>
      </div>
      <FindingsHere view="ask" />
    </div>
  )
}
