import { z } from 'zod';
import { parseLinkAddress } from '../../link/linkAddress';

/** Where a vehicle is reached, or nothing. Whether this server may connect there is the shop's to say. */
export const LinkAddress = z
	.string()
	.trim()
	.max(100)
	.superRefine((text, context) => {
		const place = text === '' ? null : parseLinkAddress(text);
		if (place && !place.ok) context.addIssue({ code: 'custom', message: place.error });
	});

/** Control panel of a simulated vehicle: on this machine only, since the server passes on what it says. */
export const StandInAddress = z
	.string()
	.trim()
	.max(100)
	.refine(
		(text) => text === '' || /^(127\.0\.0\.1|localhost):\d{1,5}$/.test(text),
		'A simulator runs on this machine: 127.0.0.1 and its port.'
	);
