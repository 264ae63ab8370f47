import { Box, ImageList, ImageListItem } from '@mui/material'

interface Props<P> {
  photos: readonly P[]
  /** where a press leads; missing: nowhere */
  hrefOf?: (photo: P) => string
  srcOf?: (photo: P) => string
}

const size = 68

/** Photographs as small pictures in a row. */
export function Thumbnails<P extends { id: string; name: string }>({ photos, hrefOf, srcOf }: Props<P>) {
  if (!photos.length) return null
  return (
    <ImageList sx={{ display: 'flex', flexWrap: 'wrap', my: 0.5 }} gap={6}>
      {photos.map(p => {
        const src = srcOf?.(p) ?? `/api/photos/${p.id}?size=thumbnail`
        const picture = (
          <Box
            component="img"
            src={src}
            alt={p.name}
            loading="lazy"
            sx={{
              width: size,
              height: size,
              objectFit: 'cover',
              border: 1,
              borderColor: 'divider',
              borderRadius: 0.5,
            }}
          />
        )
        return (
          <ImageListItem key={p.id}>{hrefOf ? <a href={hrefOf(p)}>{picture}</a> : picture}</ImageListItem>
        )
      })}
    </ImageList>
  )
}
