import { entryKind, line } from '../kind';
import { BroughtBy } from './payload';

export const customer = entryKind('customer', BroughtBy, {
	about: 'Who brought the vehicle in, by the number they have in this shop; no name.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ customer: id }) =>
		id === null
			? line('Nobody is its customer any more', '')
			: line('Brought in by a customer of the shop', 'who they are stands with the customer')
});
