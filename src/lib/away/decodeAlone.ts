import { answer, type AskedCases, type AskedLibrary } from '../case/codes/answerText';
import type { DecoderAnswer } from '../case/codes/decoderAnswer';
import { shippedBook, shippedPacks } from '../../../library/codes';

const wordsIn = (text: string): string[] =>
	text
		.normalize('NFKC')
		.toLowerCase()
		.match(/[\p{L}\p{N}]+/gu) ?? [];

/** Every definition with the words of its title, and of its causes and notes. */
const SEARCHED = shippedPacks.flatMap(({ name, definitions }) =>
	definitions.map((definition) => {
		const lines = [...definition.causes, ...definition.notes];
		return {
			definition,
			packName: name,
			title: wordsIn(definition.title),
			lines,
			rest: wordsIn(lines.join(' '))
		};
	})
);

/** All words that were typed must begin a word of a definition; one in its title counts more. */
const shipped: AskedLibrary = {
	bookFor: () => Promise.resolve(shippedBook),
	search(text, limit) {
		const wanted = wordsIn(text);
		const begins = (word: string) => (other: string) => other.startsWith(word);
		const hits = SEARCHED.flatMap(({ definition, packName, title, rest, lines }) => {
			const inTitle = wanted.filter((word) => title.some(begins(word))).length;
			const all = wanted.every((word) => title.some(begins(word)) || rest.some(begins(word)));
			if (wanted.length === 0 || !all) return [];
			const { code, failureType } = definition;
			const because =
				inTitle === wanted.length
					? null
					: (lines.find((line) => wanted.some((word) => wordsIn(line).some(begins(word)))) ?? null);
			return [{ score: inTitle, code, failureType, title: definition.title, packName, because }];
		});
		return Promise.resolve(hits.sort((a, b) => b.score - a.score).slice(0, limit));
	}
};
/** Cases of the shop are the server's. */
const none = () => Promise.resolve([]);
const noCases: AskedCases = { search: none, casesWith: none, named: none };

/** What a text is as a code, or which codes have its words, by what this device has itself. */
export async function decodeAlone(text: string): Promise<DecoderAnswer> {
	return { ...(await answer(shipped, noCases, text, null)), alone: true };
}
