import { randomBytes } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import { genesisHash } from '@lauta/core/ledger';
import { enter } from '../ledger/enter.ts';
import type { Lauta } from '../context/lauta.ts';
import type { Stores } from '../storage/storage.ts';
import type { AccountId, DeviceId, EventId, KeyId, PairingId } from '@lauta/core/ids';

/** Under this name the settings hold the id of the installation's own ledger. */
export const LEDGER_SETTING = 'installation-ledger';
export const FIRST_KIND = 'installation.open';

/** What happens to accounts and devices, whichever event they serve. */
export type InstallationAct =
  | { kind: 'account.found'; accountId: AccountId }
  | { kind: 'account.suspend'; accountId: AccountId; why: string }
  | { kind: 'account.reinstate'; accountId: AccountId; why: string }
  | { kind: 'password.set'; accountId: AccountId; how: 'invitation' | 'own' | 'renewal' }
  | {
      kind: 'password.renew';
      accountId: AccountId;
      /** Null: by whoever runs the machine. */ eventId: EventId | null;
    }
  | {
      kind: 'key.register';
      accountId: AccountId;
      keyId: KeyId;
      deviceId: DeviceId;
      pairingId: PairingId | null;
    }
  | { kind: 'key.revoke'; accountId: AccountId; keyId: KeyId; why: string };

/**
 * Opens the installation's own ledger where there is none: its first entry says which devices' keys and founders were
 * there before, so that from then on none comes or goes unseen.
 */
export async function openInstallation(lauta: Pick<Lauta, 'storage' | 'clock' | 'signer'>): Promise<void> {
  await lauta.storage.change(async (stores) => {
    const ledgerId = uuidv7();
    if (!(await stores.settings.setOnce(LEDGER_SETTING, ledgerId))) return;
    await stores.ledger.open(ledgerId, { seq: 0, hash: genesisHash(ledgerId) });
    const { keys, accounts } = await stores.record.installation();
    await enter(lauta, stores, {
      ledgerId,
      actorId: ledgerId,
      kind: FIRST_KIND,
      at: lauta.clock.now(),
      body: () => ({ keys, accounts }),
    });
  });
}

/** A secret of this installation, made at its first start: it marks browsers that signed in before. */
export async function installationSecret({ read }: Lauta['storage']): Promise<string> {
  await read.settings.setOnce('secret', randomBytes(32).toString('hex'));
  return (await read.settings.get('secret')) ?? '';
}

/** The id of the installation's own ledger. */
export async function installationLedger(stores: Stores): Promise<string> {
  const ledgerId = await stores.settings.get(LEDGER_SETTING);
  if (ledgerId === null) throw new Error('installation: expected its ledger, got none');
  return ledgerId;
}

/** Enters an act in the transaction in which it is done, at the instant that is stored with it. Why something was taken away stands there as a commitment. */
export async function note(
  lauta: Pick<Lauta, 'signer'>,
  stores: Stores,
  actorId: AccountId,
  at: Date,
  act: InstallationAct,
): Promise<void> {
  const { kind, ...rest } = act;
  await enter(lauta, stores, {
    ledgerId: await installationLedger(stores),
    actorId,
    kind,
    at,
    body: (commit) =>
      kind === 'account.suspend' || kind === 'account.reinstate'
        ? { ...rest, why: commit('why', act.why) }
        : rest,
  });
}
