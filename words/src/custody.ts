import type { CaptureView, OwnKeyView } from '@lauta/contract';
import type { CustodyCheck } from '@lauta/core/custody';

/** What is said where a check is not clear. */
export const CUSTODY_WORDS: Record<CustodyCheck, string> = {
  unsigned: 'not signed when it was taken',
  'photograph-altered': 'not the photograph that was signed',
  'chosen-file': 'signed when it was chosen',
  'signature-broken': 'a signature does not fit',
  'key-unknown': 'signed by an unknown device',
  'key-of-another': 'signed by somebody else’s device',
  'key-revoked': 'signed by a device that was struck off',
  'key-lost': 'a new device after one that was lost',
  'key-late': 'the device was registered afterwards',
  'second-phone': 'a second device',
  'partner-phone': 'a partner’s phone',
  'chain-broken': 'the chain of captures is broken',
  'capture-missing': 'a capture was left out',
  'clock-set-back': 'the device’s clock was set',
  'clock-restarted': 'the page was opened anew',
  'device-clock-off': 'the device’s clock is off',
  'device-time-outside': 'signed outside of the hours',
  'identifier-otherwise': 'another code was signed',
  'device-place-missing': 'the device had no position',
  'device-place-outside': 'not on the event’s waters',
  'device-too-far-too-soon': 'too far from the capture before it',
  'first-heard': 'first reported',
  'claimed-otherwise': 'the claim differs from what was announced',
  'claimed-twice': 'the same file in another catch',
};

export const FRAME_WORDS: Record<CaptureView['frame'], string> = {
  'on-device': 'on the device',
  asked: 'asked for',
  sent: 'sent',
  gone: 'no more on the device',
};

export const REVOKED_WORDS: Record<NonNullable<OwnKeyView['revokedWhy']>, string> = {
  lost: 'lost',
  'given-away': 'given away',
};
