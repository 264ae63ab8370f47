import { Button } from '@mui/material'
import { ChevronDown } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { arrangementNames } from '@/core/source/arrangement'
import { useWorkspace } from '../workspace/store'

const loadMenu = () => import('./ArrangeMenu').then(m => m.ArrangeMenu)
const ArrangeMenu = dynamic(loadMenu)

/** The arrangement beside the drawn panel: switch it and watch the legs light up or die. */
export function ArrangeHere() {
  const source = useWorkspace(s => s.job.source)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  if (!source) return null
  const { arrangement, liveLeg } = source
  return (
    <>
      <Button
        size="small"
        aria-haspopup="menu"
        sx={{ ml: 'auto' }}
        endIcon={<ChevronDown size={16} aria-hidden />}
        onPointerEnter={() => void loadMenu()}
        onFocus={() => void loadMenu()}
        onClick={e => setAnchor(e.currentTarget)}
      >
        Arrangement: {arrangementNames[arrangement]}
        {arrangement === 'one-leg' && `, ${liveLeg} live`}
      </Button>
      {anchor && <ArrangeMenu source={source} anchor={anchor} onClose={() => setAnchor(null)} />}
    </>
  )
}
