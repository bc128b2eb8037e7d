import { expose } from 'comlink'
import { createCalcApi } from './calc-api.ts'

expose(createCalcApi(), self as never)
