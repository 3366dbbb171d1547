declare const says: unique symbol
/** An answer as the text of it: put together in a thread, and sent as it is. */
export type TextOf<Answered> = Uint8Array<ArrayBuffer> & { readonly [says]: Answered }

/** Puts an answer into its text. */
export const textOf = <Answered>(
  answered: Answered,
  asJson: (answered: Answered) => string = JSON.stringify,
) => new TextEncoder().encode(asJson(answered)) as TextOf<Answered>
