import { isCodeId } from './codeId';

declare const ofCode: unique symbol;

/** One code in one module: the address of the module, a stroke, its id, `1010/404513`. */
export type CodeKey = string & { readonly [ofCode]: true };

/** What is said of a code is said by a module: the same code in another module is another code. */
export const codeKey = ({ address, dtc }: { address: string; dtc: string }): CodeKey =>
	`${address}/${dtc}` as CodeKey;

/** Whether a text is a key: an address of four hex digits, a stroke, the id of a code. */
export function isCodeKey(text: string): text is CodeKey {
	const { address, dtc } = splitCodeKey(text);
	return /^[0-9A-F]{4}$/.test(address) && isCodeId(dtc);
}

/** The two of a key; both empty where it is none. */
export function splitCodeKey(key: string): { address: string; dtc: string } {
	const [, address = '', dtc = ''] = /^([^/]+)\/(.+)$/.exec(key) ?? [];
	return { address, dtc };
}
