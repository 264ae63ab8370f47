import { call, type Reply } from '../api'

/**
 * A passkey asked of this device and given to the server: to be added, or to come in by. `none` where the device gave nothing.
 */
export async function throughPasskey<O>(
  asks: 'generate-register-options' | 'generate-authenticate-options',
  device: (options: { optionsJSON: O }) => Promise<unknown>,
  gives: 'verify-registration' | 'verify-authentication',
  more: object = {},
): Promise<Reply<unknown> | 'none'> {
  const asked = await call<O>(`/api/auth/passkey/${asks}`, 'GET')
  if (!asked.ok) return asked
  const response = await device({ optionsJSON: asked.data }).catch(() => null)
  return response ? call(`/api/auth/passkey/${gives}`, 'POST', { response, ...more }) : 'none'
}
