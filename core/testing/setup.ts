import fc from 'fast-check'
import { depth } from './depth.ts'

fc.configureGlobal(depth(100, 1000))
