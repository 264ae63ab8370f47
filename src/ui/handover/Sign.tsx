import { Box, Button, Checkbox, FormControlLabel, TextField } from '@mui/material'
import { useCallback, useRef, useState } from 'react'
import SignaturePad from 'signature_pad'
import type { Signature } from '@/core/estimate/signature'
import { Popup } from '../common/Popup'
import { Problem } from '../common/Problem'
import { Column, Quiet, Row } from '../common/pieces'

interface Signed {
  name: string
  signature: Signature
  typed?: true
}

/** A name drawn with a finger or the mouse, or typed by who cannot draw. What was written stays when it is refused. */
export function Sign({
  title,
  onSign,
  onClose,
}: {
  title: string
  /** what keeps it from being taken; null where it was */
  onSign: (signed: Signed) => Promise<string | null>
  onClose: () => void
}) {
  const canvas = useRef<HTMLCanvasElement | null>(null)
  const pad = useRef<SignaturePad | null>(null)
  const [name, setName] = useState('')
  const [typed, setTyped] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  /** A dialog puts its matter on the page after it is made itself: the field begins when it is there. */
  const begin = useCallback((here: HTMLCanvasElement | null) => {
    pad.current?.off()
    canvas.current = here
    if (!here) return
    const by = Math.max(1, devicePixelRatio)
    here.width = here.offsetWidth * by
    here.height = here.offsetHeight * by
    here.getContext('2d')?.scale(by, by)
    pad.current = new SignaturePad(here, { penColor: 'black', minWidth: 1, maxWidth: 3 })
  }, [])
  const sign = async () => {
    if (name.trim().length < 2) return setProblem('Write the name first.')
    const to = 1000 / (canvas.current?.offsetWidth || 1000)
    const signature = (pad.current?.toData() ?? []).map(({ points }) =>
      points.map((p): [number, number] => [Math.round(p.x * to * 10) / 10, Math.round(p.y * to * 10) / 10]),
    )
    setProblem(await onSign({ name: name.trim(), signature, ...(typed && { typed: true as const }) }))
  }
  return (
    <Popup
      title={title}
      onClose={onClose}
      send={
        <Button variant="contained" onClick={() => void sign()}>
          Sign
        </Button>
      }
    >
      <Column>
        <TextField
          label="Name"
          value={name}
          onChange={e => setName(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 80, autoComplete: 'name' } }}
        />
        <Quiet id="sign-here">Sign with a finger or the mouse</Quiet>
        <Box
          component="canvas"
          ref={begin}
          role="img"
          aria-labelledby="sign-here"
          tabIndex={0}
          sx={{
            width: 1,
            height: 180,
            bgcolor: 'common.white',
            border: 1,
            borderColor: 'divider',
            touchAction: 'none',
          }}
        />
        <Row>
          <Button size="small" onClick={() => pad.current?.clear()}>
            Sign anew
          </Button>
          <FormControlLabel
            control={<Checkbox checked={typed} onChange={e => setTyped(e.target.checked)} />}
            label="Cannot draw: the typed name stands for it"
          />
        </Row>
        {problem && <Problem>{problem}</Problem>}
      </Column>
    </Popup>
  )
}
