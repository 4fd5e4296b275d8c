import { BlockList, isIPv4 } from 'node:net';
import { DOIP_PORT } from '../../core/uds/doip';
import { fail, ok, type Result } from '../../core/result';
import { parseLinkAddress, type LinkPlace } from '../../link/linkAddress';

/** Where the shop lets this server connect to: a host or a network, all its ports or one; or a serial device. */
interface LinkRule {
	host: string;
	/** Bits of the network's address; null for one host. */
	bits: number | null;
	/** Null = all. */
	port: number | null;
}

const EXPECTED =
	'expected a host or a network, with a port or without: 192.168.4.1, 192.168.4.0/24:13400, bay-3.local:3333, /dev/ttyACM0';
const LARGEST_NETWORK = 8;

/** One line of the list. The error says what was expected. */
export function parseLinkRule(text: string): Result<LinkRule> {
	const rule = text.trim().toLowerCase();
	if (/^\/dev\/[a-z0-9_.-]+$/.test(rule)) return ok({ host: text.trim(), bits: null, port: null });
	const [, host = '', bits, port] = /^([a-z0-9.-]+?)(?:\/(\d{1,2}))?(?::(\d{1,5}))?$/.exec(rule) ?? [];
	if (host === '' || Number(port ?? 1) < 1 || Number(port ?? 1) > 65_535) return fail(EXPECTED);
	// Digits and full stops alone are an address, and a wrong one is no name.
	if (/^[\d.]+$/.test(host) && !isIPv4(host)) return fail(`“${host}” is no address; ${EXPECTED}`);
	if (bits !== undefined && (!isIPv4(host) || Number(bits) > 32 || Number(bits) < LARGEST_NETWORK))
		return fail(`a network is an address with ${LARGEST_NETWORK} to 32 bits; ${EXPECTED}`);
	return ok({
		host,
		bits: bits === undefined ? null : Number(bits),
		port: port === undefined ? null : Number(port)
	});
}

const rulesOf = (lines: readonly string[]): LinkRule[] =>
	lines.flatMap((line) => {
		const rule = parseLinkRule(line);
		return rule.ok ? [rule.value] : [];
	});

const THIS_MACHINE = '127.0.0.1';

/** Whether the shop lets the server connect there. */
export function mayDial({ kind, at }: LinkPlace, lines: readonly string[]): boolean {
	const rules = rulesOf(lines);
	if (kind === 'can-serial') return rules.some(({ host }) => host === at);
	const colon = at.lastIndexOf(':');
	const port = Number(at.slice(colon + 1));
	const named = at.slice(0, colon).toLowerCase();
	const host = named === 'localhost' ? THIS_MACHINE : named;
	return rules.some((rule) => (rule.port === null || rule.port === port) && covers(rule, host));
}

function covers({ host, bits }: LinkRule, asked: string): boolean {
	if (bits === null || !isIPv4(asked)) return host === asked && bits === null;
	const network = new BlockList();
	network.addSubnet(host, bits);
	return network.check(asked);
}

export const NOT_ALLOWED =
	'This shop does not connect there: a lead can allow it (Library, what this shop can do).';

/** Why the server may not connect to an address that somebody wrote down; null where it may. */
export function refusedLink(address: string, lines: readonly string[]): string | null {
	const place = parseLinkAddress(address);
	if (!place.ok) return place.error;
	return mayDial(place.value, lines) ? null : NOT_ALLOWED;
}

/** Where vehicles are asked whether they are there: each host, and each network at the address that all of it hears. */
export const placesToAsk = (lines: readonly string[]): { host: string; port: number; network: boolean }[] =>
	rulesOf(lines)
		.filter(({ host }) => isIPv4(host))
		.map(({ host, bits, port }) => ({
			host: bits === null ? host : broadcastOf(host, bits),
			port: port ?? DOIP_PORT,
			network: bits !== null && bits < 32
		}));

/** Adapters at serial devices that the shop allows, as addresses: of those that are plugged in. */
export const adaptersAt = (lines: readonly string[], pluggedIn: readonly string[]): string[] =>
	pluggedIn
		.map((path) => ({ kind: 'can-serial' as const, at: path, bitrate: 0 }))
		.filter((place) => mayDial(place, lines))
		.map(({ at }) => `slcan:${at}`);

/** Serial devices that are plugged in, and that the shop has not allowed. */
export const notAllowed = (lines: readonly string[], pluggedIn: readonly string[]): string[] =>
	pluggedIn.filter((at) => parseLinkRule(at).ok && !mayDial({ kind: 'can-serial', at, bitrate: 0 }, lines));

function broadcastOf(host: string, bits: number): string {
	const number = host.split('.').reduce((sum, part) => sum * 256 + Number(part), 0);
	const size = 2 ** (32 - bits);
	const last = Math.floor(number / size) * size + size - 1;
	return [24, 16, 8, 0].map((shift) => Math.floor(last / 2 ** shift) % 256).join('.');
}
