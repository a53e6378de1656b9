import type { Role } from '@lauta/core/people';

/** The demo's people for the buttons of its sign-in page. They have no password: there is no other way in. */
export const DEMO_EMAILS: Record<Role, string> = {
  director: 'director@kestrel-mere.example',
  judge: 'judge@kestrel-mere.example',
  'weigh-master': 'weigh-master@kestrel-mere.example',
  angler: 'angler@kestrel-mere.example',
};
