/** Input that a command cannot take: where, and in words why. */
export class BadInput extends Error {
  constructor(
    readonly path: string,
    message: string,
  ) {
    super(message);
  }
}
