// Plays runs (a JSON list on stdin) with the browser's timer and prints what it publishes of each.
import { readFileSync } from 'node:fs'

import { publishedPlayed } from '../../frontend/src/timer/played'
import { inOrder, replay } from '../../frontend/src/timer/replay'

const runs = JSON.parse(readFileSync(0, 'utf8'))
const played = runs.map((run) => {
  const events = inOrder(run.events, run.until)
  const layoutOf = (event) => run.layouts?.[String(events.indexOf(event))] ?? null
  return publishedPlayed(replay({ ...run, layoutOf }), run.until)
})
process.stdout.write(JSON.stringify(played))
