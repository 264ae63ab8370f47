import { Alert, Button } from '@mui/material'
import { Send } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { isFirm, mostOptions } from '@/core/estimate/document'
import type { Draft, DraftOption } from '@/core/estimate/draft'
import { introSchema } from '@/core/estimate/draft-words'
import { dollars, moneyText } from '@/core/estimate/money'
import { priced } from '@/core/estimate/priced'
import { languageKeys, languages } from '@/core/languages'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditField, readText } from '../form/EditField'
import { Refused } from '../query'
import { useWorkspace } from '../workspace/store'
import { LinkShown } from './LinkShown'
import { OptionCard } from './OptionCard'
import { type Estimate, useEstimateChanges } from './useEstimate'

const AddOption = dynamic(() => import('./AddOption').then(m => m.AddOption))

/** The estimate before it is sent: its options as they come to by now. */
export function DraftCard({ estimate }: { estimate: Estimate }) {
  const { draft, draftVersion, revision, terms, options, faults, versions } = estimate
  const change = useEstimateChanges()
  const say = useWorkspace(s => s.say)
  const [adding, setAdding] = useState<'found' | 'copy' | null>(null)
  const [token, setToken] = useState<string | null>(null)
  const accepted = versions.find(v => v.acceptance)
  const put = async (next: Draft) => {
    try {
      await change.mutateAsync({ act: 'draft', draft: next, version: draftVersion })
      return []
    } catch (error) {
      return [{ path: 'draft', message: error instanceof Error ? error.message : 'was not taken' }]
    }
  }
  const add = async (option: DraftOption) => {
    setAdding(null)
    const [fault] = await put({ ...draft, options: [...draft.options, option] })
    if (fault) say(fault.message)
  }
  const full = draft.options.length >= mostOptions
  const priceOf = (id: string) => {
    const made = options.find(o => o.id === id)
    return made && priced(made.costs, terms, draft.taxPlace)
  }
  const send = async () => {
    try {
      const done = await change.mutateAsync({ act: 'send', version: draftVersion, revision })
      setToken(done.token ?? null)
    } catch (error) {
      const [first] = error instanceof Refused ? error.answer.faults : []
      say(
        first
          ? `Not sent: the options ${first.message}.`
          : error instanceof Error
            ? error.message
            : 'Not sent.',
      )
    }
  }
  return (
    <Card title={accepted ? 'Next change order' : 'Draft'}>
      {faults.map(f => (
        <Alert key={f.message} severity="warning">
          {f.message}
        </Alert>
      ))}
      {accepted && (
        <p>
          “{accepted.acceptance?.option.name}” is accepted. What is changed since then is sent as a change
          order: one option, what is to be built now.
        </p>
      )}
      {!draft.options.length && (
        <p>
          An option is a design with its price: the one at hand, one of the first answer or of a search, or a
          copy of this job.
        </p>
      )}
      <Columns least={250}>
        {draft.options.map((option, n) => (
          <OptionCard
            place={n + 1}
            key={option.id}
            option={option}
            made={options.find(o => o.id === option.id) ?? null}
            price={priceOf(option.id) ?? null}
            onName={name =>
              put({ ...draft, options: draft.options.map(o => (o.id === option.id ? { ...o, name } : o)) })
            }
            onRemove={() => void put({ ...draft, options: draft.options.filter(o => o.id !== option.id) })}
          />
        ))}
      </Columns>
      <Row>
        <Button
          variant="outlined"
          disabled={full || draft.options.some(o => o.from.kind === 'design')}
          onClick={() =>
            void add({
              id: crypto.randomUUID(),
              name: 'Our proposal',
              from: { kind: 'design' },
            })
          }
        >
          Add the design at hand
        </Button>
        <Button disabled={full} aria-haspopup="dialog" onClick={() => setAdding('found')}>
          Add one of the first answer
        </Button>
        <Button disabled={full} aria-haspopup="dialog" onClick={() => setAdding('copy')}>
          Add a copy of the job
        </Button>
        {full && <Quiet>Three are as many as people compare.</Quiet>}
      </Row>
      {draft.options.length > 0 && (
        <>
          <Row sx={{ alignItems: 'flex-start' }}>
            <Choice
              label="Tax of"
              value={draft.taxPlace}
              options={[
                { value: '', label: 'no tax' },
                ...terms.taxes.map(t => ({
                  value: t.place,
                  label: `${t.place}, ${Number((t.fraction * 100).toFixed(4))} %`,
                })),
              ]}
              onChange={taxPlace => void put({ ...draft, taxPlace })}
            />
            <Choice
              label="The customer reads"
              value={draft.language ?? 'en'}
              options={languageKeys.map(l => ({ value: l, label: languages[l] }))}
              onChange={language => void put({ ...draft, language })}
            />
            <EditField
              label="A word to this customer"
              value={draft.intro}
              read={readText(introSchema)}
              onCommit={intro => {
                void put({ ...draft, intro })
                return []
              }}
            />
          </Row>
          <Quiet>
            With {dollars(Math.round(terms.permitUsd * 100))} for the permit and{' '}
            {Number((terms.contingencyFraction * 100).toFixed(2))} % contingency. Each line is rounded to the
            cent, the tax once.
            {draft.options.some(o => {
              const p = priceOf(o.id)
              return p && !isFirm(p)
            }) &&
              ' A range cannot be accepted: it becomes a price with the panel and the prices that are missing.'}
          </Quiet>
          <Row>
            <Button
              variant="contained"
              startIcon={<Send size={16} aria-hidden />}
              loading={change.isPending}
              onClick={() => void send()}
            >
              {accepted ? 'Freeze the change order and make its link' : 'Freeze it and make the link'}
            </Button>
            {draft.options.map(o => {
              const p = priceOf(o.id)
              return (
                p && (
                  <span key={o.id}>
                    {o.name}: <b>{moneyText(p.total)}</b>
                  </span>
                )
              )
            })}
          </Row>
        </>
      )}
      {token && <LinkShown token={token} />}
      {adding && <AddOption kind={adding} onAdd={add} onClose={() => setAdding(null)} />}
    </Card>
  )
}
