import { type Folds } from '../ledger/recordFold.ts';
import type { AdoptedInstallation } from '../ledger/recordRows.ts';

/** What entries of the installation's own ledger say of accounts and devices. */
export const INSTALLATION_RECORD = {
  'installation.open'(fold, { body }) {
    const { keys, accounts } = body as unknown as AdoptedInstallation;
    for (const { keyId, ...fields } of keys)
      fold.set('device-key', [keyId], { ...fields, thumbprint: keyId });
    for (const { accountId, ...fields } of accounts) fold.set('account', [accountId], { ...fields });
  },
  'account.found'(fold, { body }) {
    fold.set('account', [String(body['accountId'])], { founder: true, suspendedAt: null });
  },
  'account.suspend'(fold, { at, body }) {
    fold.open('why', body['why']);
    fold.set('account', [String(body['accountId'])], { founder: false, suspendedAt: at });
  },
  'account.reinstate'(fold, { body }) {
    fold.open('why', body['why']);
    fold.remove('account', String(body['accountId']));
  },
  'password.set': () => undefined,
  'password.renew': () => undefined,
  'key.register'(fold, { at, body }) {
    const { keyId, accountId, deviceId, pairingId } = body;
    fold.set('device-key', [String(keyId)], {
      accountId,
      deviceId,
      pairingId,
      thumbprint: keyId,
      registeredAt: at,
      revokedAt: null,
      revokedWhy: null,
    });
  },
  'key.revoke'(fold, { at, body }) {
    fold.set('device-key', [String(body['keyId'])], { revokedAt: at, revokedWhy: body['why'] });
  },
} satisfies Folds;
