/** A request that cannot be met as asked; the message is for the person at the screen. */
export class RequestRefused extends Error {
  constructor(
    readonly status: number,
    message: string,
    /** Form field → what is wrong with it. */
    readonly fields: Readonly<Record<string, string>> = {},
    /** Version of the record that there is now, where somebody decided on another. */
    readonly also: { readonly version?: number } = {},
  ) {
    super(message);
  }
}
