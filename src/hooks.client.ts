import type { ClientInit, HandleClientError } from '@sveltejs/kit';
import { reportTrouble } from '$lib/ui/reportTrouble';
import { noteTypedEarly } from './routes/typedEarly';

export const init: ClientInit = noteTypedEarly;

export const handleError: HandleClientError = ({ error, status, message }) => {
	if (status !== 404) reportTrouble(error);
	return { message: status === 404 ? message : 'Something went wrong on this page. What was saved is kept.' };
};
