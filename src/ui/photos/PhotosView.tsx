'use client'
import { Avatar, ToggleButton } from '@mui/material'
import { useMutation } from '@tanstack/react-query'
import { ImagePlus } from 'lucide-react'
import dynamic from 'next/dynamic'
import { type DragEvent, useEffect, useState } from 'react'
import type { About, Photo } from '@/core/ask/evidence'
import { aboutText } from '@/core/job/about'
import { largestSent, upload } from '../api'
import { FileButton, pictures } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Columns, Empty, View } from '../common/pieces'
import { today } from '../common/today'
import { dataOf, worthARetry } from '../query'
import { foundPanel, useWorkspace } from '../workspace/store'

const PhotoDesk = dynamic(() => import('./PhotoDesk').then(m => m.PhotoDesk))

/** The photographs of the job, by what they show; one at a time on the desk to be looked at, marked and transcribed. */
export function PhotosView() {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const person = useWorkspace(s => s.person)
  const panel = useWorkspace(foundPanel)
  const act = useWorkspace(s => s.act)
  const [openId, setOpenId] = useState<string | null>(null)
  const [sending, setSending] = useState<string | null>(null)
  const [problems, setProblems] = useState<string[]>([])
  const { photos } = job
  const open = photos.find(p => p.id === openId) ?? photos[0]
  useEffect(() => {
    if (location.hash) setOpenId(location.hash.slice(1))
  }, [])

  const send = useMutation({
    mutationFn: ({ file, photoId }: { file: File; photoId: string }) =>
      dataOf(
        upload<Pick<Photo, 'width' | 'height'>>(`/api/jobs/${id}/photos?photo=${photoId}`, file, share =>
          setSending(`Sending ${file.name}, ${Math.round(share * 100)} %`),
        ),
      ),
    // one sent twice under its id is kept once
    retry: worthARetry,
  })
  const take = async (files: Iterable<File>) => {
    const refused: string[] = []
    setProblems([])
    for (const file of files) {
      const photoId = crypto.randomUUID()
      setSending(`Sending ${file.name}`)
      try {
        if (file.size > largestSent)
          throw new Error(`larger than ${largestSent / 1e6} MB. Send a smaller copy.`)
        const size = await send.mutateAsync({ file, photoId })
        const name = file.name.replace(/\.[a-z]+$/i, '').slice(0, 80) || 'Photograph'
        const on = today()
        const about: About = { kind: 'panel', panelId: panel.id }
        const photo: Photo = { ...size, id: photoId, name, by: person, on, turns: 0, about, marks: [] }
        const [fault] = act({ op: 'addPhoto', photo })
        if (fault) throw new Error(`${fault.path} ${fault.message}`)
        setOpenId(photoId)
      } catch (error) {
        refused.push(`${file.name}: ${error instanceof Error ? error.message : error}`)
      }
    }
    setSending(null)
    setProblems(refused)
  }
  const onDrop = (event: DragEvent) => {
    event.preventDefault()
    void take(event.dataTransfer.files)
  }
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: dropping files is offered beside the button, not instead of it
    <div onDrop={onDrop} onDragOver={event => event.preventDefault()}>
      <View
        title="Photographs"
        tools={
          <FileButton
            what="Photographs to add"
            accept={pictures}
            multiple
            variant="outlined"
            startIcon={<ImagePlus size={19} aria-hidden />}
            disabled={sending !== null}
            onFiles={take}
          >
            {send.isPaused ? 'Waiting for the connection' : (sending ?? 'Add photographs')}
          </FileButton>
        }
      >
        {problems.length > 0 && (
          <Problem>
            {problems.map(p => (
              <p key={p}>{p}</p>
            ))}
          </Problem>
        )}
        {open ? (
          <PhotoDesk key={open.id} photo={open} />
        ) : (
          <Empty>
            No photographs yet. Add them here, drop them on this screen, or send the customer the link under
            Ask.
          </Empty>
        )}
        <Columns component="ul" least={180} aria-label="All photographs" sx={{ p: 0, listStyle: 'none' }}>
          {photos.map(p => (
            <li key={p.id}>
              <ToggleButton
                value={p.id}
                selected={p === open}
                fullWidth
                sx={{ justifyContent: 'flex-start', gap: 1, p: 0.5, textAlign: 'left' }}
                onChange={() => {
                  setOpenId(p.id)
                  history.replaceState(null, '', `#${p.id}`)
                }}
              >
                <Avatar
                  variant="rounded"
                  src={`/api/photos/${p.id}?size=thumbnail`}
                  alt=""
                  slotProps={{ img: { loading: 'lazy' } }}
                  sx={{ width: 56, height: 56, transform: `rotate(${p.turns * 90}deg)` }}
                />
                <span>
                  <b>{p.name}</b>
                  <br />
                  {aboutText(job, p.about)}
                  {p.marks.length > 0 && ` · ${p.marks.length} marked`}
                </span>
              </ToggleButton>
            </li>
          ))}
        </Columns>
      </View>
    </div>
  )
}
