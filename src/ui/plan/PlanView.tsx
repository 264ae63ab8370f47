'use client'
import { Box, Button } from '@mui/material'
import { Printer } from 'lucide-react'
import { useDeferredValue, useMemo } from 'react'
import { deference } from '@/core/deference'
import { panelSvg } from '@/core/formats/panel-svg'
import type { Panel } from '@/core/panel/schema'
import { marksOf } from '@/core/plan/marks'
import { plural } from '@/core/units/format'
import { houseNames } from '../common/HouseToggle'
import { Card, Empty, Quiet, View } from '../common/pieces'
import { useWorkspace } from '../workspace/store'
import { ChangeList } from './ChangeList'

/** What is going to be done to the house: the list, and each panel that it changes as found and as planned. */
export function PlanView({ today, firm }: { today: string; firm: string }) {
  const { title, place } = useWorkspace(s => s.job)
  const revision = useWorkspace(s => s.revision)
  const plan = useWorkspace(s => s.evaluation.plan)
  const found = useWorkspace(s => s.job.panels)
  const planned = useWorkspace(s => s.evaluation.house?.panels ?? s.job.panels)
  const changed = useMemo(
    () =>
      planned.filter(p => {
        const was = found.find(f => f.id === p.id)
        return was !== p && (!was || panelSvg(was) !== panelSvg(p))
      }),
    [found, planned],
  )
  const byOrigin = [
    { title: 'What the hook-up asks for', changes: plan.filter(c => c.origin === 'hook-up') },
    { title: 'What else is planned', changes: plan.filter(c => c.origin !== 'hook-up') },
  ].filter(g => g.changes.length)
  return (
    <View
      title="Plan"
      lead="What we are going to do to the house, in an order in which it can be done. The survey stays as it was found."
      tools={
        <Button size="small" startIcon={<Printer size={16} aria-hidden />} onClick={() => window.print()}>
          Print
        </Button>
      }
    >
      <Box sx={{ display: 'none', '@media print': { display: 'block' } }}>
        <b>{title}</b>
        {place && `, ${place}`}. {firm}, revision {revision}, {today}.
      </Box>
      {!plan.length && (
        <Empty>
          <h2>Nothing is planned</h2>
          <p>
            Choose a hook-up, press the fix of a finding, or drag a breaker in the panel: what has to be done
            is listed here.
          </p>
        </Empty>
      )}
      {byOrigin.map(({ title, changes }) => (
        <Card
          key={title}
          title={title}
          tools={<Quiet component="span">{plural(changes.length, 'change')}</Quiet>}
        >
          <ChangeList changes={changes} />
        </Card>
      ))}
      {changed.map(panel => (
        <Compared
          key={panel.id}
          name={panel.name}
          found={found.find(p => p.id === panel.id)}
          planned={panel}
        />
      ))}
      <Quiet>{deference}</Quiet>
    </View>
  )
}

function Compared({ name, found, planned }: { name: string; found: Panel | undefined; planned: Panel }) {
  const plan = useWorkspace(s => s.evaluation.plan)
  const drawn = useDeferredValue(
    useMemo(() => {
      const signs = marksOf(plan.filter(c => c.hindered === null && c.kind !== 'lead'))
      const marks = new Map([...signs].map(([id, { sign }]) => [id, sign]))
      return [
        ...(found ? [{ title: houseNames.found, svg: panelSvg(found, marks) }] : []),
        { title: houseNames.planned, svg: panelSvg(planned, marks) },
      ]
    }, [plan, found, planned]),
  )
  return (
    <Card title={name} sx={{ breakInside: 'avoid' }}>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: '1fr 1fr' },
          gap: 1.5,
          '@media print': { gridTemplateColumns: '1fr 1fr' },
        }}
      >
        {drawn.map(({ title, svg }) => (
          <figure key={title} style={{ margin: 0, minWidth: 0, breakInside: 'avoid' }}>
            <figcaption>
              <b>{title}</b>
            </figcaption>
            <Box
              sx={{ '& svg': { width: '100%', height: 'auto', display: 'block' } }}
              // biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing; every text in it is escaped
              dangerouslySetInnerHTML={{ __html: svg.replace(/^<\?xml[^>]*>\s*/, '') }}
            />
          </figure>
        ))}
      </Box>
    </Card>
  )
}
