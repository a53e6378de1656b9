// A worker thread does not take over the parent's loader for TypeScript.
import { register } from 'tsx/esm/api';

register();
const { cullDays } = await import('./cullDays.ts');
export default cullDays;
