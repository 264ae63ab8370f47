/** What every answer tells the browser, beside the policy of its scripts. */
const always: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  // a photograph is taken by the file field, which asks for no such thing
  'permissions-policy': 'camera=(), geolocation=(), microphone=(), payment=(), usb=()',
}

/** The headers of every answer; where a proxy of ours speaks TLS, the browser is to come by TLS alone from now on. */
export const answerHeaders = (isTls: boolean): Record<string, string> => ({
  ...always,
  ...(isTls && { 'strict-transport-security': 'max-age=63072000; includeSubDomains' }),
})
