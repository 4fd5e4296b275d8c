import { accusationIn } from '../../../../library/accusations';
import { titleSource, type CodeBook } from '../../../../library/codes';
import type { VehicleType } from '../../../../library';
import { codeKey, type CodeKey } from '../../core/codes/codeKey';
import { codeNumber, suffixOf } from '../../core/codes/codeId';
import type { CaseCode } from '../codes/caseCode';
import type { EntryOf } from '../entries/entry';
import { lowerFirst } from '../words';

/** A code that follows from another module's trouble, and why. */
export interface Consequence {
	/** The code in its module. */
	key: CodeKey;
	text: string;
	moduleName: string;
	because: string;
}

/** What of a code is looked at here. */
export type Coded = Pick<CaseCode, 'dtc' | 'text' | 'address' | 'moduleName' | 'madeByUs' | 'corner'>;

/** The codes of a case, by whether they are worth chasing. */
export interface Cascade {
	/** Codes that stand for themselves. */
	causes: Coded[];
	consequences: Consequence[];
	/** One sentence for the page; null where there is nothing to leave alone. */
	text: string | null;
}

/**
 * Which codes only say that another module's data are missing or marked as not valid: from who sends what to whom, by the
 * codes' own definitions. A code stays a cause where the sender has neither a code of its own nor fell silent.
 */
export function cascadeOf(
	codes: readonly Coded[],
	scan: EntryOf<'network-scan'> | null,
	type: VehicleType,
	book: CodeBook
): Cascade {
	const silent = new Set(
		(scan?.payload.modules ?? []).filter(({ answered }) => !answered).map(({ address }) => address)
	);
	const senderOf = ({ dtc }: Coded) => {
		const asked = { code: codeNumber(dtc), failureType: suffixOf(dtc), maker: type.maker };
		const accused = accusationIn(asked.code, titleSource(book, asked));
		return type.modules.find((module) => module.role === accused?.sender) ?? null;
	};
	const own = codes.filter((code) => senderOf(code) === null);
	const causes: Coded[] = [];
	const consequences: Consequence[] = [];
	for (const code of codes) {
		if (code.madeByUs !== null) {
			consequences.push(consequence(code, 'made by our own test'));
			continue;
		}
		const sender = senderOf(code);
		const name = sender && lowerFirst(sender.name);
		if (!sender) causes.push(code);
		else if (silent.has(sender.address)) consequences.push(consequence(code, `${name} is silent`));
		else {
			const first = own.find(({ address }) => address === sender.address);
			if (first)
				consequences.push(consequence(code, `${name} marks its data as not valid because of ${first.text}`));
			else causes.push(code);
		}
	}
	return { causes, consequences, text: sentence(consequences, causes) };
}

const consequence = (code: Coded, because: string): Consequence => ({
	key: codeKey(code),
	text: code.text,
	moduleName: code.moduleName,
	because
});

function sentence(consequences: readonly Consequence[], causes: readonly Coded[]): string | null {
	if (consequences.length === 0) return null;
	const n = consequences.length;
	const these = n === 1 ? 'this 1 code' : `these ${n} codes`;
	const first = [...new Set(causes.map(({ text }) => text))];
	const instead = first.length > 0 ? ` Chase ${first.slice(0, 3).join(', ')}.` : '';
	return `Do not chase ${these}: ${n === 1 ? 'it follows' : 'they follow'} from something else.${instead}`;
}
