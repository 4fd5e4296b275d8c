import type { Decision } from '../../core/path/nextTest';

/** Why nothing more is tested, by what the decision rests on; for the general method, why no part. */
export const WHY_GENERAL_METHOD: Record<Decision['why'], string> = {
	'code-alone': 'Only codes speak so far, and no part is ordered from a code alone.',
	'repairs-did-not-help':
		'Two repairs have not helped: what is wrong is likelier something that is not described here. No more parts before it is searched by the diagram.',
	'nothing-tells-more': 'No test at hand tells more.',
	confident: 'No test at hand tells more.',
	test: ''
};
