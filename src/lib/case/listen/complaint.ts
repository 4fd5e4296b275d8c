import { circumstances, symptoms, works } from '../../../../library/vocabulary';
import type { Complaint as Told } from '../entries/complaint/payload';
import { short } from '../words';

type Complaint = Pick<Told, 'symptoms' | 'conditions' | 'felt' | 'when' | 'atKmh'>;

const wordsOf = (
	ids: readonly string[] | undefined,
	list: ReadonlyMap<string, { words: string }>
): string[] => (ids ?? []).map((id) => list.get(id)?.words ?? id);

/** When it shows, in words: what was chosen, then what was typed beside it. */
export const whenItShows = ({
	when,
	conditions,
	atKmh
}: Pick<Complaint, 'when' | 'conditions' | 'atKmh'>): string[] => [
	...wordsOf(when, circumstances),
	...conditions,
	...(atKmh === undefined ? [] : [`at about ${short(atKmh, 0)} km/h`])
];

/** What is felt and when, in words. */
export const complaintDetails = (complaint: Complaint): string[] => [
	...wordsOf(complaint.felt, symptoms),
	...complaint.symptoms,
	...whenItShows(complaint)
];

/** The work of the vocabulary that a repair of the library is; undefined where it is none of them. */
export const workOfRepair = (repair: string | undefined): string | undefined =>
	repair === undefined ? undefined : [...works.values()].find((work) => work.repair === repair)?.id;
