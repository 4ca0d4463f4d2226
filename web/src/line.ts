/** Acts of one line go one after the other, however fast they come; one that fails does not hold up the next. */
export function oneByOne(): <T>(act: () => Promise<T>) => Promise<T> {
  let line: Promise<unknown> = Promise.resolve()
  return (act) => {
    const turn = line.then(act)
    line = turn.catch(() => undefined)
    return turn
  }
}
