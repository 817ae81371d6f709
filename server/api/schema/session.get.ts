import { defineEventHandler, setResponseHeader } from 'h3'
import { sessionJsonSchema } from '#core/session'

export default defineEventHandler((event) => {
  setResponseHeader(event, 'content-type', 'application/schema+json')
  return sessionJsonSchema()
})
