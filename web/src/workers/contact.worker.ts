import { expose } from 'comlink'
import { createContactApi } from './contact-api.ts'

expose(createContactApi(), self as never)
