import { defineEventHandler } from 'h3'
import { answerProblem } from '../utils/problem'

const endpoints =
  'POST /api/evaluate, POST /api/plan, POST /api/timing, POST /api/measure/levels, POST /api/measure/loopback and GET /api/schema/session'

/** Anything else under /api is answered as a problem too, not with a page of the interface. */
export default defineEventHandler((event) =>
  answerProblem(
    event,
    404,
    'No such endpoint',
    `${event.method} ${event.path.slice(0, 200)} is not answered. There are ${endpoints}.`,
  ),
)
