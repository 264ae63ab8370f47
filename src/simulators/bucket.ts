import { createHash, createHmac } from 'node:crypto'
import { createServer, type IncomingMessage } from 'node:http'
import { buffer } from 'node:stream/consumers'

const key = 'stand-in'
const secret = 'nobody else knows/this+one'

/** Whether a request is signed with the secret, by version 4 of the signatures that such buckets ask for. */
function isSigned(request: IncomingMessage, body: Buffer): boolean {
  const said = /Credential=([^/]+)\/([^,]+), SignedHeaders=([^,]+), Signature=(\w+)/.exec(
    request.headers.authorization ?? '',
  )
  const [, who, scope = '', headers = '', signature] = said ?? []
  const sum = (of: string | Buffer) => createHash('sha256').update(of).digest('hex')
  const told = String(request.headers['x-amz-content-sha256'])
  if (who !== key || (told !== 'UNSIGNED-PAYLOAD' && told !== sum(body))) return false
  const { pathname, searchParams } = new URL(request.url ?? '/', 'http://here')
  const asked = [
    request.method,
    pathname,
    [...searchParams]
      .map(pair => pair.map(encodeURIComponent).join('='))
      .sort()
      .join('&'),
    ...headers.split(';').map(name => `${name}:${String(request.headers[name]).trim()}`),
    '',
    headers,
    told,
  ].join('\n')
  const toSign = ['AWS4-HMAC-SHA256', request.headers['x-amz-date'], scope, sum(asked)].join('\n')
  const sealed = scope
    .split('/')
    .reduce<string | Buffer>((by, part) => createHmac('sha256', by).update(part).digest(), `AWS4${secret}`)
  return createHmac('sha256', sealed).update(toSign).digest('hex') === signature
}

/** A bucket’s stand-in: it speaks S3 on this machine alone and keeps what it is given in memory. */
export async function bucketStandIn(): Promise<{
  url: string
  kept: Map<string, Buffer>
  /** while set, every request is answered with this status */
  trouble: { status: number }
  stop: () => Promise<void>
}> {
  const kept = new Map<string, Buffer>()
  const trouble = { status: 0 }
  const server = createServer(async (request, response) => {
    const body = await buffer(request)
    const no = (status: number, code: string) =>
      response
        .writeHead(status, { 'content-type': 'application/xml' })
        .end(`<?xml version="1.0"?><Error><Code>${code}</Code><Message>no</Message></Error>`)
    if (trouble.status) return no(trouble.status, 'InternalError')
    if (!isSigned(request, body)) return no(403, 'SignatureDoesNotMatch')
    const name = decodeURIComponent(new URL(request.url ?? '/', 'http://here').pathname).replace(
      /^\/house\//,
      '',
    )
    if (request.method === 'PUT') kept.set(name, body)
    if (request.method === 'DELETE') {
      kept.delete(name)
      return response.writeHead(204).end()
    }
    const found = kept.get(name)
    return found ? response.writeHead(200).end(request.method === 'PUT' ? '' : found) : no(404, 'NoSuchKey')
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  const at = server.address()
  const credentials = [key, secret].map(encodeURIComponent).join(':')
  return {
    url: `http://${credentials}@127.0.0.1:${typeof at === 'object' ? at?.port : 0}/house`,
    kept,
    trouble,
    stop: () =>
      new Promise(resolve => {
        server.close(() => resolve())
        server.closeAllConnections()
      }),
  }
}
