export { CAPABILITIES, ROLES, may, type Capability, type Role, type Subject } from './may.ts';
