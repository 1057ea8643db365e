/**
 * The one error type that reaches a user. It says what was wrong, where, and what to do next, and carries the exit
 * status of the whole command. Anything else that is thrown is a defect of Isoptic itself.
 */
export type ExitStatus = 0 | 1 | 2 | 3 | 4 | 130;

export class IsopticError extends Error {
  override readonly name = 'IsopticError';

  /**
   * @param code stable, machine-readable, in kebab case: `unknown-profile`
   * @param message what was wrong and where, one sentence
   * @param hint what to do next, one sentence; empty when the message already says it
   * @param exitStatus the status the command ends with
   */
  constructor(
    readonly code: string,
    message: string,
    readonly hint = '',
    readonly exitStatus: ExitStatus = 2,
  ) {
    super(message);
  }
}

/** The message of anything thrown, without a stack. */
export function messageOf(thrown: unknown): string {
  return thrown instanceof Error ? thrown.message : String(thrown);
}
