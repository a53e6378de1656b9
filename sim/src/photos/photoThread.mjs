// Lets a worker thread load TypeScript as the main thread does.
import { register } from 'tsx/esm/api';

register();
const { draw } = await import('./drawPhoto.ts');
export default draw;
