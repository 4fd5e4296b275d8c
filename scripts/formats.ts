// npm run formats: writes the published schemas of case.json and of a vehicle, and the list of kinds anew, from the definitions that the server checks by.
import { readFileSync, writeFileSync } from 'node:fs';
import { vehicleSchemaText } from '../library/vehicle/given';
import { caseSchemaText } from '../src/lib/case/thread/caseSchema';
import { withKinds } from '../src/lib/case/entries/kindsTable';

const PAGE = 'docs/formats.md';

writeFileSync('docs/formats/case.schema.json', caseSchemaText());
writeFileSync('docs/formats/vehicle.schema.json', vehicleSchemaText());
writeFileSync(PAGE, withKinds(readFileSync(PAGE, 'utf8')));
