import { toast } from 'svelte-sonner';
import { superForm, type SuperValidated } from 'sveltekit-superforms';

/** A form about people and passwords: checked on the server, errors beside their fields; what fails there is said, and nothing typed is lost. */
export const accountForm = <T extends Record<string, unknown>, M>(data: SuperValidated<T, M>) =>
	superForm<T, M>(data, {
		onError: ({ result }) => {
			toast.error(`${result.error.message || 'The server cannot be reached.'} What you typed is kept here.`);
		}
	});
