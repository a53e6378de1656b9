import { describe, expect, it } from 'vitest';
import { CAPABILITIES, may, type Capability, type Role, type Subject } from './index.ts';

function subject(change: Partial<Omit<Subject, 'roles'>> & { roles?: Role[] } = {}): Subject {
  const { roles = [], ...rest } = change;
  return {
    signedIn: true,
    founder: false,
    eventPublic: true,
    ownEntrant: false,
    paired: false,
    ...rest,
    roles: new Set(roles),
  };
}
const allowed = (who: Subject) => CAPABILITIES.filter((capability) => may(capability, who));
const PUBLIC: Capability[] = ['see-event', 'see-standings', 'see-ledger'];

describe('who may do what', () => {
  it('anyone sees a published event, and nothing else', () => {
    expect(allowed(subject({ signedIn: false }))).toEqual(PUBLIC);
    expect(allowed(subject({ signedIn: false, eventPublic: false }))).toEqual([]);
  });

  it('a stranger with an account sees no more than anyone', () => {
    expect(allowed(subject())).toEqual(PUBLIC);
    expect(allowed(subject({ eventPublic: false }))).toEqual([]);
  });

  it('roles mean nothing without being signed in', () => {
    const everything = {
      founder: true,
      ownEntrant: true,
      roles: ['director', 'judge', 'weigh-master', 'angler'] as Role[],
    };
    expect(allowed(subject({ ...everything, signedIn: false }))).toEqual(PUBLIC);
  });

  it('an angler claims for the own entrant only', () => {
    expect(may('claim-catch', subject({ roles: ['angler'], ownEntrant: true }))).toBe(true);
    expect(may('claim-catch', subject({ roles: ['angler'] }))).toBe(false);
    expect(may('claim-catch', subject({ ownEntrant: true }))).toBe(false);
  });

  it('a partner’s phone claims and tells for its entrant, and neither withdraws, answers nor pairs another', () => {
    const phone = subject({ roles: ['angler'], ownEntrant: true, paired: true });
    for (const capability of ['claim-catch', 'tell-catch', 'upload-photograph', 'see-catch'] as const)
      expect(may(capability, phone), capability).toBe(true);
    for (const capability of ['withdraw-catch', 'answer-request', 'pair-phone'] as const) {
      expect(may(capability, phone), capability).toBe(false);
      expect(may(capability, { ...phone, paired: false }), capability).toBe(true);
    }
  });

  it('nobody judges an own catch or a partner’s', () => {
    expect(may('judge-catch', subject({ roles: ['judge'] }))).toBe(true);
    expect(may('judge-catch', subject({ roles: ['judge', 'angler'], ownEntrant: true }))).toBe(false);
    expect(may('judge-catch', subject({ roles: ['director'] }))).toBe(false);
  });

  it('another angler sees neither catch nor original', () => {
    expect(may('see-catch', subject({ roles: ['angler'] }))).toBe(false);
    expect(may('see-original', subject({ roles: ['angler'] }))).toBe(false);
  });

  it('only a founder creates events', () => {
    expect(may('create-event', subject({ founder: true }))).toBe(true);
    expect(may('create-event', subject({ roles: ['director'] }))).toBe(false);
  });
});
