// A thread does not take over its parent's loader for TypeScript: it registers its own.
import { register } from 'tsx/esm/api';

register();
const { render } = await import('./renderWorker.ts');
export default render;
