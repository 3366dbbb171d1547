import type { ProblemBody, ProblemCode } from '@dogleg/core/api'

export type { ProblemBody }

/** A refusal, thrown where it is found. */
export class Problem extends Error {
  readonly status: number
  readonly code: ProblemCode
  readonly detail: unknown
  constructor(status: number, code: ProblemCode, says: string, detail?: unknown) {
    super(says)
    this.status = status
    this.code = code
    this.detail = detail
  }
  body(): ProblemBody {
    const { code, message: says, detail } = this
    return { error: detail === undefined ? { code, says } : { code, says, detail } }
  }
}

/** Why the server cannot start, in words for the person who typed the command. */
export class StartProblem extends Error {}
