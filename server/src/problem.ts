/** A refusal with a sentence for the person at the tablet. Every error of the API has this one shape. */
export interface ProblemBody {
  error: {
    /** Stable, for the page: 'edited-meanwhile'. */
    code: string
    /** What is wrong and what to do. */
    says: string
    /** What the page needs to go on: the row as it stands now, the fields that were refused. */
    detail?: unknown
  }
}

export class Problem extends Error {
  readonly status: number
  readonly code: string
  readonly detail: unknown
  constructor(status: number, code: string, says: string, detail?: unknown) {
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
