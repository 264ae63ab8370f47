'use client'
import { Button } from '@mui/material'
import { useState } from 'react'
import { editions } from '@/core/editions'
import { may } from '@/core/firm/roles'
import type { FirmSettings } from '@/core/firm/settings'
import { languages } from '@/core/languages'
import { currencyNames } from '@/core/money-names'
import { call, upload } from '../api'
import { FileButton, pictures } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Card, Columns, Quiet, Row, Screen, Terms } from '../common/pieces'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { Form, OtherFaults, Save } from '../form/Form'
import { ChoiceField, LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { DataCard, type DeletedJob } from './DataCard'

interface Kept {
  settings: FirmSettings
  version: number
  logo: boolean
}
interface Props extends Kept {
  person: PersonChoice
  deleted: DeletedJob[]
  graceDays: number
}

const editionOptions = editions.map(e => ({ value: e, label: `NEC ${e}` }))
const unitOptions = [
  { value: 'imperial', label: 'feet and °F' },
  { value: 'metric', label: 'metres and °C' },
]
const currencyOptions = Object.entries(currencyNames).map(([value, label]) => ({ value, label }))
const secondStepNames = { offered: 'offered to everybody', demanded: 'demanded of everybody' } as const
const secondStepOptions = Object.entries(secondStepNames).map(([value, label]) => ({ value, label }))
const languageOptions = Object.entries(languages).map(([value, label]) => ({ value, label }))

/** The firm’s own ways: what its papers say, and what a new job begins with. */
export function FirmScreen({ person, ...given }: Props) {
  return (
    <>
      <TopBar person={person} />
      <Screen title="Firm" lead="What papers say, and what a new job begins with">
        <Columns least={340}>
          {may(person.role, 'firm') ? <SettingsCard {...given} /> : <Shown settings={given.settings} />}
          {may(person.role, 'firm') && (
            <DataCard firm={given.settings.name} deleted={given.deleted} graceDays={given.graceDays} />
          )}
          <LogoCard logo={given.logo} mine={may(person.role, 'firm')} />
        </Columns>
      </Screen>
    </>
  )
}

function Shown({ settings }: { settings: FirmSettings }) {
  return (
    <Card title="Settings">
      <Terms
        width={140}
        rows={[
          ['Name', settings.name],
          ['Telephone', settings.telephone || 'none yet'],
          ['Time zone', settings.zone],
          ['Edition', `NEC ${settings.edition}`],
          ['Who inspects', settings.authority || 'not said'],
          ['Lengths and temperatures', settings.units === 'metric' ? 'metres and °C' : 'feet and °F'],
          ['Prices in', currencyNames[settings.currency]],
          ['Language', languages[settings.language]],
          ['Second step at sign-in', secondStepNames[settings.secondStep]],
        ]}
      />
      <Quiet>An owner changes them.</Quiet>
    </Card>
  )
}

function SettingsCard(given: Kept) {
  const [version, setVersion] = useState(given.version)
  const [said, setSaid] = useState<string | null>(null)
  const sheet = useSheet<FirmSettings, FirmSettings>({
    values: given.settings,
    read: value => ({ ok: true, value }),
    save: async settings => {
      setSaid(null)
      const reply = await call<Kept>('/api/firm', 'POST', { settings, version })
      if (!reply.ok)
        return reply.faults.length
          ? reply.faults.map(f => ({ ...f, path: f.path.replace(/^settings\./, '') }))
          : reply.message
      setVersion(reply.data.version)
      setSaid('Kept. New jobs begin with it from now on.')
      return null
    },
  })
  return (
    <Card title="Settings">
      <Form sheet={sheet} label="Settings">
        <LineField name="name" label="Name of the firm" most={80} autoComplete="organization" />
        <LineField
          name="telephone"
          label="Telephone"
          most={30}
          help="whom a house calls; on new jobs’ cards"
        />
        <LineField name="zone" label="Time zone" most={60} help="its days are counted in it" />
        <ChoiceField name="edition" label="Edition of the code" options={editionOptions} />
        <LineField
          name="authority"
          label="Who inspects"
          most={120}
          help="stands on a job’s sheet after the edition"
        />
        <ChoiceField
          name="units"
          label="Lengths and temperatures"
          options={unitOptions}
          help="for whoever has not chosen themselves"
        />
        <ChoiceField name="currency" label="Prices in" options={currencyOptions} />
        <ChoiceField name="language" label="Language of a new customer" options={languageOptions} />
        <ChoiceField
          name="secondStep"
          label="Second step at sign-in"
          options={secondStepOptions}
          help="a code of an app, after the password; whoever has none yet sets it up before anything else"
        />
        <OtherFaults />
        <Row>
          <Save>Keep</Save>
          {said && <Quiet role="status">{said}</Quiet>}
        </Row>
      </Form>
    </Card>
  )
}

function LogoCard({ logo, mine }: { logo: boolean; mine: boolean }) {
  const [shown, setShown] = useState<string | null>(logo ? '/api/firm/logo' : null)
  const [problem, setProblem] = useState<string | null>(null)
  const send = async (file: Blob) => {
    setProblem(null)
    const reply = await upload<{ logo: boolean }>('/api/firm/logo', file, () => {})
    if (!reply.ok) return setProblem(reply.faults[0] ? `The logo ${reply.faults[0].message}.` : reply.message)
    setShown(reply.data.logo ? `/api/firm/logo?${Date.now()}` : null)
  }
  return (
    <Card title="Logo">
      {shown ? (
        // biome-ignore lint/performance/noImgElement: a private picture, as it is kept
        <img
          src={shown}
          alt="The firm’s logo"
          style={{ maxWidth: '100%', maxHeight: 200, alignSelf: 'flex-start' }}
        />
      ) : (
        <Quiet>No logo yet. It stands at the head of estimates and packs.</Quiet>
      )}
      {mine && (
        <Row>
          <FileButton
            what="A picture as the logo"
            accept={pictures}
            variant="outlined"
            onFiles={([file]) => send(file)}
          >
            {shown ? 'Another picture' : 'Choose a picture'}
          </FileButton>
          {shown && <Button onClick={() => send(new Blob([]))}>Take it away</Button>}
        </Row>
      )}
      <Problem>{problem}</Problem>
    </Card>
  )
}
