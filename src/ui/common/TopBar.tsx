import { Box, Button, IconButton, Typography } from '@mui/material'
import { useColorScheme } from '@mui/material/styles'
import { Calculator, Moon, Sun, UserRound } from 'lucide-react'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { type ReactNode, useEffect, useState } from 'react'
import type { Role } from '@/core/firm/roles'
import { Logo } from './Logo'
import { Row } from './pieces'
import { setFirmUnits, setFirmZone } from './today'
import { setWho } from './who'

const PersonMenu = dynamic(() => import('./PersonMenu').then(m => m.PersonMenu))

export interface PersonChoice {
  id: string
  label: string
  firm: string
  zone: string
  role: Role
  /** the firm’s, for whoever has not chosen themselves */
  units?: 'imperial' | 'metric'
  /** looked around as, in the demo */
  demo: boolean
}

/** The bar above every screen: home, what the screen adds, day or night, who is acting. */
export function TopBar({
  person,
  crowded = false,
  children,
}: {
  person: PersonChoice
  /** the screen fills the bar: on a phone the way to the bench makes room */
  crowded?: boolean
  children?: ReactNode
}) {
  setFirmZone(person.zone)
  setFirmUnits(person.units)
  setWho(person.id)
  useEffect(() => {
    void import('./device').then(({ handOver }) => handOver(person.id)).catch(() => {})
  }, [person.id])
  return (
    <Row
      component="header"
      className="no-print"
      spacing={{ xs: 0.25, sm: 1 }}
      sx={{
        flexWrap: 'nowrap',
        minHeight: 52,
        px: { xs: 0.75, sm: 1.5 },
        bgcolor: 'background.paper',
        borderBottom: 1,
        borderColor: 'divider',
        '& > .MuiButton-root': { minWidth: 40 },
        '& .MuiButton-startIcon': { mr: { xs: 0, sm: 1 } },
      }}
    >
      <Button
        component={Link}
        prefetch={false}
        href="/jobs"
        color="inherit"
        aria-label="Spillway, all jobs"
        startIcon={<Logo />}
      >
        <Typography variant="h2" component="span" sx={wide}>
          Spillway
        </Typography>
      </Button>
      <Button component={Link} prefetch={false} href="/jobs" color="inherit" sx={wide}>
        Jobs
      </Button>
      <Button component={Link} prefetch={false} href="/equipment" color="inherit" sx={wide}>
        Equipment
      </Button>
      <Button
        component={Link}
        href="/bench"
        prefetch={false}
        color="inherit"
        aria-label="Bench"
        title="The bench: calculators outside any job"
        startIcon={<Calculator size={18} aria-hidden />}
        sx={crowded ? wide : {}}
      >
        <Box component="span" sx={wide}>
          Bench
        </Box>
      </Button>
      <Row sx={{ flex: 1, flexWrap: 'nowrap', minWidth: 0 }}>{children}</Row>
      <SchemeToggle />
      <PersonButton person={person} />
    </Row>
  )
}

/** Only where there is room. */
export const wide = { display: { xs: 'none', sm: 'inline-flex' } }

function SchemeToggle() {
  const { mode, systemMode, setMode } = useColorScheme()
  const dark = (mode === 'system' ? systemMode : mode) === 'dark'
  return (
    <IconButton
      aria-label={dark ? 'Show in daylight colours' : 'Show in night colours'}
      title={dark ? 'Daylight colours' : 'Night colours'}
      onClick={() => setMode(dark ? 'light' : 'dark')}
    >
      {dark ? <Sun size={20} aria-hidden /> : <Moon size={20} aria-hidden />}
    </IconButton>
  )
}

function PersonButton({ person }: { person: PersonChoice }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <>
      <Button
        color="inherit"
        aria-haspopup="menu"
        aria-label={`${person.label}, ${person.firm}`}
        startIcon={<UserRound size={18} aria-hidden />}
        onClick={event => setAnchor(event.currentTarget)}
      >
        <Box component="span" sx={wide}>
          {person.label}
        </Box>
      </Button>
      {anchor && <PersonMenu person={person} anchor={anchor} onClose={() => setAnchor(null)} />}
    </>
  )
}
