import { z } from 'zod';

/** Where this server may connect to, besides this machine itself: hosts, comma separated, a final `*` for any rest. */
const allowed = (process.env.JALDI_LINK_HOSTS ?? '')
	.split(',')
	.map((host) => host.trim().toLowerCase())
	.filter(Boolean);
const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];

/** Whether an address that somebody wrote down is one that this server may connect to. */
export function mayConnectTo(address: string): boolean {
	const host = address.slice(0, address.lastIndexOf(':')).toLowerCase();
	return [...LOOPBACK, ...allowed].some((one) =>
		one.endsWith('*') ? host.startsWith(one.slice(0, -1)) : host === one
	);
}

const NOT_ALLOWED =
	'This server does not connect there: whoever runs it can allow that host (JALDI_LINK_HOSTS).';

/** `host:port` of an interface that this server may connect to, or nothing. */
export const LinkAddress = z
	.string()
	.trim()
	.max(100)
	.regex(/^$|^[A-Za-z0-9.-]+:\d{1,5}$/, 'Write it as host:port, for example 192.168.4.1:13400.')
	.refine((text) => text === '' || Number(text.split(':')[1]) <= 65_535, 'A port goes up to 65535.')
	.refine((text) => text === '' || mayConnectTo(text), NOT_ALLOWED);

/** Control panel of a simulated vehicle: on this machine only, since the server passes on what it says. */
export const StandInAddress = LinkAddress.refine(
	(text) => text === '' || /^(127\.0\.0\.1|localhost):/.test(text),
	'A stand-in runs on this machine: 127.0.0.1 and its port.'
);
