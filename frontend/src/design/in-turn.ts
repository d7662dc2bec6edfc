/** One save at a time: what is asked for while one runs begins when that one has ended. */

/** `save` does not throw: what went wrong is its own to tell. */
export function inTurn(save: () => Promise<void>): () => Promise<void> {
  let last = Promise.resolve();
  return () => {
    last = last.then(save);
    return last;
  };
}
