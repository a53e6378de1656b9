import type { Role } from '@lauta/core/people';

export interface DemoPerson {
  name: string;
  email: string;
}

const address = (local: string): string => `${local}@kestrel-mere.example`;

/** Invented people of the demo; the addresses are under a domain that never resolves (RFC 2606). */
export const DEMO_OFFICIALS: Record<Exclude<Role, 'angler'>, DemoPerson> = {
  director: { name: 'Maren Tollgate', email: address('director') },
  judge: { name: 'Osric Fenwarden', email: address('judge') },
  'weigh-master': { name: 'Dagny Halewater', email: address('weigh-master') },
};

const NAMES = [
  'Ilka Vestergrove', 'Petro Lindmarsh', 'Ruben Achterdyke', 'Jonna Pettersund', 'Tomas Oduvale', 'Noor Hadderly',
  'Stig Holmbrook', 'Mirka Salowen', 'Greta Moravane', 'Ana Beltrasca', 'Kofi Mensabridge', 'Yara Ibsenholt',
  'Lucian Quarrell', 'Sunniva Okonreed', 'Emeka Thornfold', 'Bettina Marlowick', 'Paavo Rauhaniemi', 'Delphine Corwater',
  'Anselm Drydock', 'Zofia Wierzbanka', 'Hamish Oxbowe', 'Leocadia Pinefrith', 'Vikram Sandlund', 'Orla Tidewell',
]; // prettier-ignore

/** The seventh is who the demo's sign-in button for an angler signs in. */
export const DEMO_ANGLERS: readonly DemoPerson[] = NAMES.map((name, i) => ({
  name,
  email: i === 6 ? address('angler') : address(name.toLowerCase().replace(' ', '.')),
}));
