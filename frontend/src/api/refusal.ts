// The one error of the product: what the server refused, or that it could not be asked. Its words are made at the edge
// (words/refusal.ts).
import type { Problem, ProblemItem } from './types'

/** Status of a Refusal when the server could not be reached at all. */
export const UNREACHABLE = 0

/** Kinds that this side gives; all others are the server's own (`type` of its answer). */
export const OWN_KINDS = {
  unreachable: 'about:unreachable',
  unreadable: 'about:unreadable',
  brokenOff: 'about:broken-off',
} as const

export class Refusal extends Error {
  /**
   * @param status the answer's HTTP status, or UNREACHABLE
   * @param kind what kind of refusal it is
   * @param detail the server's own sentence, '' where it gave none
   * @param problems the places that are wrong, with what was found there and what can stand there
   */
  constructor(
    readonly status: number,
    readonly kind: string,
    readonly detail = '',
    readonly problems: readonly ProblemItem[] = [],
  ) {
    super(detail || kind)
  }

  /** Whether what was to be changed is not what was seen of it: somebody else was quicker. */
  get stale(): boolean {
    return this.status === 409
  }

  /** Whether asking the same once more may well be answered. */
  get passing(): boolean {
    return this.status === UNREACHABLE || this.status === 503
  }
}

/** The refusal that an answer other than 2xx stands for. */
export async function refusalOf(response: Response): Promise<Refusal> {
  try {
    const problem = (await response.json()) as Problem
    return new Refusal(response.status, problem.type, problem.detail, problem.problems ?? [])
  } catch {
    return new Refusal(response.status, OWN_KINDS.unreadable)
  }
}
