import { PhotosView } from '@/ui/photos/PhotosView'

export default function PhotosPage() {
  return <PhotosView />
}
