'use client'
import { Button } from '@mui/material'
import { FileDown, Printer } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useDeferredValue, useMemo, useState } from 'react'
import { oneLineSvg } from '@/core/formats/one-line-svg'
import { type House, standing } from '@/core/job/as-planned'
import { HouseToggle } from '../common/HouseToggle'
import { useWorkspace } from '../workspace/store'
import styles from './OneLine.module.css'

/** The one-line diagram, drawn anew with every change; a press on a part leads to where it is changed. */
export function OneLineView({ today, firm }: { today: string; firm: string }) {
  const id = useWorkspace(s => s.id)
  const revision = useWorkspace(s => s.revision)
  const [house, setHouse] = useState<House>('planned')
  const whole = useDeferredValue(useWorkspace(s => s.job))
  const router = useRouter()
  const svg = useMemo(
    () =>
      oneLineSvg(
        house === 'found' ? standing(whole) : whole,
        { firm, revision, on: today },
        ({ goto }) => `/jobs/${id}/${goto.view}${goto.field ? `#${goto.field}` : ''}`,
      ),
    [whole, house, firm, revision, today, id],
  )
  return (
    <div className={styles.view}>
      <div className={`${styles.head} no-print`}>
        <h1>One-line</h1>
        <HouseToggle value={house} onChange={setHouse} />
        <p>Drawn from the job. Dashed lines are cords; a ring where only one of two lines can be closed.</p>
        <Button
          size="small"
          startIcon={<FileDown size={16} aria-hidden />}
          href={`/api/jobs/${id}/one-line?house=${house}`}
        >
          SVG
        </Button>
        <Button size="small" startIcon={<Printer size={16} aria-hidden />} onClick={() => window.print()}>
          Print
        </Button>
      </div>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the parts are links, which the keyboard presses as clicks */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: as above */}
      <div
        className={styles.sheet}
        onClick={event => {
          const link = event.target instanceof Element ? event.target.closest('a') : null
          const href = link?.getAttribute('href')
          if (!href || event.metaKey || event.ctrlKey) return
          event.preventDefault()
          router.push(href)
        }}
        // biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing; every text in it is escaped
        dangerouslySetInnerHTML={{ __html: svg }}
      />
    </div>
  )
}
