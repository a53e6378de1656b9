import { describe, expect, it } from 'vitest';
import type { Who } from '@lauta/contract';
import { CAPABILITIES, ROLES, may, type Role } from '@lauta/core/people';
import { placeIn } from './who.ts';

const who = (roles: readonly Role[], isPaired = false): Who =>
  ({
    isDemo: false,
    isSetUp: true,
    account: {
      founder: false,
      roles: roles.map((role) => ({ eventId: 'e', role })),
      entrants: roles.includes('angler') ? [{ eventId: 'e', entrantId: 'mine' }] : [],
      pairing: isPaired ? { pairingId: 'p', job: 'timer' } : null,
    },
  }) as unknown as Who;

describe('what a page offers', () => {
  it.each(ROLES)('a %s is what the server would allow, and nothing of another event', (role) => {
    for (const capability of CAPABILITIES)
      for (const entrantId of ['mine', 'another', undefined])
        for (const isPaired of [false, true]) {
          const ownEntrant = entrantId === 'mine' && role === 'angler';
          const subject = { signedIn: true, founder: false, roles: new Set([role]), eventPublic: false, ownEntrant, paired: isPaired }; // prettier-ignore
          expect(placeIn(who([role], isPaired), 'e').may(capability, entrantId), capability).toBe(may(capability, subject)); // prettier-ignore
          expect(placeIn(who([role], isPaired), 'other').may(capability, entrantId)).toBe(false);
        }
  });

  it('nobody is nothing that is not open to all', () => {
    const nobody = placeIn({ isDemo: false, isSetUp: true, account: null } as unknown as Who, 'e');
    expect(CAPABILITIES.filter((capability) => nobody.may(capability))).toEqual([]);
    expect(placeIn(undefined, 'e').entrantId).toBeNull();
  });
});
