import { spawnSync } from 'node:child_process'
import { chmodSync, cpSync, existsSync, mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { delimiter, join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { installProblem, nodeProblem } from './prepare.mjs'

const root = join(import.meta.dirname, '..')

/** A checkout whose npm says this and fails; what `npm start` then prints. */
function startWithNpm(says) {
  const folder = mkdtempSync(join(tmpdir(), 'dogleg-start-'))
  cpSync(join(root, 'scripts'), join(folder, 'scripts'), { recursive: true })
  cpSync(join(root, 'package-lock.json'), join(folder, 'package-lock.json'))
  const bin = join(folder, 'bin')
  mkdirSync(bin)
  writeFileSync(join(bin, 'npm'), `#!/bin/sh\necho '${says}' >&2\nexit 1\n`)
  chmodSync(join(bin, 'npm'), 0o755)
  const { status, stderr } = spawnSync(process.execPath, [join(folder, 'scripts/start.mjs')], {
    encoding: 'utf8',
    env: { ...process.env, PATH: `${bin}${delimiter}${process.env.PATH}` },
  })
  return { status, stderr, marked: existsSync(join(folder, 'node_modules/.dogleg-installed')) }
}

describe('npm start, where the packages cannot be had', () => {
  it.each([
    ['npm error code EAI_AGAIN', /registry does not answer.*first start/s],
    ['npm error code ENOSPC', /disk is full.*Make room/s],
    ['npm error code EACCES', /may not write in the folder/],
    ['npm error something else', /what npm said stands above/],
  ])('%s: says why and what to do, and tries again the next time', (says, sentence) => {
    const { status, stderr, marked } = startWithNpm(says)
    expect(status).toBe(1)
    expect(stderr).toContain(says)
    expect(stderr).toMatch(sentence)
    expect(marked).toBe(false)
  })

  it('takes the disk for the reason where a full disk broke the connection', () => {
    expect(installProblem('ENOSPC: no space left on device\nnpm error network ECONNRESET')[0]).toMatch(/full/)
  })
})

describe('the version of Node', () => {
  it.each([
    ['18.20.4', false],
    ['20.18.3', false],
    ['20.19.0', true],
    ['22.1.0', true],
  ])('%s: good %s', (version, good) => {
    const problem = nodeProblem(version)
    expect(problem === undefined).toBe(good)
    if (problem) expect(problem.join(' ')).toContain(`this is ${version}. Install a newer Node`)
  })
})
