import { Button, type ButtonProps } from '@mui/material'
import { useRef } from 'react'

interface Props extends Omit<ButtonProps, 'onClick' | 'onChange' | 'type'> {
  /** what is to be chosen, for who does not see the button */
  what: string
  /** as the attribute of a file field takes it */
  accept: string
  multiple?: boolean
  /** a phone opens its camera */
  camera?: boolean
  /** at least one file; the same one can be chosen again afterwards */
  onFiles: (files: [File, ...File[]]) => unknown
}

/** A button that lets choose files. */
export function FileButton({ what, accept, multiple, camera, onFiles, ...button }: Props) {
  const field = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button {...button} onClick={() => field.current?.click()} />
      <input
        ref={field}
        type="file"
        hidden
        aria-label={what}
        accept={accept}
        multiple={multiple}
        capture={camera ? 'environment' : undefined}
        onChange={({ target }) => {
          const [first, ...more] = target.files ?? []
          target.value = ''
          if (first) void onFiles([first, ...more])
        }}
      />
    </>
  )
}

export const pictures = 'image/jpeg,image/png,image/webp'
