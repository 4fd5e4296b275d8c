// npm run formats: writes the published schema of case.json anew, from the definitions that the server checks by.
import { writeFileSync } from 'node:fs';
import { caseSchemaText } from '../src/lib/case/caseSchema';

writeFileSync('docs/formats/case.schema.json', caseSchemaText());
