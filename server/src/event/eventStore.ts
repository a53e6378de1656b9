import type { AccountId, DayId, EntrantId, EventId, SessionId } from '@lauta/core/ids';

export interface LautaEvent {
  eventId: EventId;
  name: string;
  zone: string;
  isPublic: boolean;
  eventCode: string;
  officialAt: Date | null;
}

export interface EventDay {
  dayId: DayId;
  seq: number;
  date: string;
  codesFrom: Date | null;
}

export interface EventSession {
  sessionId: SessionId;
  dayId: DayId;
  seq: number;
  linesInLocal: string;
  linesOutLocal: string;
  linesInAt: Date;
  linesOutAt: Date;
}

/** Events with their days, sessions and the days' codes. */
export interface EventStore {
  add(event: Omit<LautaEvent, 'officialAt'>, createdAt: Date): Promise<void>;
  addDay(eventId: EventId, day: EventDay): Promise<void>;
  addSession(session: EventSession): Promise<void>;
  setOfficial(eventId: EventId, at: Date | null): Promise<void>;
  find(eventId: EventId): Promise<LautaEvent | null>;
  all(): Promise<LautaEvent[]>;
  /** Events that anyone may see, and those in which the account has a role. */
  visibleTo(accountId: AccountId | null): Promise<LautaEvent[]>;
  eventCodes(): Promise<string[]>;
  days(eventId: EventId): Promise<EventDay[]>;
  setCodesFrom(dayId: DayId, from: Date | null): Promise<void>;
  sessions(eventId: EventId): Promise<EventSession[]>;
  addIdentifier(entrantId: EntrantId, dayId: DayId, code: string): Promise<void>;
  identifiersOfDay(dayId: DayId): Promise<{ entrantId: EntrantId; code: string }[]>;
  identifiersOf(entrantId: EntrantId): Promise<{ dayId: DayId; code: string }[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    events: EventStore;
  }
}
