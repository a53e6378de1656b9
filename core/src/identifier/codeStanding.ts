import { parsePayload } from './identifier.ts';

/** What proves the day, and what only says so. */
export interface CodeFacts {
  /** The text of the card's code as it was read in the photograph; null where none was read. */
  readPayload: string | null;
  /** The code that the claim names: filled in by the page, or typed. */
  claimed: string | null;
  /** The entrant's code of the day; null where none was issued, or it may not be seen. */
  issued: string | null;
  entrantNumber: number;
}

export type CodeStanding =
  /** The only one that proves anything: the card in the picture is the entrant's, of the day. */
  | { kind: 'read-as-issued'; code: string }
  | { kind: 'read-otherwise'; read: string }
  /** A code was read that is no card's of an event. */
  | { kind: 'read-foreign' }
  | { kind: 'claimed-otherwise'; claimed: string }
  /** Nothing was read: a person must look. */
  | { kind: 'unread'; claimed: string | null }
  | { kind: 'none-issued' };

/** How a catch's code stands. What the claim names is no evidence: the page itself fills it in. */
export function codeStanding({ readPayload, claimed, issued, entrantNumber }: CodeFacts): CodeStanding {
  if (issued === null) return { kind: 'none-issued' };
  if (readPayload !== null) {
    const card = parsePayload(readPayload);
    if (!card) return { kind: 'read-foreign' };
    return card.code === issued && card.entrantNumber === entrantNumber
      ? { kind: 'read-as-issued', code: issued }
      : { kind: 'read-otherwise', read: `no. ${card.entrantNumber}, ${card.code}` };
  }
  if (claimed !== null && claimed !== issued) return { kind: 'claimed-otherwise', claimed };
  return { kind: 'unread', claimed };
}
