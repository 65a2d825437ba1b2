// Answers that a test gives when it likes, to try what happens in between.
export interface Promised<T> {
  promise: Promise<T>
  answer: (value: T) => void
  refuse: (error: Error) => void
}

export function promised<T>(): Promised<T> {
  let answer: (value: T) => void = () => undefined
  let refuse: (error: Error) => void = () => undefined
  const promise = new Promise<T>((resolve, reject) => {
    answer = resolve
    refuse = reject
  })
  return { promise, answer, refuse }
}
