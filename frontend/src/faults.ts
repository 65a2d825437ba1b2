// Faults of the program itself: told to whoever is there, and logged. Refusals of the server are told where they belong.
/** What every logged fault begins with. */
export const MARK = 'Fault:'

/** Log a fault and tell of it; never throws. */
export function report(error: unknown): void {
  console.error(MARK, error)
  void import('./parts/notices').then(({ tellFault }) => tellFault()).catch(() => undefined)
}
