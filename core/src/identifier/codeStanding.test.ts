import { describe, expect, it } from 'vitest';
import { codeStanding, formatPayload } from './index.ts';

const facts = { claimed: 'KM4T', issued: 'KM4T', entrantNumber: 7 };
const card = (entrantNumber: number, code: string) =>
  formatPayload({ eventCode: 'KEST', entrantNumber, code });

describe('the code of a catch', () => {
  it('is as issued only where it was read in the picture', () => {
    expect(codeStanding({ ...facts, readPayload: card(7, 'KM4T') })).toEqual({ kind: 'read-as-issued', code: 'KM4T' });
    // What the claim names says nothing either way.
    expect(codeStanding({ ...facts, claimed: null, readPayload: card(7, 'KM4T') })).toMatchObject({ kind: 'read-as-issued' });
    expect(codeStanding({ ...facts, readPayload: null })).toEqual({ kind: 'unread', claimed: 'KM4T' });
    expect(codeStanding({ ...facts, claimed: null, readPayload: null })).toEqual({ kind: 'unread', claimed: null });
  }); // prettier-ignore

  it.each([
    ['another day’s code', card(7, 'XX99'), { kind: 'read-otherwise', read: 'no. 7, XX99' }],
    ['another entrant’s card', card(8, 'KM4T'), { kind: 'read-otherwise', read: 'no. 8, KM4T' }],
    ['a code that is no card’s', 'https://elsewhere.example', { kind: 'read-foreign' }],
  ])('read in the picture as %s', (_what, readPayload, standing) => {
    expect(codeStanding({ ...facts, readPayload })).toEqual(standing);
  });

  it('that the claim itself names otherwise is said so', () => {
    expect(codeStanding({ ...facts, claimed: 'AAAA', readPayload: null })).toEqual({ kind: 'claimed-otherwise', claimed: 'AAAA' }); // prettier-ignore
  });

  it('of an entrant without one proves nothing', () => {
    expect(codeStanding({ ...facts, issued: null, readPayload: card(7, 'KM4T') })).toEqual({
      kind: 'none-issued',
    });
  });
});
