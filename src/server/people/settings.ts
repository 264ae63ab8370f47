import { type FirmSettings, firmSettingsSchema, usualSettings } from '@/core/firm/settings'
import { db, type OfFirm } from '../db/connection'
import { always, transaction } from '../db/transaction'
import { note } from './record'
import type { Actor } from './types'

/** A firm’s own ways, with the version that a change has to be made on. */
export async function settingsOf(
  firm: OfFirm,
): Promise<{ settings: FirmSettings; version: number; logo: boolean }> {
  const row = await db(firm)('firm')
    .where({ id: firm.firmId })
    .first('name', 'zone', 'settings', 'settings_version', db(firm).raw('logo is not null as has_logo'))
  const usual = { ...usualSettings(row.name), zone: row.zone }
  const read = firmSettingsSchema.safeParse({ ...usual, ...row.settings, name: row.name, zone: row.zone })
  return { settings: read.success ? read.data : usual, version: row.settings_version, logo: row.has_logo }
}

/** Keeps a firm’s ways; `stale` where somebody else changed them since `version`. */
export async function keepSettings(
  actor: Actor,
  settings: FirmSettings,
  version: number,
): Promise<'done' | 'stale'> {
  return transaction<'done' | 'stale'>(
    actor,
    async trx => {
      const before = await settingsOf(actor)
      const count = await trx('firm')
        .where({ id: actor.firmId, settings_version: version })
        .update({
          name: settings.name,
          zone: settings.zone,
          settings: JSON.stringify(settings),
          settings_version: version + 1,
        })
      if (!count) return 'stale'
      const changed = Object.keys(settings).filter(
        k => settings[k as keyof FirmSettings] !== before.settings[k as keyof FirmSettings],
      )
      if (changed.length) await note(actor, 'settings changed', { what: changed.join(', ') }, trx)
      return 'done'
    },
    o => o === 'done',
  )
}

/** The firm’s logo as PNG; null where there is none. */
export const logoOf = async (firm: OfFirm): Promise<Buffer | null> =>
  (await db(firm)('firm').where({ id: firm.firmId }).first('logo'))?.logo ?? null

/** Keeps a logo that was written anew from what was sent, or takes it away. */
export async function keepLogo(actor: Actor, png: Buffer | null): Promise<void> {
  await transaction(
    actor,
    async trx => {
      await trx('firm').where({ id: actor.firmId }).update({ logo: png })
      await note(actor, 'settings changed', { what: 'logo' }, trx)
    },
    always,
  )
}
