import { z } from 'zod';

/** `host:port` of an interface on the shop's network, or nothing. */
export const LinkAddress = z
	.string()
	.trim()
	.regex(/^$|^[A-Za-z0-9.-]+:\d{1,5}$/, 'Write it as host:port, for example 192.168.4.1:13400.')
	.refine((text) => text === '' || Number(text.split(':')[1]) <= 65_535, 'A port goes up to 65535.');

/**
 * Control panel of a simulated vehicle: on this machine only, since the server passes on whatever answers there.
 */
export const StandInAddress = LinkAddress.refine(
	(text) => text === '' || /^(127\.0\.0\.1|localhost):/.test(text),
	'A stand-in runs on this machine: 127.0.0.1 and its port.'
);
