import { PicturesAway } from '../db/connection'
import { setting } from '../env'

/** Where photographs stand beside the database, by names of ours. Each may fail with `PicturesAway`. */
export interface Bucket {
  put: (name: string, content: Buffer) => Promise<void>
  /** null where nothing stands under that name */
  get: (name: string) => Promise<Buffer | null>
  /** What is not there is gone already. */
  drop: (name: string) => Promise<void>
}

/** Under which name a photograph of a firm stands in the bucket. */
export const pictureName = (firmId: string, id: string) => `photographs/${firmId}/${id}.jpg`

let kept: { url: string; bucket: Bucket } | null = null

/** The bucket that SPILLWAY_BUCKET names; null where photographs stay in the database. */
export function bucket(): Bucket | null {
  const url = setting('SPILLWAY_BUCKET')
  if (!url) return null
  if (kept?.url !== url) kept = { url, bucket: bucketAt(new URL(url)) }
  return kept.bucket
}

/** The library is loaded by the first who asks: an installation without a bucket never does. */
async function clientOf(url: URL) {
  process.env.AWS_SDK_JS_NODE_VERSION_SUPPORT_WARNING_DISABLED ??= 'true'
  const library = await import('@aws-sdk/client-s3')
  const client = new library.S3Client({
    endpoint: url.origin,
    region: url.searchParams.get('region') ?? 'local',
    // the bucket in the path, as servers of one’s own have it
    forcePathStyle: true,
    credentials: {
      accessKeyId: decodeURIComponent(url.username),
      secretAccessKey: decodeURIComponent(url.password),
    },
    maxAttempts: 2,
    requestHandler: { connectionTimeout: 3000, requestTimeout: 10_000 },
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
  })
  return { client, library }
}

function bucketAt(url: URL): Bucket {
  const Bucket = decodeURIComponent(url.pathname.replace(/^\/|\/$/g, ''))
  let loaded: ReturnType<typeof clientOf> | null = null
  const asked = async <T>(
    work: (at: Awaited<ReturnType<typeof clientOf>>) => Promise<T>,
  ): Promise<T | null> => {
    loaded ??= clientOf(url)
    const at = await loaded
    try {
      return await work(at)
    } catch (error) {
      if (error instanceof at.library.NoSuchKey) return null
      // never what it was asked with: keys stand in there
      const why = error instanceof at.library.S3ServiceException ? error.name : 'no answer'
      throw new PicturesAway(`the bucket of photographs: ${why}`)
    }
  }
  return {
    put: async (Key, Body) => {
      await asked(({ client, library }) =>
        client.send(new library.PutObjectCommand({ Bucket, Key, Body, ContentType: 'image/jpeg' })),
      )
    },
    get: Key =>
      asked(async ({ client, library }) => {
        const found = await client.send(new library.GetObjectCommand({ Bucket, Key }))
        return found.Body ? Buffer.from(await found.Body.transformToByteArray()) : null
      }),
    drop: async Key => {
      await asked(({ client, library }) => client.send(new library.DeleteObjectCommand({ Bucket, Key })))
    },
  }
}
