import { plainSend } from './plain-send'

const words = {
  failed: 'failed',
  notSent: 'no connection',
  label: (field: string) => (field === 'hours' ? 'How many hours?' : ''),
  whole: (field: string) => (field === 'signature' ? 'Too small.' : undefined),
}
const said = (status: number, body: unknown) => {
  global.fetch = async () => new Response(typeof body === 'string' ? body : JSON.stringify(body), { status })
  return plainSend('/api/x', { a: 1 }, words)
}

test('what the server says is told by the label of its field, whole where it is said whole, and never lost', async () => {
  expect(await said(200, {})).toBeNull()
  expect(await said(400, { faults: [{ path: 'hours', message: 'must be more' }] })).toBe(
    'How many hours? must be more.',
  )
  expect(await said(400, { faults: [{ path: 'signature[0][1]', message: 'is odd' }] })).toBe('Too small.')
  expect(await said(400, { faults: [{ path: '$', message: 'it cannot be' }] })).toBe('it cannot be.')
  expect(await said(429, { message: 'Call instead.', faults: [] })).toBe('Call instead.')
  expect(await said(502, '<html>')).toBe('failed')
  global.fetch = () => Promise.reject(new TypeError('away'))
  expect(await plainSend('/api/x', {}, words)).toBe('no connection')
})
