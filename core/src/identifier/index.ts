export { formatPayload, issueCodes, parsePayload, type Identifier } from './identifier.ts';
