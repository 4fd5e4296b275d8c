import { CODE_TEXT, codeText, codeWithSuffix, dtcHex, failureTypeByte } from './dtc';
import { parseSpelling, type AnyCode } from './spelling';

/**
 * What a code that a module told is called on a thread: six hex digits of ISO 14229 (`403513`), parameter and failure mode of
 * SAE J1939 (`SPN 789 FMI 5`), or a maker's own notation as its tool prints it, after an equals sign (`=01314`).
 */
export type CodeId = string;

/** A code as far as it makes another code: its status and its count do not. */
export type ModuleCode = Exclude<AnyCode, { kind: 'lamp' }>;

const SIX_HEX = /^[0-9A-F]{6}$/;
const HEAVY = /^SPN (\d+) FMI (\d+)( CM 1)?$/;

/** The id of a code; a kind of failure that was not told is 00, which says none. */
export function codeId(code: ModuleCode): CodeId {
	switch (code.kind) {
		case 'dtc':
			return dtcHex(code.code, code.failureType ?? '00');
		case 'j1939':
			return `${heavyNumber(code.spn)} FMI ${code.fmi}${code.conversion === 1 ? ' CM 1' : ''}`;
		case 'own':
			return `=${code.written}`;
	}
}

const heavyNumber = (spn: number) => `SPN ${spn}`;

/** The code that an id names. Throws RangeError for a text that is no id: parse at the edge first. */
export function codeOfId(id: CodeId): ModuleCode {
	if (SIX_HEX.test(id))
		return { kind: 'dtc', code: codeText(id), failureType: failureTypeByte(id), status: null };
	const spelled = parseSpelling(id);
	const [code] = spelled.ok ? spelled.value.codes : [];
	if (!code || code.kind === 'lamp') throw new RangeError(`"${id}" is the id of no code`);
	return code;
}

/** Whether a text is the id of a code, in the one form in which ids are written. */
export function isCodeId(text: string): boolean {
	if (SIX_HEX.test(text)) return true;
	const spelled = parseSpelling(text);
	const [code] = spelled.ok ? spelled.value.codes : [];
	return code !== undefined && code.kind !== 'lamp' && codeId(code) === text;
}

const NUMBER_OF_HEAVY = /^SPN (?:0|[1-9]\d{0,5})$/;

/** Whether a text is what sources describe a code under: {@link codeNumber} of some id. */
export const isCodeNumber = (text: string): boolean =>
	CODE_TEXT.test(text) ||
	(NUMBER_OF_HEAVY.test(text) ? isCodeId(`${text} FMI 0`) : text.startsWith('=') && isCodeId(text));

/** Under what sources describe it: `C0035`, `SPN 789`, `=01314`. */
export const codeNumber = (id: CodeId): string => numberOf(codeOfId(id));

/** The same of a code that is not on a thread. */
export function numberOf(code: ModuleCode): string {
	switch (code.kind) {
		case 'dtc':
			return code.code;
		case 'j1939':
			return heavyNumber(code.spn);
		case 'own':
			return `=${code.written}`;
	}
}

/** The failure type byte of the code, two hex digits; null where such codes have none. */
export const suffixOf = (id: CodeId): string | null => (SIX_HEX.test(id) ? failureTypeByte(id) : null);

/** The failure mode identifier of a heavy vehicle's code, 0–31; null for any other. */
export const failureModeOf = (id: CodeId): number | null => {
	const fmi = HEAVY.exec(id)?.[2];
	return fmi === undefined ? null : Number(fmi);
};

/** How people call it: `C0035-13`, `SPN 789 FMI 5`, `01314`. */
export const codeName = (id: CodeId): string =>
	SIX_HEX.test(id) ? codeWithSuffix(id) : id.replace(/^=/, '');
