import { entryKind, line } from '../kind';
import { searchKey } from '../../../../../library/reason/ruledSigns';
import { positionWords } from '../../words';
import { HarnessSearch } from './payload';

export const harnessSearch = entryKind('harness-search', HarnessSearch, {
	about: 'A wire halved until the fault lay between two places.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: true,
	line: ({ position, wire, found, between, says }) =>
		line(
			`${positionWords(position)}, ${wire} wire halved`,
			found ? says : `between ${between[0]} and ${between[1]}`,
			found ? 'found' : null
		),
	seen: ({ position, found, implicates }) =>
		found && implicates[0] ? { [searchKey(position)]: implicates[0] } : {}
});
