import { PhotosView } from '@/ui/photos/PhotosView'
import { QueryRoot } from '@/ui/query'

export default function PhotosPage() {
  return (
    <QueryRoot>
      <PhotosView />
    </QueryRoot>
  )
}
