import { Alert, Button, TextField } from '@mui/material'
import { useState } from 'react'
import { Row } from '../common/pieces'

/** The address, shown once. */
export function LinkShown({ token }: { token: string }) {
  const [said, setSaid] = useState('')
  const address = `${location.origin}/offer/${token}`
  return (
    <Alert severity="success">
      <p>Send this address to the customer; it is shown only now.</p>
      <Row sx={{ flexWrap: 'nowrap', mt: 1 }}>
        <TextField
          value={address}
          label="Address to send"
          fullWidth
          onFocus={event => event.target.select()}
          slotProps={{ htmlInput: { readOnly: true } }}
        />
        <Button
          variant="contained"
          onClick={() =>
            void navigator.clipboard.writeText(address).then(
              () => setSaid('Copied.'),
              () => setSaid('Select the address and copy it.'),
            )
          }
        >
          Copy
        </Button>
      </Row>
      <span role="status">{said}</span>
    </Alert>
  )
}
