import { turnProgram } from '@dogleg/core/angle'
import { expose } from 'comlink'

// Long programs are turned here, so that the page does not stand still.
const turner = { turn: turnProgram }
export type Turner = typeof turner

expose(turner)
