'use client'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import ListSubheader from '@mui/material/ListSubheader'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useColorScheme } from '@mui/material/styles'
import { Calculator, Moon, Sun, UserRound } from 'lucide-react'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { type ReactNode, useState } from 'react'
import { call } from '../api'
import { Mark } from './Mark'
import styles from './TopBar.module.css'
import { setFirmZone } from './today'

export interface PersonChoice {
  label: string
  firm: string
  zone: string
  people: { personId: string; label: string }[]
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
  return (
    <header className={`${styles.bar} no-print`}>
      <Link href="/jobs" className={styles.home} aria-label="Spillway, all jobs">
        <Mark />
        <span>Spillway</span>
      </Link>
      <Link href="/jobs" className={`${styles.bench} ${styles.wide}`}>
        Jobs
      </Link>
      <Link href="/equipment" className={`${styles.bench} ${styles.wide}`}>
        Equipment
      </Link>
      <Link
        href="/bench"
        className={`${styles.bench} ${crowded ? styles.wide : ''}`}
        title="The bench: calculators outside any job"
      >
        <Calculator size={18} aria-hidden />
        <span>Bench</span>
      </Link>
      <div className={styles.middle}>{children}</div>
      <SchemeToggle />
      <PersonMenu person={person} />
    </header>
  )
}

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

function PersonMenu({ person }: { person: PersonChoice }) {
  const router = useRouter()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const actAs = async (personId: string) => {
    setAnchor(null)
    await call('/api/person', 'POST', { personId })
    router.refresh()
  }
  return (
    <>
      <Button
        color="inherit"
        aria-haspopup="menu"
        aria-label={`Acting as ${person.label}, ${person.firm}`}
        startIcon={<UserRound size={18} aria-hidden />}
        onClick={event => setAnchor(event.currentTarget)}
      >
        <span className={styles.wide}>{person.label}</span>
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <ListSubheader>{person.firm}: act as</ListSubheader>
        {person.people.map(p => (
          <MenuItem key={p.personId} selected={p.label === person.label} onClick={() => actAs(p.personId)}>
            {p.label}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
