// A step in a few words, as it was read: its dose, movement, sides and load.
import { measured, weightText } from './format'

/** "8 bent row 16 kg, each side": what stands in a step that was read from words. */
export function stepText(
  step: Record<string, unknown>,
  nameOf: (key: string) => string,
  sideOf: (key: string) => string,
): string {
  const part = (name: string, unit: string): string => (typeof step[name] === 'number' ? `${step[name]}${unit} ` : '')
  const far = typeof step['metres'] === 'number' ? `${measured(step['metres'], 'm')} ` : ''
  const dose = `${part('reps', '')}${part('seconds', ' s')}${far}`
  const load = step['load'] as { kg?: number; count?: number; pct_1rm?: number; unit?: string } | undefined
  const { kg: of, count, unit } = load ?? {}
  const kg = of ? ` ${count && count > 1 ? `${count} × ` : ''}${weightText({ kg: of, unit })}` : ''
  const share = load?.pct_1rm ? ` ${load.pct_1rm} %` : ''
  const sides = step['sides'] && step['sides'] !== 'both' ? `, ${sideOf(String(step['sides']))}` : ''
  return `${dose}${nameOf(String(step['movement']))}${kg}${share}${sides}`
}
