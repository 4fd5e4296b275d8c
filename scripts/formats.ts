// npm run formats: writes the published schema of case.json and the list of kinds anew, from the definitions that the server checks by.
import { readFileSync, writeFileSync } from 'node:fs';
import { caseSchemaText } from '../src/lib/case/thread/caseSchema';
import { withKinds } from '../src/lib/case/entries/kindsTable';

const PAGE = 'docs/formats.md';

writeFileSync('docs/formats/case.schema.json', caseSchemaText());
writeFileSync(PAGE, withKinds(readFileSync(PAGE, 'utf8')));
