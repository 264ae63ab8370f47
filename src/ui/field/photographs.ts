import { largestSent } from '../api'
import { keepPhoto } from '../trace/offline'

const longestPx = 2400
const spareBytes = 20_000_000

/** A photograph as large as evidence needs it: whatever a phone makes of it, about a megabyte. The file itself where it cannot be drawn. */
async function shrunk(file: Blob): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file)
    const scale = Math.min(1, longestPx / Math.max(picture.width, picture.height))
    if (scale === 1 && file.size < 1_500_000) return file
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(picture.width * scale)
    canvas.height = Math.round(picture.height * scale)
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
    picture.close()
    const small = await new Promise<Blob | null>(done => canvas.toBlob(done, 'image/jpeg', 0.82))
    return small ?? file
  } catch {
    return file
  }
}

/** Keeps a photograph of a task on this device until it is sent; its id, or why it cannot be kept. */
export async function takePhoto(
  jobId: string,
  task: { id: string; text: string },
  file: File,
): Promise<{ id: string } | { refused: string }> {
  const blob = await shrunk(file)
  if (blob.size > largestSent)
    return {
      refused: `${file.name} has ${Math.round(file.size / 1e6)} MB and cannot be made smaller here: ${largestSent / 1e6} MB at most. Write down what it shows, or take it smaller.`,
    }
  const room = await navigator.storage?.estimate?.().catch(() => null)
  const left = room?.quota && room.usage !== undefined ? room.quota - room.usage : null
  if (left !== null && left < blob.size + spareBytes)
    return {
      refused: `This device has room for ${Math.max(0, Math.round(left / 1e6))} MB only: nothing was taken. Free some, or send what waits first; what is written down is kept.`,
    }
  const id = crypto.randomUUID()
  try {
    await keepPhoto(jobId, id, { blob, about: { kind: 'task', task: task.id }, name: task.text.slice(0, 80) })
  } catch {
    return {
      refused:
        'This device could not keep the photograph: it is full, or refuses to keep anything. Nothing else was lost; write down what it shows.',
    }
  }
  return { id }
}
