/** What whoever runs the server has to know or to do: its message is shown as it is, without a stack. */
export class OperatorError extends Error {
  constructor(message: string, options?: ErrorOptions) {
    super(message, options);
    this.name = 'OperatorError';
  }
}
