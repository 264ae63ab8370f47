'use client'
import { Alert, Box, Button, Link as MuiLink, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { Check, Printer } from 'lucide-react'
import Link from 'next/link'
import { type CSSProperties, useMemo, useState } from 'react'
import { labelSheets, labelTapes } from '@/core/work/labels'
import {
  countText,
  type Notice,
  type NoticeSize,
  noticeSizes,
  noticesOf,
  saidBy,
  unprinted,
} from '@/core/work/notices'
import { DataTable } from '../common/DataTable'
import { Column, Empty, Quiet, Row, View } from '../common/pieces'
import { Check as Tick } from '../form/Check'
import { Choice } from '../form/Choice'
import { useWorkspace } from '../workspace/store'
import { SheetPages } from './LabelPages'
import styles from './Notices.module.css'
import { WherePicture } from './WherePicture'

/** Labels and notices of the job: what they say, where each goes, and printed to size; only what changed since, where that is enough. */
export function NoticesView() {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const [size, setSize] = useState<NoticeSize>('large')
  const [on, setOn] = useState('sheet')
  const [skip, setSkip] = useState(0)
  const [changed, setChanged] = useState(true)
  const { notices, open } = useMemo(() => noticesOf(job), [job])
  const fresh = useMemo(() => unprinted(job, notices), [job, notices])
  const ofSize = notices.filter(n => n.size === size)
  const shown = ofSize.filter(n => !changed || fresh.includes(n))
  const sheet = labelSheets.find(s => s.key === noticeSizes[size].sheet)
  const tape = labelTapes.find(t => t.key === on)
  return (
    <>
      <Box className="no-print">
        <View
          title="Labels and notices"
          lead={`${countText(notices) || 'None yet'}. ${fresh.length ? `${countText(fresh)} not printed as they read now.` : notices.length ? 'All printed as they read now.' : ''}`}
          tools={
            <Row>
              <Button size="small" component={Link} href={`/jobs/${id}/labels`}>
                Directory and breaker labels
              </Button>
              <Button
                size="small"
                startIcon={<Printer size={16} aria-hidden />}
                variant="contained"
                disabled={!shown.length}
                onClick={() => window.print()}
              >
                Print
              </Button>
              <Button
                size="small"
                startIcon={<Check size={16} aria-hidden />}
                disabled={!shown.some(n => fresh.includes(n))}
                onClick={() =>
                  act({
                    op: 'recordPrinted',
                    printed: shown.map(n => ({ id: n.id, said: saidBy(n).slice(0, 600) })),
                  })
                }
              >
                They are printed
              </Button>
            </Row>
          }
        >
          <Column>
            {open.map(o => (
              <Alert key={o} severity="warning">
                {o}
              </Alert>
            ))}
            <Row sx={{ '& .MuiTextField-root': { width: 240 } }}>
              <ToggleButtonGroup
                exclusive
                size="small"
                aria-label="Which labels"
                value={size}
                onChange={(_, next: NoticeSize | null) => next && setSize(next)}
              >
                {(Object.keys(noticeSizes) as NoticeSize[]).map(s => (
                  <ToggleButton key={s} value={s}>
                    {noticeSizes[s].name} ({notices.filter(n => n.size === s).length})
                  </ToggleButton>
                ))}
              </ToggleButtonGroup>
              <Tick
                label="Only what changed since they were printed"
                checked={changed}
                onChange={setChanged}
              />
              <Choice
                label="On"
                value={on}
                options={[
                  { value: 'sheet', label: `a sheet: ${sheet?.name ?? ''}` },
                  ...labelTapes.map(t => ({ value: t.key as string, label: t.name })),
                ]}
                onChange={setOn}
              />
              {sheet && !tape && (
                <Choice
                  label="Begin at label"
                  value={skip}
                  options={Array.from({ length: sheet.across * sheet.down }, (_, n) => ({
                    value: n,
                    label: `${n + 1}`,
                  }))}
                  onChange={setSkip}
                />
              )}
            </Row>
            <WherePicture notices={ofSize} />
            <DataTable
              label="Labels and where they go"
              rows={ofSize}
              idOf={n => n.id}
              stacked="labelled"
              most={320}
              columns={[
                { head: 'No.', cell: (_, n) => n + 1, figure: true },
                {
                  head: 'It says',
                  cell: n => (
                    <>
                      <b>{n.head}</b> {n.lines.join(' ')}
                    </>
                  ),
                },
                { head: 'Where', cell: n => n.where },
                { head: 'Asked by', cell: n => n.article ?? 'good practice' },
                { head: 'Printed', cell: n => (fresh.includes(n) ? 'not as it reads now' : 'yes') },
              ]}
            />
            <Quiet>
              On paper at 100 %, without fitting to the page. Outdoors and in damp places on material made for
              it (NEC 110.21(B)); nothing written by hand where it may be read wrong.{' '}
              <MuiLink component={Link} href={`/jobs/${id}/work`}>
                Work order
              </MuiLink>
            </Quiet>
          </Column>
        </View>
      </Box>
      {shown.length === 0 ? (
        <Box className="no-print">
          <Empty>
            <p>
              {ofSize.length
                ? 'All of these are printed as they read now.'
                : 'The plan asks for none of this size.'}
            </p>
          </Empty>
        </Box>
      ) : tape ? (
        <ol className={styles.tape} style={{ '--tape': `${tape.widthIn}in` } as CSSProperties}>
          {shown.map(n => (
            <li key={n.id}>
              <b>{n.head}</b> {n.lines.join(' ')}
            </li>
          ))}
        </ol>
      ) : (
        sheet && (
          <SheetPages sheet={sheet} items={shown} skip={skip} keyOf={n => n.id}>
            {n => <Printed notice={n} />}
          </SheetPages>
        )
      )}
    </>
  )
}

const Printed = ({ notice: { head, lines, article, size } }: { notice: Notice }) => (
  <div className={styles.notice} data-size={size}>
    <strong>{head}</strong>
    {lines.map(l => (
      <p key={l}>{l}</p>
    ))}
    {article && size === 'large' && <footer>{article}</footer>}
  </div>
)
