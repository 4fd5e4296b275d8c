import { DRIVING, GROUPS, type CodeDefinition } from '../../../../library/codePack';
import { sourcesFor, type Asked, type CodeBook, type SourcedDefinition } from '../../../../library/codes';
import { sayCondition } from '../../../../library/signals';
import { positionWords } from '../words';

/** What one source says, in words. */
export interface SourceView {
	packId: string;
	name: string;
	source: string;
	date: string;
	/** Set where it speaks of vehicles of one maker only. */
	maker: string | null;
	title: string;
	/** Its words are for this one kind of failure. */
	failureType: string | null;
	where: string;
	setWhen: string | null;
	testRunsWhen: string | null;
	causes: string[];
	notes: string;
	lamps: readonly string[];
	driving: string;
}

/** One thing on which the sources do not say the same. */
export interface Disagreement {
	about: string;
	says: { name: string; text: string }[];
}

const where = ({ corner, group }: CodeDefinition): string =>
	corner ? `${positionWords(corner)}, ${GROUPS[group]}` : GROUPS[group];

/** Said after conditions that no standard and no maker gives. */
const TYPICAL = ' (typical, not of a standard)';

function viewSource(definition: SourcedDefinition): SourceView {
	const { pack, title, failureType, setConditions, testConditions, causes, notes, lamps, driving } =
		definition;
	const ours = pack.conditions === 'typical' ? TYPICAL : '';
	return {
		packId: pack.id,
		name: pack.name,
		source: pack.source,
		date: pack.date,
		maker: pack.maker,
		title,
		failureType,
		where: where(definition),
		setWhen: setConditions && `${sayCondition(setConditions)}${ours}`,
		testRunsWhen: testConditions && `${sayCondition(testConditions)}${ours}`,
		causes,
		notes,
		lamps,
		driving: DRIVING[driving]
	};
}

const SPEAKS_OF: { about: string; says: (d: SourcedDefinition) => string | null }[] = [
	{ about: 'which circuit it is', says: (d) => `${d.corner ?? ''}/${pathOf(d)}` },
	{ about: 'what sets it', says: (d) => d.setConditions && sayCondition(d.setConditions) },
	{ about: 'whether one may drive', says: (d) => DRIVING[d.driving] }
];
/** Ring and sensor are one circuit: two sources that name one each do not disagree. */
const pathOf = ({ group }: SourcedDefinition) => (group === 'tone-ring' ? 'wheel-speed' : group);

/** Every source's word on a code beside the others', and where they differ. A source that is silent does not disagree. */
export function codeSources(
	book: CodeBook,
	asked: Asked
): { sources: SourceView[]; disagreements: Disagreement[] } {
	const sources = sourcesFor(book, asked);
	const disagreements = SPEAKS_OF.flatMap(({ about, says }): Disagreement[] => {
		const said = sources
			.map((source) => ({ source, text: says(source) }))
			.filter((one): one is { source: SourcedDefinition; text: string } => one.text !== null);
		if (new Set(said.map((one) => one.text)).size < 2) return [];
		const circuit = about === 'which circuit it is';
		return [
			{
				about,
				says: said.map(({ source, text }) => ({
					name: source.pack.name,
					text: circuit ? where(source) : text
				}))
			}
		];
	});
	return { sources: sources.map(viewSource), disagreements };
}
