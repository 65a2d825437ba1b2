// Edits on a document, as the core speaks them (core/edits): the same cases test both (tests/cases/edits.json).
export type PathPart = string | number
export type Edit =
  | { op: 'set'; path: PathPart[]; value?: unknown; unset?: boolean }
  | { op: 'insert'; path: PathPart[]; index: number; value: unknown }
  | { op: 'remove'; path: PathPart[]; index: number }
  | { op: 'move'; path: PathPart[]; index: number; to_index: number; to_path?: PathPart[] }

type Json = Record<string, unknown>

const isObject = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value)

function byId(value: unknown, id: PathPart): Json | null {
  if (Array.isArray(value)) {
    for (const item of value) {
      const found = byId(item, id)
      if (found) return found
    }
  } else if (isObject(value)) {
    if (value.id === id) return value
    return byId(Object.values(value), id)
  }
  return null
}

function child(value: unknown, part: PathPart): unknown {
  if (Array.isArray(value)) {
    if (typeof part === 'number' && part >= 0 && part < value.length) return value[part]
    const found = value.find((item) => isObject(item) && item.id === part)
    if (found !== undefined) return found
  } else if (isObject(value) && part in value) {
    return value[part]
  }
  throw new Error(`nothing at ${String(part)}`)
}

function find(document: Json, path: PathPart[]): unknown {
  let here: unknown = document
  let rest = path
  const first = path[0]
  if (typeof first === 'string' && !(first in document)) {
    here = byId(document.blocks, first)
    if (here === null) throw new Error(`no part with id ${first}`)
    rest = path.slice(1)
  }
  for (const part of rest) here = child(here, part)
  return here
}

/** Where an object or list stands now: at `path` if that still leads to it, else its keys and indices. */
function pathOf(document: Json, target: unknown, path: PathPart[]): PathPart[] {
  try {
    if (find(document, path) === target) return path
  } catch {
    // What the path counted on has moved.
  }
  const stack: [unknown, PathPart[]][] = [[document, []]]
  for (let next = stack.pop(); next; next = stack.pop()) {
    const [here, keys] = next
    if (here === target) return keys
    if (Array.isArray(here)) here.forEach((one, index) => stack.push([one, [...keys, index]]))
    else if (isObject(here)) for (const [key, one] of Object.entries(here)) stack.push([one, [...keys, key]])
  }
  throw new Error('nothing there any more')
}

function holds(value: unknown, target: unknown): boolean {
  if (value === target) return true
  if (Array.isArray(value)) return value.some((one) => holds(one, target))
  return isObject(value) && Object.values(value).some((one) => holds(one, target))
}

function list(document: Json, path: PathPart[]): unknown[] {
  const found = find(document, path)
  if (!Array.isArray(found)) throw new Error('not a list')
  return found
}

function inBounds(index: number, last: number): void {
  if (index < 0 || index > last) throw new Error(`index ${index} of a list up to ${last}`)
}

function set(document: Json, edit: Extract<Edit, { op: 'set' }>): Edit {
  const key = edit.path[edit.path.length - 1]
  if (key === undefined) throw new Error('a key to set')
  const parentPath = edit.path.slice(0, -1)
  const parent = find(document, parentPath)
  if (Array.isArray(parent)) {
    if (typeof key !== 'number' || edit.unset) throw new Error('an index to set')
    inBounds(key, parent.length - 1)
    const before: unknown = parent[key]
    parent[key] = structuredClone(edit.value)
    return { op: 'set', path: [...pathOf(document, parent, parentPath), key], value: before }
  }
  if (!isObject(parent) || typeof key !== 'string') throw new Error('not an object')
  const undone = key in parent ? { value: parent[key] } : { unset: true }
  if (edit.unset) Reflect.deleteProperty(parent, key)
  else parent[key] = structuredClone(edit.value)
  return { op: 'set', path: [...pathOf(document, parent, parentPath), key], ...undone }
}

function applyOne(document: Json, edit: Edit): Edit {
  if (edit.op === 'set') return set(document, edit)
  const items = list(document, edit.path)
  if (edit.op === 'insert') {
    inBounds(edit.index, items.length)
    items.splice(edit.index, 0, structuredClone(edit.value))
    return { op: 'remove', path: pathOf(document, items, edit.path), index: edit.index }
  }
  inBounds(edit.index, items.length - 1)
  if (edit.op === 'remove') {
    const [value] = items.splice(edit.index, 1)
    return { op: 'insert', path: pathOf(document, items, edit.path), index: edit.index, value }
  }
  const targetPath = edit.to_path ?? edit.path
  const target = list(document, targetPath)
  if (holds(items[edit.index], target)) throw new Error('inside of what is moved')
  const [taken] = items.splice(edit.index, 1)
  inBounds(edit.to_index, target.length)
  target.splice(edit.to_index, 0, taken)
  const path = pathOf(document, target, targetPath)
  const back: Edit = { op: 'move', path, index: edit.to_index, to_index: edit.index }
  return target === items ? back : { ...back, to_path: pathOf(document, items, edit.path) }
}

/** Apply edits in order to a copy; returns it with the edits that undo them, in their order. */
export function applyEdits<D extends object>(document: D, edits: readonly Edit[]): { document: D; inverse: Edit[] } {
  const made = structuredClone(document)
  const inverse = edits.map((edit) => applyOne(made as Json, edit)).reverse()
  return { document: made, inverse }
}

/** Edits that make one document of another, key by key; parts are replaced whole. */
export function replacing(from: object, to: object): Edit[] {
  const before = from as Json
  const after = to as Json
  const set = Object.keys(after)
    .filter((key) => JSON.stringify(before[key]) !== JSON.stringify(after[key]))
    .map((key): Edit => ({ op: 'set', path: [key], value: after[key] }))
  const gone = Object.keys(before)
    .filter((key) => !(key in after))
    .map((key): Edit => ({ op: 'set', path: [key], unset: true }))
  return [...set, ...gone]
}

function idsOf(value: unknown, into: Set<string>): Set<string> {
  if (Array.isArray(value)) value.forEach((item) => idsOf(item, into))
  else if (isObject(value)) {
    if (typeof value.id === 'string') into.add(value.id)
    Object.values(value).forEach((item) => idsOf(item, into))
  }
  return into
}

/** Gives ids to entries, stations and steps that have none, or whose id the document has already. */
export function withFreshIds<V>(document: object, value: V): V {
  const taken = idsOf((document as Json).blocks, new Set())
  const made = structuredClone(value)
  const name = (carrier: Json, letter: string): void => {
    if (typeof carrier.id === 'string' && !taken.has(carrier.id)) {
      taken.add(carrier.id)
      return
    }
    let number = 1
    while (taken.has(`${letter}${number}`)) number += 1
    carrier.id = `${letter}${number}`
    taken.add(carrier.id as string)
  }
  const steps = (list: unknown): void => {
    if (Array.isArray(list)) list.filter(isObject).forEach((step) => name(step, 's'))
  }
  const entry = (one: Json): void => {
    if ('section' in one) {
      name(one, 'c')
      if (Array.isArray(one.blocks)) one.blocks.filter(isObject).forEach(entry)
      return
    }
    if (!isObject(one.clock)) {
      name(one, 's')
      return
    }
    name(one, 'b')
    steps(one.steps)
    if (Array.isArray(one.clock.stations)) {
      one.clock.stations.filter(isObject).forEach((station) => {
        name(station, 't')
        steps(station.steps)
      })
    }
  }
  for (const one of Array.isArray(made) ? made : [made]) if (isObject(one)) entry(one)
  return made
}
