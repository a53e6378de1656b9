export interface LautaEvent {
  eventId: string;
  name: string;
  zone: string;
  isPublic: boolean;
  eventCode: string;
  officialAt: Date | null;
}

export interface EventDay {
  dayId: string;
  seq: number;
  date: string;
  codesFrom: Date | null;
}

export interface EventSession {
  sessionId: string;
  dayId: string;
  seq: number;
  linesInLocal: string;
  linesOutLocal: string;
  linesInAt: Date;
  linesOutAt: Date;
}

/** Events with their days, sessions and the days' codes. */
export interface EventStore {
  add(event: Omit<LautaEvent, 'officialAt'>, createdAt: Date): Promise<void>;
  addDay(eventId: string, day: EventDay): Promise<void>;
  addSession(session: EventSession): Promise<void>;
  setOfficial(eventId: string, at: Date | null): Promise<void>;
  find(eventId: string): Promise<LautaEvent | null>;
  all(): Promise<LautaEvent[]>;
  /** Events that anyone may see, and those in which the account has a role. */
  visibleTo(accountId: string | null): Promise<LautaEvent[]>;
  eventCodes(): Promise<string[]>;
  days(eventId: string): Promise<EventDay[]>;
  setCodesFrom(dayId: string, from: Date | null): Promise<void>;
  sessions(eventId: string): Promise<EventSession[]>;
  addIdentifier(entrantId: string, dayId: string, code: string): Promise<void>;
  identifiersOfDay(dayId: string): Promise<{ entrantId: string; code: string }[]>;
  identifiersOf(entrantId: string): Promise<{ dayId: string; code: string }[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    events: EventStore;
  }
}
