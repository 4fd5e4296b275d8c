import type { z } from 'zod';

/** A file or stream by its media type, with what is in it. */
export interface ApiContent {
	media: string;
	says: string;
}

/** What one method of a route takes and gives. It stands beside the code that answers, and parses with the same schemas; who may ask stands in the table of the gate. */
export interface ApiMethod {
	says: string;
	query?: Record<string, string>;
	/** JSON by its schema, or a file. */
	takes?: z.ZodType | ApiContent;
	gives: ApiContent;
}

/** Every method that a route answers to. */
export type ApiRoute = Partial<Record<'GET' | 'POST' | 'PUT', ApiMethod>>;

export const JSON_MEDIA = 'application/json';
export const json = (says: string): ApiContent => ({ media: JSON_MEDIA, says });
