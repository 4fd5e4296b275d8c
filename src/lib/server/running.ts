import { optionsFromEnvironment, startServices, type Services } from './services';

let running: Services | null = null;

/** Starts the one set of services of this server process. */
export async function startRunning(): Promise<void> {
	running ??= await startServices(optionsFromEnvironment(process.env));
}

/** The running services. Throws before {@link startRunning} has finished. */
export function services(): Services {
	if (!running) throw new Error('the server has not started yet');
	return running;
}
