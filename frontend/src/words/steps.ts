// A step in a few words, as it was read: its dose, movement, sides and load.

/** "8 bent row 16 kg, each side": what stands in a step that was read from words. */
export function stepText(
  step: Record<string, unknown>,
  nameOf: (key: string) => string,
  sideOf: (key: string) => string,
): string {
  const part = (name: string, unit: string): string => (typeof step[name] === 'number' ? `${step[name]}${unit} ` : '')
  const dose = `${part('reps', '')}${part('seconds', ' s')}${part('metres', ' m')}`
  const load = step['load'] as { kg?: number; count?: number; pct_1rm?: number } | undefined
  const kg = load?.kg ? ` ${load.count && load.count > 1 ? `${load.count} × ` : ''}${load.kg} kg` : ''
  const share = load?.pct_1rm ? ` ${load.pct_1rm} %` : ''
  const sides = step['sides'] && step['sides'] !== 'both' ? `, ${sideOf(String(step['sides']))}` : ''
  return `${dose}${nameOf(String(step['movement']))}${kg}${share}${sides}`
}
