import { defineRow } from '../rows/index.ts'
import { material } from './material.ts'

export const materials = defineRow({
  noun: 'materials',
  one: 'material',
  schema: material,
  upcast: [],
  inFile: { which: 'named', most: 200 },
})
