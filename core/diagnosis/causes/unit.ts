import type { Cause } from '../cause'

export const driverMissing: Cause = {
  title: 'The driver is missing or too old',
  prior: 9,
  symptoms: { 'not-seen': 0.9, 'nothing': 0.2 },
  when: { changed: 2 },
  shows: {
    'which-driver': { none: 0.85, generic: 0.15 },
    'device-chosen': { taken: 0.7 },
    'where-it-dies': { host: 0.9 },
  },
  byHand: 'Install the maker’s current driver for this system, allow it in the system’s settings, and restart.',
  after: 'Look for the unit in the host’s list, then set rate and buffer again.',
}

export const firmwareOld: Cause = {
  title: 'The unit’s firmware does not match the driver',
  prior: 5,
  symptoms: { 'not-seen': 0.8 },
  when: { changed: 2 },
  shows: { 'firmware': { old: 0.96 }, 'which-driver': { none: 0.7, exclusive: 0.25 } },
  byHand: 'Bring the firmware to what the driver asks for, with the maker’s own tool.',
  after: 'Add a mark to the log with the new firmware, and measure the round trip again.',
  caution: 'Save what the unit keeps first, and never cut its power while firmware is written.',
}

export const chargeCable: Cause = {
  title: 'The USB cable only charges',
  prior: 8,
  symptoms: { 'not-seen': 0.95 },
  shows: { 'other-cable': { seen: 0.96 }, 'other-port': { stays: 0.95 } },
  byHand: 'Take a cable that carries data, the one it came with.',
  after: 'Mark the bad cable, or throw it away.',
}

export const storageMode: Cause = {
  title: 'The unit has started as a drive',
  prior: 5,
  symptoms: { 'not-seen': 0.9 },
  shows: { 'as-storage': { drive: 0.97 } },
  byHand: 'Eject the drive, and switch the unit’s start-up mode or the button that holds it there.',
  after: 'Look for the unit in the host’s list.',
  caution: 'Eject the drive before the cable is pulled: files can be lost.',
}
