// What the answers of the server are kept under. Those of one squad carry its number: another squad is another answer.
export const KEYS = {
  tables: () => ['tables'],
  movements: (squad: number) => ['movements', squad],
  formats: () => ['formats'],
  shapes: (squad: number) => ['shapes', squad],
  compareTables: () => ['compare-tables'],
  people: (squad: number) => ['people', squad],
  muted: (squad: number) => ['muted-checks', squad],
  sessions: () => ['sessions'],
  session: (id: string) => ['session', id],
  versions: (id: string) => ['session', id, 'versions'],
  card: (id: string) => ['session', id, 'card'],
  week: () => ['week'],
  season: () => ['season'],
  attendance: (entry: string) => ['attendance', entry],
  away: (squad: number) => ['away', squad],
  links: (squad: number) => ['links', squad],
} as const
