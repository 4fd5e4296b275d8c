import { z } from 'zod';
import { LINKS } from '../../../../library/links';
import { TURNS } from '../../core/prove/drivenBands';
import { Ulid, Words } from './fields';

/** Shapes that the payloads of several kinds of entries are made of. */

export const GRADES = ['maker’s own', 'branded', 'no-name', 'used', 'unknown'] as const;

/** More modules, codes or exchanges no vehicle has. */
export const MOST = {
	modules: 300,
	codes: 10_000,
	exchanges: 5000,
	snapshots: 300,
	values: 500,
	troubles: 20
};

export const Links = z.array(z.enum(LINKS)).max(LINKS.length);

/** What a test says of the links of one corner's path. */
export const says = {
	/** Links that it proves good. */
	proves: Links,
	/** Links that it makes suspect. */
	implicates: Links,
	says: Words
};

/** A measurement, a look or a method of the library. */
export const LibraryId = z
	.string()
	.regex(/^[a-z][a-z0-9-]*$/)
	.max(60);

export const Finite = z.number().finite();

export const MOST_PHOTOS = 8;

/** Photos that were kept beside the thread, by hash. */
export const Photos = z.array(z.object({ id: Ulid, sha256: z.string().length(64) })).max(MOST_PHOTOS);

export const ROADS = ['dry', 'wet', 'snow or ice', 'loose'] as const;

const Kmh = z.number().min(0).max(300);
const MOST_BANDS = 400;

/** A driven distance by speed and turn. */
export const DrivenBands = z
	.array(z.object({ fromKmh: Kmh, turn: z.enum(TURNS), km: z.number().min(0).max(100_000) }))
	.max(MOST_BANDS);

export const CalibrationId = z
	.string()
	.regex(/^[a-z-]+$/)
	.max(60);

export const Short = z.string().max(200);

export const Role = z.string().max(40);
