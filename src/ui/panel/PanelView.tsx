'use client'
import { Button, Paper, useMediaQuery } from '@mui/material'
import type { Theme } from '@mui/material/styles'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useCallback, useState } from 'react'
import { HouseToggle } from '../common/HouseToggle'
import { useShortcut } from '../common/keys'
import { Quiet, Row } from '../common/pieces'
import { shownPanel, shownPanels, useWorkspace, useWorkspaceStore } from '../workspace/store'
import { CircuitInspector } from './CircuitInspector'
import { PanelDrawing } from './PanelDrawing'
import styles from './PanelView.module.css'

const loadDialog = () => import('./AddBreakerDialog').then(m => m.AddBreakerDialog)
const AddBreakerDialog = dynamic(loadDialog)
const loadEntry = () => import('./EnterBreakers').then(m => m.EnterBreakers)
const EnterBreakers = dynamic(loadEntry)
const MovingStrip = dynamic(() => import('./MovingStrip').then(m => m.MovingStrip))
const DetailsSheet = dynamic(() => import('./DetailsSheet').then(m => m.DetailsSheet))
const ArrangeHere = dynamic(() => import('./ArrangeHere').then(m => m.ArrangeHere))
const loadPlan = () => import('../plan/PlanHere').then(m => m.PlanHere)
const PlanHere = dynamic(loadPlan)
const loadNear = () => Promise.all([loadDialog(), loadPlan()])
const PanelTabs = dynamic(() => import('./PanelTabs').then(m => m.PanelTabs))
const PanelFactsDialog = dynamic(() => import('./PanelFactsDialog').then(m => m.PanelFactsDialog))
const AddPanelDialog = dynamic(() => import('./AddPanelDialog').then(m => m.AddPanelDialog))

const houseHelp = {
  found: 'Edits correct the survey; moves are planned.',
  planned: 'Edits of breakers are planned; the survey stays.',
} as const

export function PanelView() {
  const [adding, setAdding] = useState<{ space: number; half: 'a' | 'b' | undefined } | null>(null)
  const [overlay, setOverlay] = useState<'facts' | 'add' | null>(null)
  const narrow = useMediaQuery<Theme>(theme => theme.breakpoints.down('lg'))
  // the id alone: a tap redraws the breakers, not the tools around them
  const panelId = useWorkspace(s => shownPanel(s).id)
  const surveyed = useWorkspace(s => s.job.panels.some(p => p.id === shownPanel(s).id))
  const several = useWorkspace(s => shownPanels(s).length > 1)
  const house = useWorkspace(s => s.house)
  const showHouse = useWorkspace(s => s.showHouse)
  const plans = useWorkspace(s => s.evaluation.plan.some(c => c.origin !== 'hook-up'))
  const moving = useWorkspace(s => s.moving !== null)
  const detailsOpen = useWorkspace(s => s.detailsOpen)
  const id = useWorkspace(s => s.id)
  const store = useWorkspaceStore()
  const [entering, setEntering] = useState(false)
  useShortcut('stay', () => store.getState().move(null))
  // what is read from the panel belongs to the survey
  const enter = () => {
    store.getState().showHouse('found')
    setEntering(true)
  }
  useShortcut('enter', enter)
  const onAdd = useCallback((space: number, half?: 'a' | 'b') => setAdding({ space, half }), [])
  return (
    <div className={styles.view}>
      <h1 className="visually-hidden">Panel</h1>
      <div>
        <Row sx={{ mb: 1 }}>
          <HouseToggle value={house} onChange={showHouse} />
          <Quiet component="span">{houseHelp[house]}</Quiet>
          {several && <PanelTabs />}
          {!entering && (
            <Button
              size="small"
              variant="outlined"
              onPointerEnter={() => void loadEntry()}
              onFocus={() => void loadEntry()}
              onClick={enter}
            >
              Enter breakers by line (E)
            </Button>
          )}
          {surveyed ? (
            <Button size="small" onClick={() => setOverlay('facts')}>
              This panel
            </Button>
          ) : (
            <Button size="small" component={Link} href={`/jobs/${id}/hook-up#new-panel`}>
              This panel, under Hook-up
            </Button>
          )}
          <Button size="small" onClick={() => setOverlay('add')}>
            Add a panel
          </Button>
          <Button size="small" href={`/jobs/${id}/labels?panel=${encodeURIComponent(panelId)}`}>
            Directory and labels
          </Button>
          <ArrangeHere />
        </Row>
        {entering && (
          <EnterBreakers key={`entry ${panelId}`} panelId={panelId} onClose={() => setEntering(false)} />
        )}
        {/* the dialog is fetched as one comes near, so that nothing typed at once is lost */}
        <PanelDrawing key={`drawing ${panelId}`} onAdd={onAdd} onNear={loadNear} />
        {plans && <PlanHere />}
        <Quiet sx={{ m: 1 }}>
          Tap to pick; the dots open a circuit; drag a breaker, or press M, to move it. Filled: picked.
          Striped: picked but not served. N: shared neutral.
        </Quiet>
      </div>
      {narrow && moving && (
        <Paper variant="outlined" className={styles.strip}>
          <MovingStrip />
        </Paper>
      )}
      {narrow && !moving && detailsOpen && <DetailsSheet />}
      {!narrow && (
        <Paper component="aside" variant="outlined" className={styles.side} aria-label="Circuit">
          {moving ? <MovingStrip /> : <CircuitInspector />}
        </Paper>
      )}
      {adding !== null && (
        <AddBreakerDialog space={adding.space} half={adding.half} onClose={() => setAdding(null)} />
      )}
      {overlay === 'facts' && <PanelFactsDialog onClose={() => setOverlay(null)} />}
      {overlay === 'add' && <AddPanelDialog onClose={() => setOverlay(null)} />}
    </div>
  )
}
