import type { Connection } from '../storage/database.ts';
import { accountsIn, invitationsIn, signInsIn } from './accounts.mariadb.ts';
import { entrantsIn, pairingsIn, peopleIn, rolesIn } from './entrants.mariadb.ts';
import type { PeopleStore } from './peopleStore.ts';

export function mariadbPeopleStore(db: Connection): PeopleStore {
  return {
    ...accountsIn(db),
    ...signInsIn(db),
    ...invitationsIn(db),
    ...pairingsIn(db),
    ...rolesIn(db),
    ...peopleIn(db),
    ...entrantsIn(db),
  };
}
