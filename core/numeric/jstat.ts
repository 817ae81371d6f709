// The package ships no types, and each part of the project that reads this one has to find ours.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./jstat-types.d.ts" />
// Named imports of a CommonJS package fail on the server, so the default one is named here.
export { default as jStat } from 'jstat'
