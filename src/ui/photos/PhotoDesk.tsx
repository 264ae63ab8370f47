import { Button, List, ListItem, ListItemButton } from '@mui/material'
import { Maximize, RotateCw, ScanLine, X, ZoomIn, ZoomOut } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { TransformComponent, TransformWrapper, useControls } from 'react-zoom-pan-pinch'
import { type Photo, type PhotoMark, photoSchema } from '@/core/ask/evidence'
import { aboutText } from '@/core/job/about'
import { Column, Quiet, Row } from '../common/pieces'
import { Tool } from '../common/Tool'
import { EditField, readText } from '../form/EditField'
import { useWorkspace } from '../workspace/store'
import { AboutChoice } from './AboutChoice'
import styles from './PhotosView.module.css'
import { Picture } from './Picture'

const MarkCard = dynamic(() => import('./MarkCard').then(m => m.MarkCard))

/** One photograph: panned, zoomed and turned; breakers and nameplates marked on it, and transcribed beside it. */
export function PhotoDesk({ photo }: { photo: Photo }) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [marking, setMarking] = useState(false)
  const [markId, setMarkId] = useState<string | null>(null)
  const { id: photoId, turns } = photo
  const edit = (facts: Partial<Pick<Photo, 'name' | 'turns' | 'about'>>) =>
    act({ op: 'editPhoto', photoId, facts })
  const put = (mark: PhotoMark) => {
    const [fault] = act({ op: 'putMark', photoId, mark })
    if (fault) say(`Not marked: ${fault.message}`)
  }
  const add = (box: Pick<PhotoMark, 'x' | 'y' | 'w' | 'h'>) => {
    const id = crypto.randomUUID()
    put({ id, ...box, about: photo.about, text: '' })
    setMarkId(id)
    setMarking(false)
  }
  const quarter = ((turns + 1) % 4) as Photo['turns']
  return (
    <div className={styles.desk}>
      <TransformWrapper
        key={turns}
        minScale={1}
        maxScale={8}
        panning={{ disabled: marking }}
        doubleClick={{ disabled: true }}
        wheel={{ step: 0.12 }}
      >
        <div>
          <Row role="toolbar" aria-label="Picture" spacing={0.5} sx={{ mb: 0.75 }}>
            <Zoom />
            <Tool
              label="Turn by a quarter"
              title="Turn"
              onClick={() => edit({ turns: quarter })}
              icon={RotateCw}
            />
            <Button
              size="small"
              variant={marking ? 'contained' : 'outlined'}
              aria-pressed={marking}
              startIcon={<ScanLine size={18} aria-hidden />}
              onClick={() => setMarking(!marking)}
            >
              {marking ? 'Draw a frame on the picture' : 'Mark'}
            </Button>
            {marking && (
              <Button size="small" onClick={() => add({ x: 0.4, y: 0.42, w: 0.2, h: 0.16 })}>
                Mark the middle
              </Button>
            )}
          </Row>
          <TransformComponent wrapperClass={styles.wrapper} contentClass={styles.content}>
            <Picture
              photo={photo}
              marking={marking}
              selected={markId}
              onDrawn={add}
              onSelect={setMarkId}
              onChange={put}
            />
          </TransformComponent>
        </div>
      </TransformWrapper>
      <Column>
        <EditField
          key={`name of ${photoId}`}
          label="Name"
          value={photo.name}
          read={readText(photoSchema.shape.name)}
          onCommit={name => edit({ name })}
        />
        <AboutChoice label="It shows" about={photo.about} onChange={about => edit({ about })} />
        <Quiet>
          {photo.by}, {photo.on} · {photo.width} × {photo.height}
        </Quiet>
        <List component="ol" dense disablePadding aria-label="Marks">
          {photo.marks.map((mark, n) =>
            mark.id === markId ? (
              <MarkCard key={mark.id} photo={photo} mark={mark} number={n + 1} onPut={put} />
            ) : (
              <ListItem key={mark.id} disablePadding divider>
                <ListItemButton onClick={() => setMarkId(mark.id)}>
                  <b style={{ minWidth: 24 }}>{n + 1}</b>{' '}
                  <span>{mark.text || aboutText(job, mark.about)}</span>
                </ListItemButton>
              </ListItem>
            ),
          )}
        </List>
        {!photo.marks.length && <Quiet>Press Mark, and draw a frame around a breaker or a plate.</Quiet>}
        <Button
          color="error"
          startIcon={<X size={17} aria-hidden />}
          onClick={() => {
            act({ op: 'removePhoto', photoId })
            say(`Removed ${photo.name}. Undo brings it back.`)
          }}
        >
          Remove this photograph
        </Button>
      </Column>
    </div>
  )
}

function Zoom() {
  const { zoomIn, zoomOut, resetTransform } = useControls()
  return (
    <>
      <Tool label="Nearer" title="Nearer" onClick={() => zoomIn(0.5)} icon={ZoomIn} />
      <Tool label="Farther" title="Farther" onClick={() => zoomOut(0.5)} icon={ZoomOut} />
      <Tool label="Whole picture" title="Whole picture" onClick={() => resetTransform()} icon={Maximize} />
    </>
  )
}
