import * as z from 'zod'
import { labelled } from '../field'
import { labourSchema } from '../hookup/labour'
import { within } from '../quantity'

/** What must hold of a design, in words of the trade. */
export const wishesSchema = z.strictObject({
  automatic: labelled(z.boolean().default(false), 'Must start by itself'),
  useOwned: labelled(z.boolean().default(false), 'Uses what they own'),
  noGenerator: labelled(z.boolean().default(false), 'No generator'),
  onePerson: labelled(z.boolean().default(false), 'One person can carry each part'),
  fromStock: labelled(z.boolean().default(false), 'Only what is in stock'),
  mostPrice: labelled(within(0, 1_000_000, '$').optional(), 'At most', '$'),
  /** the firm's hours by task; ours where left out */
  labour: labourSchema.optional(),
})
export type Wishes = z.infer<typeof wishesSchema>

/** Dollars an hour of labour: our assumption, shown with every price. */
export const labourRate = 95
