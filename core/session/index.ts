export * from './complete'
export * from './feed-from'
export * from './log'
export * from './session'
