import type { H3Event } from 'h3'
import { defineEventHandler } from 'h3'
import { answerError } from './problem'

/** A handler of an endpoint: whatever goes wrong in it is answered as a problem. */
export const apiHandler = <T>(answer: (event: H3Event) => T | Promise<T>) =>
  defineEventHandler(async (event) => {
    try {
      return await answer(event)
    } catch (error) {
      return answerError(event, error)
    }
  })
