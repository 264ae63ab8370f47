import { expose } from 'comlink'
import { designing } from './desks/first-designs'

expose(designing())
