import { Button } from '@mui/material'
import QRCode from 'qrcode'
import { useState } from 'react'
import { Popup } from '../common/Popup'
import { Quiet } from '../common/pieces'
import { LineField } from '../form/inputs'
import { PlainForm, sent } from './entry'

interface Made {
  totpURI: string
  backupCodes: string[]
}

/** Turns the second step on: the password, the app’s key, a first code, and codes for the day when the phone is lost. */
export function SecondStepDialog({ onClose }: { onClose: () => void }) {
  const [made, setMade] = useState<(Made & { picture: string }) | null>(null)
  const [on, setOn] = useState(false)
  const keep = async (data: Made) => {
    const svg = await QRCode.toString(data.totpURI, { type: 'svg', margin: 2 })
    setMade({ ...data, picture: `data:image/svg+xml,${encodeURIComponent(svg)}` })
  }
  if (!made)
    return (
      <Popup title="Turn the second step on" onClose={onClose}>
        <PlainForm
          label="Turn the second step on"
          values={{ password: '' }}
          save="Go on"
          onSend={values => sent('/api/auth/two-factor/enable', values, keep)}
        >
          <LineField
            name="password"
            label="Password"
            type="password"
            autoComplete="current-password"
            most={128}
            autoFocus
          />
        </PlainForm>
      </Popup>
    )
  if (on)
    return (
      <Popup
        title="Put these codes aside"
        close={null}
        actions={<Button onClick={onClose}>I have put them aside</Button>}
      >
        <p>Each opens once, where the phone is lost. They are not shown again.</p>
        <ol style={{ columns: 2, margin: 0 }}>
          {made.backupCodes.map(code => (
            <li key={code}>
              <code>{code}</code>
            </li>
          ))}
        </ol>
      </Popup>
    )
  return (
    <Popup title="Turn the second step on" onClose={onClose}>
      <Quiet>Read this with the app that gives codes, then give the code that it shows.</Quiet>
      {/* biome-ignore lint/performance/noImgElement: drawn here, not fetched */}
      <img
        src={made.picture}
        alt="Code for the app"
        width={200}
        height={200}
        style={{ alignSelf: 'center' }}
      />
      <Quiet sx={{ overflowWrap: 'anywhere' }}>
        Or type this key into it: <code>{new URL(made.totpURI).searchParams.get('secret')}</code>
      </Quiet>
      <PlainForm
        label="First code"
        values={{ code: '' }}
        save="Turn it on"
        onSend={values => sent('/api/auth/two-factor/verify-totp', values, () => setOn(true))}
      >
        <LineField name="code" label="Code" autoComplete="one-time-code" most={12} />
      </PlainForm>
    </Popup>
  )
}
