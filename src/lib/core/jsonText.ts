import { fail, ok, type Result } from './result';

/** JSON from text. The error says where it stops being JSON, and never repeats what may be no text at all. */
export function parseJsonText(text: string): Result<unknown> {
	if (text.trim() === '') return fail('it is empty: expected JSON');
	try {
		return ok(JSON.parse(text));
	} catch (error) {
		const said = error instanceof Error ? error.message : '';
		const at = /position (\d+)/.exec(said)?.[1];
		if (said.includes('end of JSON')) return fail('it ends in the middle: expected more JSON');
		if (at === undefined) return fail('this is no JSON from its first sign on');
		const before = text.slice(0, Number(at)).split('\n');
		return fail(`no JSON at line ${before.length}, column ${(before.at(-1)?.length ?? 0) + 1}`);
	}
}

/** What a text says as JSON; where it is none, the text as it is. */
export const parsedOrText = (text: string): unknown => {
	try {
		return JSON.parse(text);
	} catch {
		return text;
	}
};
