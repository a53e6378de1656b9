export { formatPayload, extendCodes, issueCodes, parsePayload, type Identifier } from './identifier.ts';
