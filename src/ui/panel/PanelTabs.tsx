import { Tab, Tabs } from '@mui/material'
import { shownPanel, shownPanels, useWorkspace } from '../workspace/store'

/** The panels of a job that has several. */
export function PanelTabs() {
  const panel = useWorkspace(shownPanel)
  const panels = useWorkspace(shownPanels)
  const showPanel = useWorkspace(s => s.showPanel)
  return (
    <Tabs
      value={panel.id}
      onChange={(_, to) => showPanel(to)}
      aria-label="Panels of this job"
      variant="scrollable"
      sx={{ width: '100%' }}
    >
      {panels.map(p => (
        <Tab key={p.id} value={p.id} label={`${p.mark ? `${p.mark} · ` : ''}${p.name}`} />
      ))}
    </Tabs>
  )
}
