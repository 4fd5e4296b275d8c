import { json } from '@sveltejs/kit';
import { packJsonSchema } from '$library/packFile';

/** The published schema of pack files. */
export const GET = () => json(packJsonSchema());
