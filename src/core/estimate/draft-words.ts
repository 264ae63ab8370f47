import * as z from 'zod'
import { line } from '../quantity'

/** What is written into a draft, apart from what it is made of. */
export const optionNameSchema = line(120, 1)
export const introSchema = z.string().max(2000, 'must be at most 2,000 characters')
