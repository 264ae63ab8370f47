'use client'
import { Button, LinearProgress, List, ListItem } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { circuitNeeds } from '@/core/assess/needs'
import { requestsOf } from '@/core/assess/requests'
import type { MeterAbout } from '@/core/loads/utility-year'
import { plural, quantity } from '@/core/units/format'
import { call, upload } from '../api'
import { FileButton } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Card, Empty, Quiet, Row, View } from '../common/pieces'
import { firmZone } from '../common/today'
import { FindingsHere } from '../findings/FindingsHere'
import { LoadsTabs } from '../loads/LoadsTabs'
import { told } from '../query'
import { useWorkspace } from '../workspace/store'
import { ZoneChoice } from './ZoneChoice'

const MeterYear = dynamic(() => import('./MeterYear').then(m => m.MeterYear))

interface Kept {
  id: string
  name: string
  meters: MeterAbout[]
  warnings: string[]
}

const largest = 250_000_000

/** The whole house by its utility: a year is brought in, looked at, and taken for the panel's highest demand. */
export function UtilityView() {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const [open, setOpen] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState<{ what: string; share: number | null } | null>(null)
  const [zone, setZone] = useState(firmZone)

  const client = useQueryClient()
  const path = `/api/jobs/${id}/interval-data`
  const { data, error } = useQuery({ queryKey: [path], queryFn: () => told<{ series: Kept[] }>(path) })
  const kept = data?.series
  const bring = async (
    what: string,
    answer: Promise<{ ok: true; data: Kept } | { ok: false; message: string }>,
  ) => {
    setProblem(null)
    setBusy({ what, share: null })
    const got = await answer
    setBusy(null)
    if (!got.ok) return setProblem(got.message)
    client.setQueryData<{ series: Kept[] }>([path], was => ({ series: [got.data, ...(was?.series ?? [])] }))
    setOpen(got.data.id)
  }
  const choose = (file: File) => {
    if (file.size > largest)
      return setProblem(`${file.name} is larger than ${largest / 1e6} MB: ask for one year at a time.`)
    void bring(
      `reading ${file.name}`,
      upload<Kept>(
        `${path}?name=${encodeURIComponent(file.name.slice(0, 120))}&zone=${encodeURIComponent(zone)}`,
        file,
        share =>
          setBusy({
            what: share < 1 ? `sending ${file.name}` : `reading ${file.name}`,
            share: share < 1 ? share : null,
          }),
      ),
    )
  }
  const sent =
    requestsOf(job, circuitNeeds(job)).find(r => r.key === 'interval-data')?.record?.answer?.file ??
    job.requests.find(r => r.key === 'interval-data')?.answer?.file
  const shown = kept?.find(k => k.id === (open ?? job.utility?.seriesId)) ?? kept?.[0]
  return (
    <View
      title="Utility data"
      lead={
        job.utility
          ? `${job.utility.document}: ${quantity(job.utility.demand.dailyMeanWh, 'Wh')} on a mean day, up to ${quantity(job.utility.demand.peakW, 'W')}.`
          : 'A year of the house, from the utility’s site or service.'
      }
      tools={<LoadsTabs />}
    >
      <Card title="Bring it in">
        <Row>
          <FileButton
            what="File of the utility"
            accept=".xml,.csv,.txt,text/csv,text/xml,application/xml"
            variant="contained"
            disabled={busy !== null}
            onFiles={([file]) => choose(file)}
          >
            Choose a file
          </FileButton>
          {sent && !kept?.some(k => k.name === sent.name) && (
            <Button
              variant="outlined"
              disabled={busy !== null}
              onClick={() =>
                void bring(
                  `reading ${sent.name}`,
                  call<Kept>(`${path}?file=${sent.id}&zone=${encodeURIComponent(zone)}`, 'POST'),
                )
              }
            >
              Read {sent.name}, sent by the customer
            </Button>
          )}
          <Button
            variant="outlined"
            disabled={busy !== null}
            onClick={() => void bring('fetching the year', call<Kept>(`${path}/fetch`, 'POST'))}
          >
            Fetch from the simulated utility
          </Button>
          <ZoneChoice label="Clock of a table" value={zone} onChange={setZone} />
        </Row>
        <Quiet>
          Green Button (XML) or the utility’s table (CSV), up to 250 MB. The file is kept with the job as it
          came.
        </Quiet>
        {busy && (
          <div role="status">
            <LinearProgress
              variant={busy.share === null ? 'indeterminate' : 'determinate'}
              value={(busy.share ?? 0) * 100}
              aria-label={busy.what}
            />
            <Quiet>{busy.what}</Quiet>
          </div>
        )}
        <Problem>{problem ?? error?.message}</Problem>
        {kept && kept.length > 1 && (
          <List dense disablePadding aria-label="Kept with the job">
            {kept.map(k => (
              <ListItem
                key={k.id}
                disableGutters
                secondaryAction={
                  <Button size="small" aria-pressed={k === shown} onClick={() => setOpen(k.id)}>
                    Look
                  </Button>
                }
              >
                {k.name}: {plural(k.meters.length, 'meter')}
                {k.id === job.utility?.seriesId && ' · in use'}
              </ListItem>
            ))}
          </List>
        )}
      </Card>
      {shown ? (
        <MeterYear
          key={shown.id}
          seriesId={shown.id}
          name={shown.name}
          meters={shown.meters}
          warnings={shown.warnings}
        />
      ) : (
        kept && (
          <Empty>
            Nothing is here yet. A year of it shows the highest demand of the panel and what an ordinary day
            takes.
          </Empty>
        )
      )}
      <FindingsHere view="loads" />
    </View>
  )
}
