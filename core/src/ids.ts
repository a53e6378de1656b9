/**
 * A text that names one thing of a kind. Any text may become one where it comes in (JSON, SQL, an address); the id of
 * one kind is refused where another kind's is wanted.
 * @see common practice, no source: an optional mark that no value has ("flavoured" types)
 */
type IdOf<Kind extends string> = string & { readonly idOf?: Kind };

export type EventId = IdOf<'event'>;
export type DayId = IdOf<'day'>;
export type SessionId = IdOf<'session'>;
export type AccountId = IdOf<'account'>;
export type EntrantId = IdOf<'entrant'>;
export type DeviceId = IdOf<'device'>;
/** Of a key that signs on a device: the hash of its public half. */
export type KeyId = IdOf<'key'>;
export type CommandId = IdOf<'command'>;
export type CatchId = IdOf<'catch'>;
export type MeasurementId = IdOf<'measurement'>;
export type VerdictId = IdOf<'verdict'>;
/** Of one file: a photograph, a frame of a burst, a clip. What it is for its place in a record says. */
export type FileId = IdOf<'file'>;
/** Of a statement that a device signed of a file. */
export type CaptureId = IdOf<'capture'>;
export type PairingId = IdOf<'pairing'>;
/** Of a fish in a live well. */
export type FishId = IdOf<'fish'>;
export type TagId = IdOf<'tag'>;
/** Of one tap in a list of acts: a well's, a weigh-in's. */
export type EntryId = IdOf<'entry'>;
export type TicketId = IdOf<'ticket'>;
export type ScaleId = IdOf<'scale'>;
export type SpecimenId = IdOf<'specimen'>;
export type SpeciesId = IdOf<'species'>;
export type BoardId = IdOf<'board'>;
