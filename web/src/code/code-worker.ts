import { writeSheet } from '@dogleg/core/code'
import { expose } from 'comlink'

// Programs of many holes are written and read back here, so that the page does not stand still.
const writer = { write: writeSheet }
export type Writer = typeof writer

expose(writer)
