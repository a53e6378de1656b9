export const KIND_WORDS: Record<string, string> = {
  'event.create': 'event created',
  'rules.publish': 'rule sheet published',
  'people.add': 'person added',
  'catch.claim': 'catch claimed',
  'catch.judge': 'catch decided',
  'catch.answer': 'request answered',
  'catch.withdraw': 'catch withdrawn',
  'catch.restore': 'withdrawal undone',
};

export const FAULT_WORDS: Record<string, string> = {
  missing: 'it is missing',
  altered: 'its bytes are not those that were hashed',
  'not-canonical': 'its bytes are not in canonical form',
  'wrong-seq': 'its number is not its place',
  'wrong-event': 'it belongs to another event',
  'broken-link': 'it does not hold the hash of the one before',
  'commitment-differs': 'what it commits to was altered',
  'record-differs': 'the catch or verdict in the database is not the one it speaks of',
  'photograph-differs': 'the photograph is not the one it speaks of',
  'sheet-differs': 'the rule sheet is not the one it speaks of',
};
