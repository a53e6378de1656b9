import { INFRACTIONS, type Infraction } from '@lauta/core/rules';

export type PhotoFault = Exclude<Infraction, 'craft-missing'>;
/** What can be wrong with a drawn photograph, by the ids of the checks that find it. */
export const PHOTO_FAULTS = INFRACTIONS.filter((id): id is PhotoFault => id !== 'craft-missing');
