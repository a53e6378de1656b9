export { formatPayload, extendCodes, issueCodes, parsePayload, type Identifier } from './identifier.ts';
export { CARD_MM, moduleOnCard } from './card.ts';
export { codeStanding, type CodeFacts, type CodeStanding } from './codeStanding.ts';
