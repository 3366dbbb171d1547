import { defineRow } from '../rows/index.ts'
import { collet } from './collet.ts'
import { vise } from './vise.ts'

export const vises = defineRow({
  noun: 'vises',
  one: 'vise',
  schema: vise,
  upcast: [],
  inFile: { which: 'named', most: 100 },
})

export const collets = defineRow({
  noun: 'collets',
  one: 'collet',
  schema: collet,
  upcast: [],
  inFile: { which: 'named', most: 200 },
})
