// What the parts of the Bench share: the document's places, and the tools to change it.
import { inject, type InjectionKey, type Ref } from 'vue'

import type {
  Block,
  BlockFormat,
  DocumentIn,
  Figures,
  Otherwise,
  ProblemItem,
  Section,
  SessionDoc,
  Step,
} from '@/api/types'
import type { Edit, PathPart } from '@/composables/edits'
import type { StaveLine } from '@/stave/line'
import { FIELDS as say } from '@/words/texts/bench'

import type { Light, Lit } from './light'

export interface BenchTools {
  edit: (edits: Edit[], key?: string) => void
  /** Try a number: the figures show what it would make, until it is kept or given back. */
  nudge: (edits: Edit[], key: string) => void
  trying: Ref<boolean>
  keep: () => void
  giveBack: () => void
  wrong: Ref<Map<string, ProblemItem>>
  document: Ref<SessionDoc | null>
  squad: Ref<number>
  figures: Ref<Figures | null>
  /** By `formatKey`. */
  formats: Ref<ReadonlyMap<string, BlockFormat>>
  deltas: Ref<Record<string, number> | null>
  methods: Ref<Record<string, unknown>>
  /** What a question about a figure is asked with. */
  question: () => DocumentIn | null
  lit: Ref<Lit | null>
  pointed: Ref<StaveLine | null>
  /** Who does a step otherwise, by the step's path: limits of people choose its options. */
  otherwise: Ref<ReadonlyMap<string, readonly Otherwise[]>>
  /** What lights with what is pointed at, wherever that is. */
  light: Ref<Light>
}

export const BENCH: InjectionKey<BenchTools> = Symbol('bench')

export function useBench(): BenchTools {
  const tools = inject(BENCH)
  if (!tools) throw new Error('a part of the Bench outside the Bench')
  return tools
}

/** A block with where it stands: `editPath` for edits (by id), `path` as the server names it (by index). */
export interface PlacedBlock {
  block: Block
  number: number
  editPath: PathPart[]
  path: string
  /** The section that begins with this block, where it stands, and how the server names it. */
  section: Section | null
  sectionEditPath: PathPart[]
  sectionPath: string
  /** The list it stands in, and where in it. */
  list: PathPart[]
  index: number
  length: number
  /** Where it stands among the entries of the session, alone or in its section. */
  top: number
}

/** Under what the format of a block is found. */
export const formatKey = ({ block, number }: PlacedBlock): string => String(block.id ?? number)

export function placed(document: SessionDoc): PlacedBlock[] {
  const found: PlacedBlock[] = []
  document.blocks.forEach((entry, index) => {
    if ('section' in entry) {
      const list: PathPart[] = entry.id ? [entry.id, 'blocks'] : ['blocks', index, 'blocks']
      entry.blocks.forEach((block, inner) =>
        found.push({
          block,
          number: found.length,
          editPath: block.id ? [block.id] : [...list, inner],
          path: `blocks[${index}].blocks[${inner}]`,
          section: inner === 0 ? entry : null,
          sectionEditPath: entry.id ? [entry.id] : ['blocks', index],
          sectionPath: `blocks[${index}]`,
          list,
          index: inner,
          length: entry.blocks.length,
          top: index,
        }),
      )
    } else {
      found.push({
        block: entry,
        number: found.length,
        editPath: entry.id ? [entry.id] : ['blocks', index],
        path: `blocks[${index}]`,
        section: null,
        sectionEditPath: [],
        sectionPath: '',
        list: ['blocks'],
        index,
        length: document.blocks.length,
        top: index,
      })
    }
  })
  return found
}

/** A list of steps of a block: its own, or a station's. */
export interface PlacedSteps {
  steps: Step[]
  editPath: PathPart[]
  path: string
  station: string | null
}

export function stepLists(at: PlacedBlock): PlacedSteps[] {
  const { block, editPath, path } = at
  if (block.clock.kind !== 'rotation') {
    return [{ steps: block.steps ?? [], editPath: [...editPath, 'steps'], path: `${path}.steps`, station: null }]
  }
  return block.clock.stations.map((station, index) => ({
    steps: station.steps,
    editPath: station.id ? [station.id, 'steps'] : [...editPath, 'clock', 'stations', index, 'steps'],
    path: `${path}.clock.stations[${index}].steps`,
    station: station.name,
  }))
}

export interface FieldSpec {
  key: string
  label: string
  unit?: string
  /** Keys between the block and the field, e.g. clock or clock, inner. */
  under: string[]
  /** Its word stands before the number: every 60 s. All others stand after it: 30 s work. */
  leads?: boolean
}

/** What a field of a block holds; undefined where nothing is set. */
export function fieldValue(block: Block, spec: FieldSpec): unknown {
  let here: unknown = block
  for (const key of spec.under) here = (here as Record<string, unknown>)[key]
  return (here as Record<string, unknown>)[spec.key] ?? undefined
}

const clockField = (key: string, label: string, unit = 's'): FieldSpec => ({ key, label, unit, under: ['clock'] })
const blockField = (key: string, label: string, unit?: string): FieldSpec => ({ key, label, unit, under: [] })
const leading = (spec: FieldSpec): FieldSpec => ({ ...spec, leads: true })

const RESTS = [clockField('rest_s', say.rest), clockField('round_rest_s', say.betweenRounds)]
const GROUP_REST = clockField('group_rest_s', say.betweenGroups)

const OF_CLOCK: Record<string, FieldSpec[]> = {
  intervals: [clockField('work_s', say.work), ...RESTS, GROUP_REST],
  every: [
    leading(clockField('period_s', say.every)),
    leading(clockField('work_until_s', say.workUntil)),
    clockField('periods', say.periods, ''),
  ],
  amrap: [clockField('window_s', say.window), ...RESTS],
  task: [...RESTS, GROUP_REST, leading(clockField('cap_s', say.cap))],
  rotation: [clockField('rotate_s', say.changeOver), clockField('laps', say.laps, '')],
}

/** Clocks under which a step may be done in the time that is left, and those whose starts hold several steps. */
export const FILLED_CLOCKS: readonly string[] = ['every', 'amrap']
export const SLOTTED_CLOCKS: readonly string[] = ['every']

const withInner = (spec: FieldSpec): FieldSpec => ({ ...spec, under: ['clock', 'inner'] })

/** The numbers of a block that are edited in its sentence, in the order of time; its rest after stands below it. */
export function blockFields(block: Block): FieldSpec[] {
  const { clock } = block
  const fields = [...(OF_CLOCK[clock.kind] ?? [])]
  if (clock.kind === 'rotation') fields.push(...(OF_CLOCK[clock.inner.kind] ?? []).map(withInner))
  if (clock.kind === 'task' && clock.pulse) {
    fields.push({ ...clockField('work_s', say.pulseOn), under: ['clock', 'pulse'] })
    fields.push({ ...clockField('rest_s', say.pulseOff), under: ['clock', 'pulse'] })
  }
  fields.push(blockField('rounds', say.rounds), blockField('group', say.stepsAtATime))
  fields.push(leading(blockField('repeat', say.repeat)), blockField('rest_between_repeats_s', say.betweenRepeats, 's'))
  fields.push(blockField('talk_s', say.talk, 's'), leading(blockField('announced_s', say.told, 's')))
  fields.push(leading(blockField('rpe', say.plannedEffort)))
  return fields
}
