import type { Cause } from '../cause'
import * as distortion from './distortion'
import * as drift from './drift'
import * as dropouts from './dropouts'
import * as hiss from './hiss'
import * as feedback from './feedback'
import * as hum from './hum'
import * as pitch from './pitch'
import * as sides from './sides'
import * as silence from './silence'
import * as tone from './tone'
import * as twice from './twice-and-late'
import * as unit from './unit'
import * as weak from './weak'

/** Every cause, by the id that scripts know it by. docs/faults.md is made from this table. */
export const causes = {
  'late-gain': hiss.lateGain,
  'source-down': hiss.sourceDown,
  'preamp-near-end': hiss.preampNearEnd,
  'no-booster': hiss.noBooster,
  'system-slider-up': hiss.systemSliderUp,
  'compressor-lifts': hiss.compressorLifts,
  'room-noise': hiss.roomNoise,
  'converter-over': distortion.converterOver,
  'early-clip': distortion.earlyClip,
  'capsule-overload': distortion.capsuleOverload,
  'hot-socket': distortion.hotSocket,
  'hot-pickup': distortion.hotPickup,
  'plug-in-output': distortion.plugInOutput,
  'buffer-too-small': dropouts.bufferTooSmall,
  'plug-in-load': dropouts.plugInLoad,
  'other-programs': dropouts.otherPrograms,
  'generic-driver': dropouts.genericDriver,
  'usb-path': dropouts.usbPath,
  'clocks-unlocked': dropouts.clocksUnlocked,
  'mains-switching': dropouts.mainsSwitching,
  'direct-and-host': twice.directAndHost,
  'desk-return': twice.deskReturn,
  'stream-monitor': twice.streamMonitor,
  'buffer-too-large': twice.bufferTooLarge,
  'plug-in-delay': twice.plugInDelay,
  'wireless-link': twice.wirelessLink,
  'loudspeaker-distance': twice.loudspeakerDistance,
  'one-input-stereo-track': sides.oneInputStereoTrack,
  'monitored-unpanned': sides.monitoredUnpanned,
  'plug-half-in': sides.plugHalfIn,
  'balance-control': sides.balanceControl,
  'phantom-missing': silence.phantomMissing,
  'phantom-on-harmed': silence.phantomOnHarmed,
  'muted': silence.muted,
  'gain-down': silence.gainDown,
  'wrong-input': silence.wrongInput,
  'track-not-armed': silence.trackNotArmed,
  'output-elsewhere': silence.outputElsewhere,
  'device-held': silence.deviceHeld,
  'loudspeakers-down': silence.loudspeakersDown,
  'rates-differ': pitch.ratesDiffer,
  'file-unconverted': pitch.fileUnconverted,
  'microphone-in-room': feedback.microphoneInRoom,
  'margin-gone': feedback.marginGone,
  'too-many-open': feedback.tooManyOpen,
  'pattern-turned': feedback.patternTurned,
  'earth-loop': hum.earthLoop,
  'unbalanced-lead': hum.unbalancedLead,
  'di-earth': hum.diEarth,
  'hum-field': hum.humField,
  'supply-ripple': hum.supplyRipple,
  'offset': distortion.offset,
  'automatic-gain': drift.automaticGain,
  'call-lowering': drift.callLowering,
  'gate-works': hiss.gateWorks,
  'performer-moves': drift.performerMoves,
  'pickup-loaded': tone.pickupLoaded,
  'treble-in-lead': tone.trebleInLead,
  'two-microphones': tone.twoMicrophones,
  'polarity-flipped': tone.polarityFlipped,
  'off-axis': tone.offAxis,
  'pad-in': weak.padIn,
  'too-far': weak.tooFar,
  'wrong-type': weak.wrongType,
  'consumer-level': weak.consumerLevel,
  'slider-down': weak.sliderDown,
  'driver-missing': unit.driverMissing,
  'firmware-old': unit.firmwareOld,
  'charge-cable': unit.chargeCable,
  'storage-mode': unit.storageMode,
} as const satisfies Record<string, Cause>

export type CauseId = keyof typeof causes
export const causeIds = Object.keys(causes) as CauseId[]
export const causeOf = (id: CauseId): Cause => causes[id]
