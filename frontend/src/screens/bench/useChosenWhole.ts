/** A number that is pointed at is chosen whole, as it is when one tabs to it: what is typed takes its place. */
export function useChosenWhole() {
  let entered = false
  /** The button goes down: from there on it is known whether the field is only now come to. */
  const pointAt = (event: MouseEvent): void => {
    entered = document.activeElement !== event.target
  }
  const chooseAll = (event: MouseEvent): void => {
    if (entered) (event.target as HTMLInputElement).select()
    entered = false
  }
  return { pointAt, chooseAll }
}
