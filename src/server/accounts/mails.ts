/** A letter of ours: plain words, and at most one link. */
export interface Mail {
  to: string
  subject: string
  text: string
}

const foot = '\n\nIf you did not ask for this, there is nothing to do.\n\nSpillway\n'
const letter = (to: string, subject: string, ...paragraphs: string[]): Mail => ({
  to,
  subject,
  text: paragraphs.join('\n\n') + foot,
})

export const verification = (to: string, url: string): Mail =>
  letter(
    to,
    'Confirm your e-mail address',
    'Open this to confirm that the address is yours. It works for a day:',
    url,
  )

export const recovery = (origin: string, to: string, token: string): Mail =>
  letter(
    to,
    'Set a new password',
    'Open this to set a new password. It works once, for half an hour; every session of yours ends then:',
    `${origin}/new-password?token=${encodeURIComponent(token)}`,
  )

export const passwordChanged = (origin: string, to: string): Mail =>
  letter(
    to,
    'Your password was changed',
    'Your password was just changed, and all your sessions were ended. Sign in with the new one:',
    `${origin}/sign-in`,
    'If it was not you, ask for a new password now:',
    `${origin}/recover`,
  )

export const alreadyHere = (origin: string, to: string): Mail =>
  letter(
    to,
    'You have an account already',
    'Somebody wanted to open an account with this address, and there is one. Sign in:',
    `${origin}/sign-in`,
    'Or set a new password, if it is lost:',
    `${origin}/recover`,
  )

export const changingEmail = (to: string, newEmail: string, url: string): Mail =>
  letter(
    to,
    'Your e-mail address is to be changed',
    `From now on you would sign in as ${newEmail}. Open this to agree; the new address is asked next:`,
    url,
  )

export const invitation = (origin: string, to: string, firm: string, role: string, token: string): Mail =>
  letter(
    to,
    `${firm} invites you`,
    `${firm} would like you to work with them as ${role}. Open this to join; it works for a week:`,
    `${origin}/join/${token}`,
  )
