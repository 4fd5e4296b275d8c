import type { ParamMatcher } from '@sveltejs/kit';
import { LATER } from '$lib/case/stations';

/** Stations that this version does not have yet. */
export const match: ParamMatcher = (param) => (LATER as readonly string[]).includes(param);
