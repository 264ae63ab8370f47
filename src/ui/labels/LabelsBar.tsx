'use client'
import { Link } from '@mui/material'
import { useRouter } from 'next/navigation'
import type { House } from '@/core/job/as-planned'
import { labelSheets, labelTapes } from '@/core/work/labels'
import { HouseToggle } from '../common/HouseToggle'
import { Choice } from '../form/Choice'
import { PrintBar } from '../print/PrintBar'

interface Props {
  jobId: string
  panels: { id: string; name: string }[]
  panelId: string
  house: House
  size: string
  skip: number
}

/** Above the paper on the screen only: which panel, on what, and the files. */
export function LabelsBar({ jobId, panels, panelId, house, size, skip }: Props) {
  const router = useRouter()
  const go = (next: { panel?: string; house?: House; size?: string; skip?: number }) => {
    const query = new URLSearchParams({
      panel: next.panel ?? panelId,
      house: next.house ?? house,
      size: next.size ?? size,
      ...((next.skip ?? skip) > 0 && { skip: String(next.skip ?? skip) }),
    })
    router.replace(`/jobs/${jobId}/labels?${query}`)
  }
  const sheet = labelSheets.find(s => s.key === size)
  const query = `panel=${encodeURIComponent(panelId)}&house=${house}`
  return (
    <PrintBar
      jobId={jobId}
      note={
        <>
          As files: <Link href={`/api/jobs/${jobId}/drawing?${query}`}>drawing (SVG)</Link>,{' '}
          <Link href={`/api/jobs/${jobId}/directory?${query}`}>directory (CSV)</Link>,{' '}
          <Link href={`/api/jobs/${jobId}/export`}>job (JSON)</Link>. Print at 100 %, without fitting to the
          page.
        </>
      }
    >
      <HouseToggle value={house} onChange={next => go({ house: next })} />
      {panels.length > 1 && (
        <Choice
          label="Panel"
          value={panelId}
          options={panels.map(p => ({ value: p.id, label: p.name }))}
          onChange={panel => go({ panel })}
        />
      )}
      <Choice
        label="On"
        value={size}
        options={[
          { value: 'directory', label: 'a page: the directory' },
          ...labelSheets.map(s => ({ value: s.key, label: `labels: ${s.name}` })),
          ...labelTapes.map(t => ({ value: t.key as string, label: t.name })),
        ]}
        onChange={value => go({ size: value, skip: 0 })}
      />
      {sheet && (
        <Choice
          label="Begin at label"
          value={skip}
          options={Array.from({ length: sheet.across * sheet.down }, (_, n) => ({
            value: n,
            label: `${n + 1}`,
          }))}
          onChange={value => go({ skip: value })}
        />
      )}
    </PrintBar>
  )
}
