import { expose } from 'comlink'
import { searching } from './desks/searching'

expose(searching())
