import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import type { Photo, PhotoMark } from '@/core/ask/evidence'
import styles from './PhotosView.module.css'

type Box = Pick<PhotoMark, 'x' | 'y' | 'w' | 'h'>

interface Props {
  photo: Photo
  marking: boolean
  selected: string | null
  onDrawn: (box: Box) => void
  onSelect: (markId: string) => void
  onChange: (mark: PhotoMark) => void
}

const clamp = (n: number) => Math.min(1, Math.max(0, n))
/** A tap, rather than a drawn frame, marks a box of this size around it. */
const tapped = { w: 0.16, h: 0.08 }
const nudge = 0.01

/** The picture, turned, with its marks; places are kept in shares of the picture before it is turned. */
export function Picture({ photo, marking, selected, onDrawn, onSelect, onChange }: Props) {
  const [from, setFrom] = useState<{ x: number; y: number } | null>(null)
  const [box, setBox] = useState<Box | null>(null)
  const { width, height, turns } = photo
  const upright = turns % 2 === 0
  const [w, h] = upright ? [width, height] : [height, width]

  // offsetX and offsetY are those of the element itself, before it was turned and enlarged
  const at = (event: PointerEvent<HTMLElement>) => ({
    x: clamp(event.nativeEvent.offsetX / event.currentTarget.offsetWidth),
    y: clamp(event.nativeEvent.offsetY / event.currentTarget.offsetHeight),
  })
  const onDown = (event: PointerEvent<HTMLElement>) => {
    if (!marking) return
    event.preventDefault()
    event.currentTarget.setPointerCapture(event.pointerId)
    setFrom(at(event))
  }
  const onMove = (event: PointerEvent<HTMLElement>) => {
    if (!from) return
    const to = at(event)
    setBox({
      x: Math.min(from.x, to.x),
      y: Math.min(from.y, to.y),
      w: Math.abs(to.x - from.x),
      h: Math.abs(to.y - from.y),
    })
  }
  const onUp = () => {
    if (!from) return
    const small = !box || box.w < 0.015 || box.h < 0.015
    onDrawn(
      small
        ? { ...tapped, x: clamp(from.x - tapped.w / 2), y: clamp(from.y - tapped.h / 2) }
        : { x: box.x, y: box.y, w: box.w, h: box.h },
    )
    setFrom(null)
    setBox(null)
  }
  const onKey = (mark: PhotoMark) => (event: KeyboardEvent) => {
    const step = {
      ArrowLeft: [-nudge, 0],
      ArrowRight: [nudge, 0],
      ArrowUp: [0, -nudge],
      ArrowDown: [0, nudge],
    }[event.key]
    if (!step) return
    event.preventDefault()
    const [dx = 0, dy = 0] = step
    onChange(
      event.shiftKey
        ? { ...mark, w: clamp(mark.w + dx), h: clamp(mark.h + dy) }
        : { ...mark, x: clamp(mark.x + dx), y: clamp(mark.y + dy) },
    )
  }
  const share = (n: number) => `${n * 100}%`
  const place = (b: Box) => ({ left: share(b.x), top: share(b.y), width: share(b.w), height: share(b.h) })
  return (
    <div className={styles.frame} style={{ aspectRatio: `${w} / ${h}` }}>
      <div
        className={styles.turned}
        style={{
          width: upright ? '100%' : share(width / height),
          height: upright ? '100%' : share(height / width),
          transform: `translate(-50%, -50%) rotate(${turns * 90}deg)`,
        }}
      >
        {/* biome-ignore lint/performance/noImgElement: its bytes come from the database, re-encoded when it came in */}
        <img src={`/api/photos/${photo.id}`} alt={photo.name} draggable={false} />
        <div
          className={styles.surface}
          data-marking={marking}
          onPointerDown={onDown}
          onPointerMove={onMove}
          onPointerUp={onUp}
        />
        {photo.marks.map((mark, n) => (
          <button
            key={mark.id}
            type="button"
            className={styles.mark}
            data-selected={mark.id === selected}
            style={{ ...place(mark), pointerEvents: marking ? 'none' : 'auto' }}
            aria-label={`Mark ${n + 1}${mark.text ? `: ${mark.text}` : ''}; arrows move it, with Shift they size it`}
            onClick={() => onSelect(mark.id)}
            onKeyDown={onKey(mark)}
          >
            <b style={{ transform: `rotate(${-turns * 90}deg)` }}>{n + 1}</b>
          </button>
        ))}
        {box && <span className={styles.drawing} style={place(box)} />}
      </div>
    </div>
  )
}
