export { FAMILIES, widened, type Family } from './families.ts';
