/**
 * Questions of which only the newest counts. `ask` gives the answer to `take`, or the fault to whoever awaits it,
 * unless another question was asked meanwhile: an answer about what is no longer on the screen must not come onto it.
 */
export function useLatest() {
  let newest = 0

  async function ask<T>(question: () => Promise<T>, take: (answer: T) => void): Promise<void> {
    const mine = ++newest
    try {
      const answer = await question()
      if (mine === newest) take(answer)
    } catch (error) {
      if (mine === newest) throw error
    }
  }
  return { ask }
}
