// npm run architecture: draws docs/architecture.svg from the imports as they are.
import { writeFileSync } from 'node:fs';
import { drawingOf } from './drawing';

writeFileSync('docs/architecture.svg', await drawingOf());
console.log('docs/architecture.svg');
