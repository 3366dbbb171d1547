import { describe, expect, it } from 'vitest'
import { compensationAlarms as alarms } from './testing.ts'

describe('alarms, each at its line (common practice)', () => {
  it.each([
    [
      'an inside arc smaller than the tool',
      'G1 G41 D1 X1.\nG3 X1.2 R.1\nG1 X2.\nG40 Y1.',
      'compensation-arc-small 4 stop',
    ],
    [
      'a step narrower than the tool',
      'G1 G41 D1 X.5\nX1.\nY.1\nX2.\nG40 Y2.',
      'compensation-backwards 5 stop',
    ],
    ['a slot narrower than the tool', 'G1 G41 D1 X.5\nX1.\nY-1.\nX1.3\nY0.\nX2.\nG40 Y2.', ''],
    // An arc that leaves a hair to the other side of where the line came from, and bends back over it: a point without room.
    [
      'a point that closes to nothing, line and arc',
      'G1 G41 D1 Y4.\nY0.\nG2 X6. Y.002 I3. J.001\nG1 Y4.\nG40 X3.',
      'compensation-narrow 5 stop',
    ],
    [
      'the same the other way round, arc and line',
      'G0 X6. Y4.\nG1 G42 D1 Y2.\nY.002\nG3 X0. Y0. I-3. J-.001\nG1 Y4.\nG40 X3.',
      'compensation-narrow 7 stop',
    ],
    ['on in an arc', 'G41 D1 G3 X1. R1.\nG1 X2.\nG40 Y1.', 'compensation-arc 3 stop'],
    ['off in an arc', 'G1 G41 D1 X1.\nX2.\nG40 G3 X3. R1.', 'compensation-arc 5 stop'],
    ['on over less than the radius', 'G1 G41 D1 X.2\nX1.\nG40 Y1.', 'compensation-short 3 stop'],
    [
      'turned, in another plane than X Y',
      'G68 X0. Y0. R9.\nG18 G1 G41 D1 X1.\nZ2.\nG40 X4.',
      'compensation-turned 4 stop',
    ],
    ['another plane', 'G1 G41 D1 X1.\nX2.\nG18 X3.\nG40 X4.', 'compensation-plane 5 stop'],
    ['another tool', 'G1 G41 D1 X1.\nX2.\nT3 M6\nG40 X4.', 'compensation-home 5 stop'],
    ['home', 'G1 G41 D1 X1.\nX2.\nG28 X0.\nG40 X4.', 'compensation-home 5 stop'],
    ['a machine position', 'G1 G41 D1 X1.\nX2.\nG53 Z0.\nG40 X4.', 'compensation-home 5 stop'],
    ['a cycle', 'G1 G41 D1 X1.\nX2.\nG81 Z-1. R.1\nG80 G40', 'compensation-other 5 stop'],
    ['a rotary', 'G1 G41 D1 X1.\nX2.\nG1 A90. X3.\nG40 X4.', 'compensation-other 5 stop'],
  ])('%s', (_, text, said) => {
    const found = alarms(text)
    if (said === '') expect(found.length).toBeGreaterThan(0)
    else expect(found).toContain(said)
  })

  it.each([
    ['an inside arc as large as the tool', 'G1 G41 D1 X1.\nG3 X1.5 R.25\nG1 X2.\nG40 Y1.'],
    ['a step a little higher than the tool', 'G1 G41 D1 X.5\nX1.\nY.6\nX2.\nG40 Y2.'],
    ['on over just the radius', 'G1 G41 D1 X.25\nX1.\nG40 Y1.'],
    ['home after it is off', 'G1 G41 D1 X1.\nX2.\nG40 Y1.\nG28 X0.'],
    ['off along Z first, then home', 'G1 G41 D1 X1.\nX2.\nG40 Z1.\nG53 Z0.\nG0 X0.'],
    ['events between', 'G1 G41 D1 X1.\nX2.\nM8\nX3.\nG40 Y2.'],
    ['a tool change after it is off', 'G1 G41 D1 X1.\nX2.\nG40 Z1.\nM9\nG53 Z0.\nT3 M6\nM8\nG0 X0.'],
    ['a sharp point with an arc, from outside', 'G1 G42 D1 Y4.\nY0.\nG2 X6. Y-.5 R3.1\nG1 Y-4.\nG40 X8.'],
    [
      'a line and an arc that goes over it far from their corner',
      'G1 G41 D1 Y4.\nY0.\nG3 X1. Y1. I-2. J2.\nG1 X4.\nG40 Y4.',
    ],
    ['a slot just wider than the tool', 'G1 G41 D1 X.5\nX1.\nY-1.\nX1.6\nY0.\nX2.\nG40 Y2.'],
  ])('none for %s', (_, text) => expect(alarms(text, { outside: 'lines' })).toEqual([]))
})
