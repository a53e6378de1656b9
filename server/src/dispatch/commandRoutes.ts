import { commandSchema } from '@lauta/contract';
import type { RouteTable } from '../http/routeTable.ts';
import { refuse } from '../base/refusal.ts';
import { applyCommand } from './applyCommand.ts';

/** The one door: each command's handler asks the table in core whether its sender may. */
export function addCommandRoutes(table: RouteTable): void {
  table.signedIn('post', '/api/commands', async ({ lauta, request, account }) => {
    const key = request.headers['idempotency-key'];
    if (typeof key !== 'string' || !/^[\x21-\x7e]{8,100}$/.test(key)) refuse('idempotency-key-missing');
    return applyCommand(lauta, account.accountId, key, commandSchema.parse(request.body), account.pairing);
  });
}
