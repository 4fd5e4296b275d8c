import {
	openServices,
	optionsFromEnvironment,
	startServices,
	type ServiceOptions,
	type Services
} from './services';

let running: Services | null = null;

/** Starts the one set of services of this process. */
export async function startRunning(options?: ServiceOptions): Promise<Services> {
	running ??= await startServices(options ?? optionsFromEnvironment(process.env));
	return running;
}

/** The services of a worker thread. */
export async function openRunning(options: ServiceOptions): Promise<void> {
	running ??= await openServices(options);
}

/** The running services. Throws before {@link startRunning} has finished. */
export function services(): Services {
	if (!running) throw new Error('the server has not started yet');
	return running;
}
